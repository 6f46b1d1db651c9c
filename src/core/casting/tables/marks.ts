import { GLYPH_CLASS, writeGdef } from '../../opentype/gdef';
import type { Lookup } from '../../opentype/layout/lists';
import { type AnchorsByGlyph, markLookup } from '../../opentype/markPos';
import type { CastPlan, Entry } from '../plan';

type Anchors = Map<string, Map<number, { x: number; y: number }>>;

const isMark = ({ glyph, drawing }: Entry): boolean =>
  glyph.category === 'mark' || drawing.anchors.some((a) => a.name.startsWith('_'));

/** Anchors by name: of bases, of marks where they sit, of marks where others sit on them. */
function anchorsOf(entries: readonly Entry[]) {
  const [bases, sitting, carrying]: [Anchors, Anchors, Anchors] = [new Map(), new Map(), new Map()];
  const note = (into: Anchors, name: string, index: number, a: { x: number; y: number }) => {
    const of = into.get(name) ?? new Map();
    into.set(name, of);
    // The first of a name counts.
    if (!of.has(index)) of.set(index, { x: units(a.x), y: units(a.y) });
  };
  entries.forEach((entry, index) => {
    const mark = isMark(entry);
    for (const a of entry.drawing.anchors) {
      if (a.role === 'entry' || a.role === 'exit' || a.role === 'caret') continue;
      if (a.name.startsWith('_')) note(sitting, a.name.slice(1), index, a);
      // Numbered anchors are of a ligature's parts.
      else if (!/_\d+$/.test(a.name)) note(mark ? carrying : bases, a.name, index, a);
    }
  });
  return { bases, sitting, carrying };
}

const units = (v: number): number => Math.max(-32768, Math.min(32767, Math.round(v)));

/** `mark` and `mkmk`: a lookup for each kind of anchor, in the order of their names. */
export function markFeatures({ entries }: Pick<CastPlan, 'entries'>): { tag: string; lookups: Lookup<Uint8Array>[] }[] {
  const { bases, sitting, carrying } = anchorsOf(entries);
  const names = [...sitting.keys()].sort();
  const none: AnchorsByGlyph = new Map();
  const lookups = (onto: 'base' | 'mark', of: Anchors) =>
    names.flatMap((name) => markLookup(onto, sitting.get(name)!, of.get(name) ?? none));
  return [
    { tag: 'mark', lookups: lookups('base', bases) },
    { tag: 'mkmk', lookups: lookups('mark', carrying) },
  ];
}

/** `GDEF`, where the font has marks: which glyphs are marks, ligatures, bases. */
export function gdefTable({ entries }: Pick<CastPlan, 'entries'>): Uint8Array | undefined {
  if (!entries.some(isMark)) return undefined;
  return writeGdef(
    new Map(
      entries.flatMap((entry, i) =>
        i === 0
          ? []
          : [
              [
                i,
                isMark(entry)
                  ? GLYPH_CLASS.mark
                  : entry.glyph.category === 'ligature'
                    ? GLYPH_CLASS.ligature
                    : entry.glyph.category === 'component'
                      ? GLYPH_CLASS.component
                      : GLYPH_CLASS.base,
              ] as const,
            ],
      ),
    ),
  );
}
