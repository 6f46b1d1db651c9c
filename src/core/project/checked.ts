import type { z } from 'zod';
import { type Result, refused } from '../base/result';
import { glyphSchema, PART_NAMES, type Project, partSchemas } from './model';

/**
 * Holds a project just read from outside to the document's schema, glyph by glyph, so that nothing enters that storage
 * or a worker would refuse later. The sentence names the glyph or part and what is wrong with it.
 */
export function checkedProject(project: Project, file: string): Result<Project> {
  const fault = (what: string, error: z.ZodError | undefined): Result<Project> => {
    const issue = error?.issues[0];
    return refused(
      issue
        ? `${file}: ${what}, ${issue.path.join('.') || 'value'}: ${issue.message}.`
        : `${file}: ${what} is damaged in too many places.`,
    );
  };
  // A schema that meets tens of thousands of faults in one glyph runs out of stack while it lists them.
  const held = (
    schema: z.ZodType<unknown>,
    value: unknown,
  ): { success: true } | { success: false; error?: z.ZodError } => {
    try {
      return schema.safeParse(value);
    } catch (error) {
      if (error instanceof RangeError) return { success: false };
      throw error;
    }
  };
  for (const glyph of Object.values(project.glyphs)) {
    const parsed = held(glyphSchema, glyph);
    if (!parsed.success) return fault(`the glyph “${glyph.name}”`, parsed.error);
  }
  for (const name of PART_NAMES) {
    const parsed = held(partSchemas[name] as z.ZodType<unknown>, project[name]);
    if (!parsed.success) return fault(`the ${name}`, parsed.error);
  }
  return { ok: true, value: project };
}
