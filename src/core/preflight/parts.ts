import { addTo } from '../base/grouping';
import { determinant } from '../geometry/affine';
import type { Anchor, Glyph, GlyphId, Master, Project } from '../project/model';
import { cycleFrom, drawingsOf, isOverbuilt } from '../project/outline';
import { drawingOf } from '../project/queries';
import { type Amounts, type Finding, finding, type KindFacts } from './finding';
import { isLetterLike } from './letters';
import type { EndsOf } from './lines';
import { said } from './outline';

export const PART_KINDS: readonly KindFacts[] = [
  {
    kind: 'parts/gone',
    family: 'parts',
    title: 'Components of glyphs that are gone',
    severity: 'error',
    why: 'The part draws nothing; in the font the glyph lacks it.',
  },
  {
    kind: 'parts/endless',
    family: 'parts',
    title: 'Components that lead back to themselves',
    severity: 'error',
    why: 'A glyph cannot be a part of itself: fonts with such a circle are refused.',
  },
  {
    kind: 'parts/deep',
    family: 'parts',
    title: 'Components nested too deep',
    severity: 'attention',
    why: 'Some programs follow components of components a few steps only and then draw nothing.',
    amount: { label: 'Deeper than', unit: 'steps', usual: 5, least: 1, most: 16 },
  },
  {
    kind: 'parts/mirrored',
    family: 'parts',
    title: 'Mirrored components',
    severity: 'note',
    habit: true,
    why: 'A mirrored part runs the other way; in TrueType fonts it is drawn out, and its light and dark sides are exchanged.',
  },
  {
    kind: 'parts/scaled',
    family: 'parts',
    title: 'Scaled components',
    severity: 'note',
    habit: true,
    why: 'What is scaled changes its stems as well: it is lighter or darker than the letters around it.',
    amount: { label: 'Scaled by more than', unit: 'percent', usual: 2, least: 0, most: 50 },
  },
  {
    kind: 'parts/anchorUseless',
    family: 'parts',
    title: 'Anchors without use',
    severity: 'note',
    why: 'An anchor works only with its fellow: a base’s with a mark that has the same name after an underscore.',
  },
  {
    kind: 'parts/anchorMissing',
    family: 'parts',
    title: 'Anchors that fellows have',
    severity: 'attention',
    why: 'Most letters of its kind take marks there; at this one a combining accent stands where it happens to fall.',
    amount: { label: 'Of their fellows have it', unit: 'percent', usual: 90, least: 50, most: 100 },
  },
  {
    kind: 'parts/anchorFar',
    perMaster: true,
    family: 'parts',
    title: 'Anchors far from their fellows',
    severity: 'attention',
    why: 'Marks on this letter stand much higher, lower or further aside than on letters of its height.',
    amount: { label: 'Farther than', unit: 'thousandths of the em', usual: 120, least: 10, most: 1000 },
  },
  {
    kind: 'parts/markWide',
    family: 'parts',
    title: 'Marks with an advance',
    severity: 'note',
    habit: true,
    why: 'A combining mark that has a width of its own pushes the next letter away in programs that do not place marks.',
  },
  {
    kind: 'parts/recipe',
    family: 'parts',
    title: 'Composites that differ from their anchors',
    severity: 'note',
    habit: true,
    why: 'The mark stands elsewhere than the anchors of base and mark put it: in running text the combining mark will stand there, in the composed letter here.',
    amount: { label: 'By more than', unit: 'thousandths of the em', usual: 3, least: 0.5, most: 100 },
  },
];

