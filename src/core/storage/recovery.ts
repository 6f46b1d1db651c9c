import { attempt } from '../base/result';
import type { Entry } from '../project/history';
import type { Glyph, GlyphId, Project } from '../project/model';
import { applySteps } from '../project/patch';
import type { Meta } from './forms';
import { packedGlyph, unpackedGlyph } from './pack';
import { BEFORE, GLYPHS, json, type Shelf } from './shelf';

type ReadEntries = (from: number, to: number) => Promise<(Entry | undefined)[]>;

/**
 * The last state of a glyph that can be read: as its segment was when the project was opened last, with all that the
 * history says of it laid over; every step says what a place became, so that the newest word on it counts. Undefined
 * where there is none.
 */
export async function lastGood(
  shelf: Shelf,
  meta: Meta,
  seat: number | undefined,
  { id, project, entries }: { id: GlyphId; project: Project; entries: ReadEntries },
): Promise<Glyph | undefined> {
  let glyph: Glyph | undefined;
  for (const i of seat === undefined ? Array.from({ length: meta.segments }, (_, k) => k) : [seat]) {
    const backup = (await shelf.get(`${BEFORE}${GLYPHS}${i}`)) as { value?: unknown } | undefined;
    const list = typeof backup?.value === 'string' ? json(backup.value) : undefined;
    const raw = Array.isArray(list) ? list.find((g) => (g as { id?: unknown } | null)?.id === id) : undefined;
    const read = raw === undefined ? undefined : attempt(() => unpackedGlyph(raw));
    if (!read?.ok) continue;
    glyph = read.value;
  }
  const one = (g: Glyph | undefined): Project => ({ ...project, glyphs: g ? { [id]: g } : {} });
  let state = one(glyph);
  const { position } = meta;
  for (let s = meta.first; s <= position; s += 100) {
    for (const entry of await entries(s, Math.min(position, s + 99))) {
      const steps = (entry?.patch ?? []).filter(({ path }) => path[0] === 'glyphs' && path[1] === id);
      if (steps.length > 0)
        state = applySteps(
          state,
          steps.map(({ path, after }) => ({ path, value: after })),
        );
    }
  }
  const found = state.glyphs[id];
  return found && attempt(() => unpackedGlyph(packedGlyph(found))).ok ? found : undefined;
}
