import { GLYPH_CLASS } from '../opentype/gdef';
import { FeatureFault } from './cursor';
import type { Names } from './resolve';
import { baselines, styleBlock, type TablesSaid, tableLine } from './tableBlocks';
import type { NameText, Span, Statement } from './tree';

type Tell = (reason: string, at: Span, severity?: 'error' | 'attention') => void;

/** What text says of glyphs and names beside rules, and the numbers of sets of marks that lookups name. */
export type Definitions = {
  /** Classes that the text gives glyphs outright. */
  classes: Map<number, number>;
  carets: Map<number, number[]>;
  /** Carets at points of the outline. */
  caretPoints: Map<number, number[]>;
  attachPoints: Map<number, number[]>;
  attachmentClasses: (readonly number[])[];
  filterSets: (readonly number[])[];
  nameRecords: (NameText & { id: number })[];
  /** Does the text say all classes itself? */
  saysClasses: boolean;
  /** What blocks of other tables say. */
  said: TablesSaid;
  attachmentClass(set: readonly number[]): number;
  filterSet(set: readonly number[]): number;
  add(s: Extract<Statement, { kind: 'table' }>, names: Names, tell: Tell): void;
};

/** Classes and sets of marks that a table which is carried along numbers already. */
export type KnownMarks = Pick<Definitions, 'attachmentClasses' | 'filterSets'>;

/** `numbered` gives names of places on axes their numbers in the name table. */
export function definitionsOf(
  known: KnownMarks | undefined,
  numbered: (names: readonly NameText[]) => number,
): Definitions {
  const place = (list: (readonly number[])[], set: readonly number[]): number => {
    const text = String([...new Set(set)].sort((a, b) => a - b));
    const at = list.findIndex((s) => String([...s].sort((a, b) => a - b)) === text);
    return at >= 0 ? at : list.push([...new Set(set)].sort((a, b) => a - b)) - 1;
  };
  const out: Definitions = {
    classes: new Map(),
    carets: new Map(),
    caretPoints: new Map(),
    attachPoints: new Map(),
    attachmentClasses: [...(known?.attachmentClasses ?? [])],
    filterSets: [...(known?.filterSets ?? [])],
    nameRecords: [],
    saysClasses: false,
    said: { hhea: {}, os2: {}, base: {} },
    // Classes count from 1 on.
    attachmentClass: (set) => place(out.attachmentClasses, set) + 1,
    filterSet: (set) => place(out.filterSets, set),
    add(s, names, tell) {
      if (s.tag === 'GDEF') {
        gdef(out, s, names, tell);
        return;
      }
      if (s.tag === 'name') {
        for (const line of s.body) {
          const [id] = line.numbers as [number];
          if (id >= 1 && id <= 6)
            tell(`The name ${id} follows from the family in Plan; this one is left aside.`, line, 'attention');
          else for (const n of line.names) out.nameRecords.push({ ...n, id });
        }
        return;
      }
      if (s.tag === 'STAT') out.said.style = styleBlock(s, numbered);
      else if (s.tag === 'BASE') out.said.base = { ...out.said.base, ...baselines(s) };
      else
        for (const line of s.body)
          try {
            tableLine(out.said, s.tag, line, names);
          } catch (error) {
            if (!(error instanceof FeatureFault)) throw error;
            tell(error.reason, error.at);
          }
    },
  };
  return out;
}

function gdef(out: Definitions, s: Extract<Statement, { kind: 'table' }>, names: Names, tell: Tell): void {
  const classes = [GLYPH_CLASS.base, GLYPH_CLASS.ligature, GLYPH_CLASS.mark, GLYPH_CLASS.component];
  for (const line of s.body) {
    const [first] = line.sets;
    if (line.keyword === 'GlyphClassDef') {
      out.saysClasses = true;
      line.sets.forEach((set, i) => {
        for (const g of names.glyphs(set)) {
          const there = out.classes.get(g);
          if (there !== undefined && there !== classes[i])
            tell('A glyph is in two classes; the first holds.', line, 'attention');
          else out.classes.set(g, classes[i]!);
        }
      });
      continue;
    }
    if (!first) continue;
    const into =
      line.keyword === 'Attach'
        ? out.attachPoints
        : line.keyword === 'LigatureCaretByIndex'
          ? out.caretPoints
          : out.carets;
    if (line.keyword === 'LigatureCaretByDev') {
      tell('Carets by device tables are left out.', line, 'attention');
      continue;
    }
    for (const g of names.glyphs(first)) {
      const list = into.get(g) ?? [];
      into.set(
        g,
        [...new Set([...list, ...line.numbers])].sort((a, b) => a - b),
      );
    }
  }
}
