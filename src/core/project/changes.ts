import { z } from 'zod';
import { defineEdit, edited } from './edit';
import type { Entry } from './history';
import { type GlyphId, settingsSchema } from './model';

/** Castings beyond this are forgotten, the oldest first. */
const MOST_CASTINGS = 12;

/** What changed since a time, made of the history. */

/** Glyphs that entries touch: their drawings, names, sides, status. */
export function glyphsTouched(entries: readonly Entry[]): Set<GlyphId> {
  const out = new Set<GlyphId>();
  for (const { patch } of entries)
    for (const { path } of patch) if (path[0] === 'glyphs' && path.length > 1) out.add(String(path[1]));
  return out;
}

/**
 * Of entries, oldest first, those done since a time, in milliseconds since 1970; `all` is false where one before the time was met,
 * so that older ones need not be asked for. Entries whose time is not known are older than any.
 */
export function entriesSince(entries: readonly (Entry | undefined)[], since: number): { found: Entry[]; all: boolean } {
  const found: Entry[] = [];
  for (let i = entries.length - 1; i >= 0; i--) {
    const entry = entries[i];
    if (!entry) continue;
    if (entry.at === undefined || entry.at < since) return { found: found.reverse(), all: false };
    found.push(entry);
  }
  return { found: found.reverse(), all: true };
}

/** Notes that fonts were cast, so that what changed since can be told. */
export const noteCast = defineEdit(
  {
    name: 'noteCast',
    does: 'Notes when fonts were cast',
    reach: 'no master',
    args: z.object({
      at: z.number().min(0).max(1e14).describe('milliseconds since 1970'),
      casting: settingsSchema.shape.castings.unwrap().unwrap().element.optional(),
      print: settingsSchema.shape.castPrint,
    }),
  },
  (project, { at, casting, print }) => {
    const castings = casting && [...(project.settings.castings ?? []), casting].slice(-MOST_CASTINGS);
    const settings = {
      ...project.settings,
      castAt: at,
      ...(castings && { castings }),
      ...(print && { castPrint: print }),
    };
    return edited({ ...project, settings }, 'Noted the cast');
  },
);
