import { z } from 'zod';

/** How a text is set where that differs from what a text would have by itself. */
export const settingSchema = z
  .object({
    /** Features by tag: off (0), on (1), or which of several forms. */
    features: z.record(z.string().max(4), z.number().int().min(0).max(65535)).readonly(),
    /** OpenType tag of the script. */
    script: z.string().max(4).optional(),
    /** OpenType tag of the language (capitals), or a BCP 47 code. */
    language: z.string().max(12).optional(),
    direction: z.enum(['ltr', 'rtl']).optional(),
  })
  .readonly();
export type Setting = z.infer<typeof settingSchema>;

/** A text set in two ways, one above the other. */
export const trialSchema = z
  .object({ text: z.string().max(4000), settings: z.tuple([settingSchema, settingSchema]).readonly() })
  .readonly();
export type Trial = z.infer<typeof trialSchema>;
