import { z } from 'zod';
import * as a from '../project/arguments';

/** Kinds of arguments of calls, with the types under which the declarations know them. */
export const glyphLike = ['Glyph | string', z.union([z.string().max(200), z.object({ $g: z.string() })])] as const;
export const masterLike = ['Master', z.object({ $m: z.string() })] as const;
export const masterMaybe = ['Master?', z.object({ $m: z.string() }).optional()] as const;
export const textOf = (most = 20_000) => ['string', z.string().max(most)] as const;
export const numberOf = ['number', z.number()] as const;
export const contoursOf = ['Contours', a.contours] as const;
export const placeOf = ['Place', z.record(z.string().max(4), z.number())] as const;