/** What is wrong with the parts of one glyph. */
export function partFindings(project: Project, glyph: Glyph, amounts: Amounts): Finding[] {
  const out: Finding[] = [];
  const told = new Set<string>();
  for (const master of project.masters) {
    const drawing = glyph.drawings[master.id];
    if (!drawing || drawing.components.length === 0) continue;
    const source = drawingsOf(project, master.id);
    const add = (key: string, make: () => Finding) => {
      if (told.has(key)) return;
      told.add(key);
      out.push(make());
    };
    const at = { glyph: glyph.id, masters: [master.id] };
    const gone = drawing.components.flatMap((c, i) => (project.glyphs[c.glyph] ? [] : [i]));
    if (gone.length > 0)
      add('gone', () =>
        finding('parts/gone', 'It has a component of a glyph that is not in the project.', {
          ...at,
          mends: [
            {
              edit: 'removeComponents',
              args: { at: { glyph: glyph.id, master: master.id, also: holding(project, glyph, gone) }, indices: gone },
              title: 'Take it away',
            },
          ],
        }),
      );
    const circle = cycleFrom(glyph.id, source);
    if (circle) {
      add('endless', () =>
        finding(
          'parts/endless',
          `It is a part of itself, by way of ${circle
            .slice(0, 3)
            .map((id) => project.glyphs[id]?.name ?? '?')
            .join(', ')}.`,
          at,
        ),
      );
      continue;
    }
    if (isOverbuilt(drawing, source))
      add('endless', () => finding('parts/endless', 'It has more parts than can be drawn.', at));
    const depth = depthOf(project, master, glyph.id, 0);
    if (depth > amounts('parts/deep'))
      add('deep', () => finding('parts/deep', `Its components are nested ${depth} deep.`, { ...at, bad: depth }));
    // Arrows and brackets are mirrored and scaled as a matter of course; letters and figures have stems.
    drawing.components.forEach((c, i) => {
      if (!hasStems(glyph) || !hasStems(project.glyphs[c.glyph])) return;
      const name = project.glyphs[c.glyph]?.name ?? '?';
      const [xx, xy, yx, yy, dx, dy] = c.transform;
      const spots = [{ x: dx, y: dy }];
      if (determinant(c.transform) < 0) {
        add(`mirrored ${i}`, () => finding('parts/mirrored', `${name} stands mirrored in it.`, { ...at, spots }));
        return;
      }
      const [sx, sy] = [Math.hypot(xx, xy), Math.hypot(yx, yy)];
      const most = amounts('parts/scaled') / 100;
      if (Math.max(Math.abs(sx - 1), Math.abs(sy - 1)) > most)
        add(`scaled ${i}`, () =>
          finding(
            'parts/scaled',
            `${name} stands in it at ${percent(sx)}${Math.abs(sx - sy) > 0.005 ? ` by ${percent(sy)}` : ''}.`,
            {
              ...at,
              spots,
              bad: Math.max(Math.abs(sx - 1), Math.abs(sy - 1)),
            },
          ),
        );
    });
    const off = offAnchors(project, master, glyph);
    if (off && off.by > (amounts('parts/recipe') * project.unitsPerEm) / 1000)
      add('recipe', () =>
        finding('parts/recipe', `${off.mark} stands ${said(off.by)} from where the anchors put it.`, {
          ...at,
          bad: off.by,
          spots: [off.spot],
          mends: [{ edit: 'placeByAnchors', args: { glyph: glyph.id }, title: 'Put it where the anchors say' }],
        }),
      );
  }
  return out;
}

/** Letters and figures have stems that are held against one another. */
const hasStems = (glyph: Glyph | undefined): boolean =>
  glyph?.unicodes.some((c) => /^[\p{L}\p{N}]$/u.test(String.fromCodePoint(c))) === true;

/** Masters, the first aside, in which the same components of a glyph are gone. */
const holding = (project: Project, glyph: Glyph, gone: readonly number[]): string[] =>
  project.masters.slice(1).flatMap((m) => {
    const d = glyph.drawings[m.id];
    return d && gone.every((i) => d.components[i] && !project.glyphs[d.components[i].glyph]) ? [m.id] : [];
  });

const percent = (v: number): string => `${Math.round(v * 1000) / 10} %`;

function depthOf(project: Project, master: Master, id: GlyphId, depth: number): number {
  const glyph = project.glyphs[id];
  if (!glyph || depth > 20) return depth;
  const parts = drawingOf(glyph, master.id).components;
  return parts.length === 0 ? depth : Math.max(...parts.map((c) => depthOf(project, master, c.glyph, depth + 1)));
}

