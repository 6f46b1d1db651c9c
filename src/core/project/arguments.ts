import { z } from 'zod';
import { advance, angle, coordinate, factor, isCharacter, kern, share } from './limits';
import { contourSchema, type Glyph, glyphSchema } from './model';

/** What arguments of edits are made of. One word for one kind of thing, so that forms, scripts and tests know what is meant. */

export const glyph = z.string().describe('id of a glyph');
export const master = z.string().describe('id of a master');
export const glyphs = z.array(glyph).readonly();
export const masters = z.array(master).readonly();
/** One drawing: a glyph in a master; `also` names other masters in which the same is done. */
export const at = z.object({ glyph, master, also: masters.optional() });
/** What follows along may lie between the lines of the project's grid. */
export const free = z.boolean().optional();
/** A place in a list, counted from 0. */
export const index = z.number().int().min(0);
export const indices = z.array(index).readonly();
/** A point of a drawing by place: `contour:point`, counted from 0. */
export const point = z.templateLiteral([z.number(), ':', z.number()]);
export const points = z.array(point).readonly();
export const contour = contourSchema;
export const contours = z.array(contourSchema).readonly();
export const text = z.string().max(4000);
export const texts = z.array(text).readonly();
export const date = z.string().describe('date and time, ISO 8601');
/** A difference or distance in font units. */
export const units = coordinate;
export const degrees = angle;
export { advance, factor, kern, share };
/** A number that the edit itself holds to sense, with words of its own. */
export const number = z.number();
export const codePoints = z.array(z.number().refine(isCharacter)).readonly();
export const side = z.enum(['left', 'right']);
export const groupSide = z.enum(['first', 'second']);
export const group = z.string().describe('id of a kerning group');
export const pairSide = z.object({ kind: z.enum(['glyph', 'group']), id: z.string() });
export const pairKeyText = z.string().describe('key of a kerning pair');
export const zoneKey = z.enum(['baseline', 'xHeight', 'capHeight', 'ascender', 'descender']);
export const status: z.ZodType<Glyph['status']> = glyphSchema.shape.status;
export const affine = z.tuple([factor, factor, factor, factor, coordinate, coordinate]).readonly();
