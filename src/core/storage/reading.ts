import { restEvery } from '../base/rest';
import { attempt, isRefused, type Refusal, refused } from '../base/result';
import type { Glyph, GlyphId, Parts } from '../project/model';
import type { Meta } from './forms';
import { unpackedDrawing, unpackedGlyph } from './pack';
import { salvagedGlyph, salvagedParts } from './salvage';
import { BEFORE, GLYPHS, json, KEPT, KERNING, PARTS, PICTURE, type Shelf } from './shelf';

/** Reading what lies on the shelf: whatever can be read is, and what cannot is said and kept. */

type Named = { id: string; name: string };

/** Glyphs by id in their order, the segment each has its seat in, those that are damaged, the segments' own text. */
export type ReadGlyphs = {
  glyphs: Record<GlyphId, Glyph>;
  damaged: GlyphId[];
  /** Those that no segment has, with what is to be said of each unless the journal brings it. */
  missing: ReadonlyMap<GlyphId, readonly Refusal[]>;
  seats: ReadonlyMap<GlyphId, number>;
  segments: string[];
};

/** All parts of the project but its glyphs. Refused where nothing could be shown with them. */
export async function readParts(shelf: Shelf, meta: Meta, faults: Refusal[]): Promise<Parts | Refusal> {
  const [raw, kept, kernings, pictures] = await Promise.all([
    shelf.get(PARTS),
    shelf.get(KEPT),
    Promise.all(meta.masters.map(async (id) => [id, await shelf.get(KERNING + id)] as const)),
    Promise.all(meta.pictures.map(async (key) => [key, await shelf.get(PICTURE + key)] as const)),
  ]);
  const found = typeof raw === 'object' && raw !== null ? raw : undefined;
  if (!found) await shelf.keepUnread(PARTS, raw);
  const before = found ? undefined : ((await shelf.get(BEFORE + PARTS)) as { value?: object } | undefined)?.value;
  if (!found && before)
    faults.push(
      refused(
        'Names, metrics and groups could not be read; they are as they were when the project was opened last.',
        undefined,
        'attention',
      ),
    );
  const parts = { ...(found ?? before ?? {}) } as Record<string, unknown>;
  const values = new Map(kernings);
  if (Array.isArray(parts.masters))
    parts.masters = parts.masters.map((m) =>
      typeof m === 'object' && m !== null ? { ...m, kerning: kerningOf(shelf, m as Named, values, faults) } : m,
    );
  parts.kept = kept ?? {};
  parts.pictures = Object.fromEntries(pictures.filter(([, p]) => p !== undefined));
  const sound = salvagedParts(parts);
  if (isRefused(sound)) return sound;
  if (sound.faults.length > 0) await shelf.keepUnread(PARTS, raw);
  faults.push(...sound.faults);
  return sound.value;
}

function kerningOf(shelf: Shelf, master: Named, values: ReadonlyMap<string, unknown>, faults: Refusal[]): unknown {
  const text = values.get(master.id);
  if (text === undefined) return {};
  const read = typeof text === 'string' ? json(text) : undefined;
  if (read !== undefined) return read;
  void shelf.keepUnread(KERNING + master.id, text);
  faults.push(refused(`The kerning of ${master.name} could not be read.`, { master: master.name }, 'attention'));
  return {};
}

/** Reading goes on for so many milliseconds at most before what else waits has its turn. */
const LONGEST = 20;

/** All glyphs; one that the order names and no segment has becomes an empty compartment. */
export async function readGlyphs(shelf: Shelf, meta: Meta, parts: Parts, faults: Refusal[]): Promise<ReadGlyphs> {
  const glyphs: Record<GlyphId, Glyph> = {};
  const damaged: GlyphId[] = [];
  const segments: string[] = new Array(meta.segments).fill('[]');
  const lost = (id: GlyphId, raw: unknown) => {
    const made = salvagedGlyph(id, raw, parts.masters, (v) => unpackedDrawing(v as never));
    glyphs[id] = made.value;
    damaged.push(id);
    faults.push(...made.faults);
  };
  const seats = new Map<GlyphId, number>();
  const read = async (i: number, text: unknown) => {
    const list = typeof text === 'string' ? json(text) : undefined;
    if (!Array.isArray(list)) return shelf.keepUnread(`${GLYPHS}${i}`, text);
    let sound = true;
    for (const raw of list) {
      const glyph = attempt(() => unpackedGlyph(raw));
      const id: unknown = (raw as { id?: unknown } | null)?.id;
      if (glyph.ok) glyphs[glyph.value.id] = glyph.value;
      else if (typeof id === 'string') lost(id, raw);
      const known = glyph.ok ? glyph.value.id : id;
      if (typeof known === 'string') seats.set(known, i);
      if (!glyph.ok) sound = false;
    }
    if (sound) segments[i] = text as string;
    else await shelf.keepUnread(`${GLYPHS}${i}`, text);
  };
  const texts = await Promise.all(Array.from({ length: meta.segments }, (_, i) => shelf.get(`${GLYPHS}${i}`)));
  const breathe = restEvery(LONGEST);
  for (const [i, text] of texts.entries()) {
    await read(i, text);
    await breathe();
  }
  const missing = new Map<GlyphId, readonly Refusal[]>();
  for (const id of parts.glyphOrder) {
    if (glyphs[id]) continue;
    const made = salvagedGlyph(id, undefined, parts.masters, (v) => unpackedDrawing(v as never));
    glyphs[id] = made.value;
    missing.set(id, made.faults);
  }
  const ordered = Object.fromEntries(
    [...new Set([...parts.glyphOrder, ...Object.keys(glyphs)])].map((id) => [id, glyphs[id]!]),
  );
  const whole = damaged.length + missing.size === 0;
  return { glyphs: ordered, damaged, missing, seats, segments: whole ? segments : [] };
}