/** Where anchors would put a mark of a composite of a base and marks, and how far from there it stands. */
export function offAnchors(project: Project, master: Master, glyph: Glyph) {
  const { components, contours } = drawingOf(glyph, master.id);
  const [base, ...marks] = components;
  if (!base || marks.length === 0 || contours.length > 0) return undefined;
  // What is not carried along as it is has been placed by hand.
  if (
    components.some((c) => c.transform[0] !== 1 || c.transform[1] !== 0 || c.transform[2] !== 0 || c.transform[3] !== 1)
  )
    return undefined;
  const anchorsOf = (id: GlyphId) => (project.glyphs[id] ? drawingOf(project.glyphs[id]!, master.id).anchors : []);
  // What is stacked hangs on what came before it: the newest anchor of a name counts.
  const held = new Map(
    anchorsOf(base.glyph).map((a) => [a.name, { x: a.x + base.transform[4], y: a.y + base.transform[5] }]),
  );
  let worst:
    | { by: number; mark: string; spot: { x: number; y: number }; index: number; dx: number; dy: number }
    | undefined;
  for (const [i, mark] of marks.entries()) {
    const own = anchorsOf(mark.glyph);
    const meets = own.filter((a) => a.name.startsWith('_') && held.has(a.name.slice(1)));
    const by = mark.anchor ? meets.find((a) => a.name === `_${mark.anchor}`) : meets[0];
    if (!by) return undefined;
    // Several anchors could take it: which was meant is not known.
    if (!mark.anchor && meets.length > 1) return undefined;
    const goal = held.get(by.name.slice(1))!;
    const [dx, dy] = [goal.x - by.x - mark.transform[4], goal.y - by.y - mark.transform[5]];
    const away = Math.hypot(dx, dy);
    if (!worst || away > worst.by)
      worst = {
        by: away,
        mark: project.glyphs[mark.glyph]!.name,
        spot: { x: by.x + mark.transform[4], y: by.y + mark.transform[5] },
        index: i + 1,
        dx,
        dy,
      };
    for (const a of own)
      if (!a.name.startsWith('_')) held.set(a.name, { x: a.x + mark.transform[4], y: a.y + mark.transform[5] });
  }
  return worst;
}

/** Anchors of the whole project: without a fellow, missing beside fellows, far from them; marks with a width. */
export function anchorFindings(project: Project, glyphs: readonly Glyph[], ends: EndsOf, amounts: Amounts): Finding[] {
  const out: Finding[] = [];
  const master = project.masters[0];
  if (!master) return out;
  const [taken, given] = [new Map<string, Glyph[]>(), new Map<string, Glyph[]>()];
  for (const glyph of glyphs)
    for (const a of drawingOf(glyph, master.id).anchors) {
      if (isOwnPurpose(a.name)) continue;
      const [map, name] = a.name.startsWith('_')
        ? ([given, a.name.slice(1)] as const)
        : ([taken, a.name.replace(/_\d+$/, '')] as const);
      const list = map.get(name) ?? [];
      list.push(glyph);
      map.set(name, list);
    }
  const useless = (name: string, owners: readonly Glyph[], what: string, anchor: string) =>
    out.push(
      finding(
        'parts/anchorUseless',
        `${owners.length === 1 ? `${owners[0]!.name} has` : `${owners.length} glyphs have`} the anchor ${anchor}, and ${what} has ${name}.`,
        {
          others: owners.map((g) => g.id),
          bad: owners.length,
        },
      ),
    );
  for (const [name, owners] of taken) if (!given.has(name)) useless(`_${name}`, owners, 'no mark', name);
  for (const [name, owners] of given) if (!taken.has(name)) useless(name, owners, 'nothing', `_${name}`);
  out.push(...missingAnchors(master, glyphs, amounts, given));
  out.push(...farAnchors(project, glyphs, ends, amounts));
  out.push(...wideMarks(project, glyphs));
  return out;
}

