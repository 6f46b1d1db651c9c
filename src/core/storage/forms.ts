import { z } from 'zod';

/** How the records of storage are formed; whatever is read is held to these first. */

const count = z.number().int().min(0);

/** The head of a project's records. */
export const metaSchema = z.object({
  version: z.number().int(),
  segments: count,
  /** Masters and pictures that have records of their own. */
  masters: z.array(z.string()),
  pictures: z.array(z.string()),
  /** The newest record of the journal that the others hold already. */
  checkpoint: count,
  /** Serials of the history: the oldest kept, the newest done, the newest kept. */
  first: z.number().int().min(1),
  position: count,
  last: count,
});
export type Meta = z.infer<typeof metaSchema>;

const path = z
  .array(z.union([z.string(), z.number()]))
  .min(1)
  .refine((p) => !p.includes('__proto__'));

export const entrySchema = z.object({
  sentence: z.string(),
  patch: z.array(z.object({ path, before: z.unknown().optional(), after: z.unknown().optional() })),
  at: z.number().optional(),
});

/** One gesture (with its history entry), or an undo or redo (with the steps that it takes). */
export const journalSchema = z.object({
  position: count,
  first: z.number().int().min(1),
  last: count,
  entry: entrySchema.optional(),
  steps: z.array(z.object({ path, value: z.unknown().optional() })).optional(),
});
export type JournalRecord = z.infer<typeof journalSchema>;