/** Anchors that are not for marks: carets, entries and exits, and names that other tools use for purposes of theirs. */
const isOwnPurpose = (name: string): boolean => /^(caret|vcaret|entry|exit|origin|\*|#|_?parent)/.test(name);

function missingAnchors(
  master: Master,
  glyphs: readonly Glyph[],
  amounts: Amounts,
  given: ReadonlyMap<string, unknown>,
): Finding[] {
  const kinds = new Map<string, Glyph[]>();
  for (const glyph of glyphs) {
    const kind = simpleLetter(glyph);
    if (!kind || drawingOf(glyph, master.id).contours.length === 0) continue;
    addTo(kinds, kind, glyph);
  }
  return [...kinds.values()].flatMap((fellows) => {
    if (fellows.length < 12) return [];
    const names = new Map<string, number>();
    const namesOf = (g: Glyph) => new Set(drawingOf(g, master.id).anchors.map((a) => a.name));
    for (const g of fellows) for (const n of namesOf(g)) names.set(n, (names.get(n) ?? 0) + 1);
    const expected = [...names]
      .filter(([n, count]) => given.has(n) && count * 100 >= amounts('parts/anchorMissing') * fellows.length)
      .map(([n]) => n);
    return fellows.flatMap((g) => {
      const own = namesOf(g);
      const lacks = expected.filter((n) => !own.has(n));
      if (lacks.length === 0) return [];
      return [
        finding(
          'parts/anchorMissing',
          `It lacks the anchor${lacks.length > 1 ? 's' : ''} ${lacks.join(', ')} that letters of its kind have.`,
          {
            glyph: g.id,
            masters: [master.id],
            bad: lacks.length,
            mends: lacks.map((name) => ({ edit: 'addAnchor', args: { glyph: g.id, name }, title: `Place ${name}` })),
          },
        ),
      ];
    });
  });
}

/** Basic letters by script and case: those that take marks alike. */
function simpleLetter(glyph: Glyph): string | undefined {
  const code = glyph.unicodes[0];
  if (code === undefined || !isLetterLike(code)) return undefined;
  const c = String.fromCodePoint(code);
  if (c.normalize('NFD') !== c || !/^[\p{Lu}\p{Ll}]$/u.test(c)) return undefined;
  const script = /\p{Script=Latin}/u.test(c)
    ? code < 0x80
      ? 'Latin'
      : undefined
    : /\p{Script=Greek}/u.test(c)
      ? 'Greek'
      : /\p{Script=Cyrillic}/u.test(c)
        ? 'Cyrillic'
        : undefined;
  return script && `${script} ${/\p{Lu}/u.test(c)}`;
}

/** Anchors above or below letters that stand much farther off their outline than those of fellows of the same height. */
function farAnchors(project: Project, glyphs: readonly Glyph[], ends: EndsOf, amounts: Amounts): Finding[] {
  const most = (amounts('parts/anchorFar') * project.unitsPerEm) / 1000;
  const near = 0.03 * project.unitsPerEm;
  const letters = glyphs.filter(isPlainLetter);
  return project.masters.flatMap((master, m) =>
    (['top', 'bottom'] as const).flatMap((name) => {
      // By height, so that fellows are those beside.
      const rows = new Map<number, { glyph: Glyph; spot: Anchor; end: number }[]>();
      for (const glyph of letters) {
        const spot = drawingOf(glyph, master.id).anchors.find((a) => a.name === name);
        const own = spot && ends(glyph)[m];
        if (!own) continue;
        const end = name === 'top' ? own[1] : own[0];
        const key = Math.round(end / near);
        addTo(rows, key, { glyph, spot, end });
      }
      return [...rows].flatMap(([key, row]) => {
        const fellows = [key - 1, key, key + 1]
          .flatMap((k) => (rows.get(k) ?? []).map((r) => r.spot.y))
          .sort((p, q) => p - q);
        if (fellows.length < 7) return [];
        const middle = fellows[fellows.length >> 1]!;
        return row.flatMap(({ glyph, spot }) => {
          if (
            Math.abs(spot.y - middle) <= most ||
            fellows.filter((v) => Math.abs(v - spot.y) <= near).length > 1 + fellows.length / 8
          )
            return [];
          return [
            finding(
              'parts/anchorFar',
              `Its anchor ${name} stands at ${Math.round(spot.y)}; most letters of its height have it near ${Math.round(middle)}.`,
              {
                glyph: glyph.id,
                masters: [master.id],
                bad: Math.abs(spot.y - middle),
                spots: [spot],
                mends: [
                  {
                    edit: 'moveAnchor',
                    args: { at: { glyph: glyph.id, master: master.id }, name, x: spot.x, y: middle },
                    title: `Put it at ${Math.round(middle)}`,
                  },
                ],
              },
            ),
          ];
        });
      });
    }),
  );
}

const plainLetters = new WeakMap<Glyph['unicodes'], boolean>();

/** A letter with a case and without a dot that gives way to marks. */
function isPlainLetter({ unicodes }: Glyph): boolean {
  let known = plainLetters.get(unicodes);
  if (known === undefined) {
    const c = unicodes[0] === undefined ? '' : String.fromCodePoint(unicodes[0]);
    known = /^[\p{Lu}\p{Ll}]$/u.test(c) && !/\p{Soft_Dotted}/u.test(c.normalize('NFD'));
    plainLetters.set(unicodes, known);
  }
  return known;
}

/** Combining marks that have a width. */
function wideMarks(project: Project, glyphs: readonly Glyph[]): Finding[] {
  return glyphs.flatMap((glyph) => {
    if (!glyph.unicodes.some((c) => /^\p{Mn}$/u.test(String.fromCodePoint(c)))) return [];
    const wide = project.masters.filter((m) => (glyph.drawings[m.id]?.advance ?? 0) > 0);
    if (wide.length === 0) return [];
    const advance = glyph.drawings[wide[0]!.id]!.advance;
    return [
      finding('parts/markWide', `A combining mark has an advance of ${said(advance)}.`, {
        glyph: glyph.id,
        masters: wide.map((m) => m.id),
        bad: advance,
        mends: [{ edit: 'emptyAdvance', args: { glyph: glyph.id }, title: 'Give it none' }],
      }),
    ];
  });
}
