import { addTo } from '../base/grouping';
import { shownNumber } from '../base/notation';
import { unevenFigures } from '../fitting/figures';
import { type OutOfDate, outOfDate } from '../fitting/follows';
import { type SideName, type Sides, sidesOf } from '../fitting/sides';
import { isEmptyBox } from '../geometry/curve';
import { likeness } from '../kerning/likeness';
import type { Component, Drawing, Glyph, GlyphId, Master, MasterId, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, isBlank, isEmptyDrawing } from '../project/queries';
import { type Amounts, type Finding, finding, type KindFacts } from './finding';
import { isLetterLike, isMark } from './letters';
import { said } from './outline';

export const FITTING_KINDS: readonly KindFacts[] = [
  {
    kind: 'fitting/advance',
    family: 'fitting',
    title: 'Odd advances',
    severity: 'attention',
    why: 'A letter without an advance is printed over by the next one; one many times too wide tears lines of text open.',
    amount: { label: 'Wider than', unit: 'ems', usual: 4, least: 1, most: 50 },
  },
  {
    kind: 'fitting/follow',
    family: 'fitting',
    title: 'Follow rules out of date',
    severity: 'attention',
    why: 'The side follows another by a rule, and the other was changed since.',
  },
  {
    kind: 'fitting/figures',
    family: 'fitting',
    title: 'Figures of unequal width',
    severity: 'attention',
    why: 'Figures that most share a width are for tables: one of another width moves all columns after it.',
  },
  {
    kind: 'fitting/composite',
    family: 'fitting',
    title: 'Composites not as wide as their base',
    severity: 'note',
    habit: true,
    why: 'Text with accents is spaced otherwise than text without.',
    amount: { label: 'By more than', unit: 'thousandths of the em', usual: 1, least: 0.2, most: 100 },
  },
  {
    kind: 'fitting/side',
    perMaster: true,
    family: 'fitting',
    title: 'Sides that differ from what looks alike',
    severity: 'attention',
    why: 'Letters of the same shape on a side mostly have the same side bearing; a unit or two apart is a slip.',
    amount: { label: 'Differs by up to', unit: 'thousandths of the em', usual: 3, least: 0.5, most: 20 },
  },
];

/** What is wrong with the widths and sides of one glyph. */
export function advanceFindings(project: Project, glyph: Glyph, amounts: Amounts): Finding[] {
  const out: Finding[] = [];
  const most = amounts('fitting/advance') * project.unitsPerEm;
  const at = (m: Master) => ({ glyph: glyph.id, masters: [m.id] });
  const letter = glyph.unicodes.some(isLetterLike) && !isMark(glyph);
  const none = project.masters.filter(
    (m) => letter && glyph.drawings[m.id]?.advance === 0 && !isEmptyDrawing(drawingOf(glyph, m.id)),
  );
  if (none[0])
    out.push(
      finding('fitting/advance', 'A letter has no advance.', {
        ...at(none[0]),
        masters: none.map((m) => m.id),
        bad: most,
      }),
    );
  const wide = project.masters.filter((m) => (glyph.drawings[m.id]?.advance ?? 0) > most);
  if (wide[0]) {
    const { advance } = glyph.drawings[wide[0].id]!;
    out.push(
      finding('fitting/advance', `It is ${said(advance)} wide, ${Math.round(advance / project.unitsPerEm)} ems.`, {
        ...at(wide[0]),
        masters: wide.map((m) => m.id),
        bad: advance,
      }),
    );
  }
  const off = project.masters.flatMap((m) => {
    const found = narrowerThanBase(project, m, glyph);
    return found && Math.abs(found.by) > (amounts('fitting/composite') * project.unitsPerEm) / 1000
      ? [{ m, ...found }]
      : [];
  });
  const worst = [...off].sort((a, b) => Math.abs(b.by) - Math.abs(a.by))[0];
  if (worst)
    out.push(
      finding(
        'fitting/composite',
        `It is ${said(Math.abs(worst.by))} ${worst.by > 0 ? 'wider' : 'narrower'} than ${worst.base}.`,
        {
          glyph: glyph.id,
          masters: [worst.m.id, ...off.filter((o) => o !== worst).map((o) => o.m.id)],
          bad: Math.abs(worst.by),
          mends: [{ edit: 'takeBaseWidth', args: { glyph: glyph.id }, title: `Make it as wide as ${worst.base}` }],
        },
      ),
    );
  return out;
}

/** A letter of a base and marks beside the advance of its base; marks that stand out of a narrow letter widen it on purpose. */
export function narrowerThanBase(
  project: Project,
  master: Master,
  glyph: Glyph,
): { by: number; base: string } | undefined {
  const drawing = glyph.drawings[master.id];
  const code = glyph.unicodes[0];
  if (!drawing || drawing.components.length < 2 || drawing.contours.length > 0 || code === undefined) return undefined;
  const first = String.fromCodePoint(code).normalize('NFD');
  if ([...first].length < 2 || !isLetterLike(code)) return undefined;
  const base = project.glyphs[drawing.components[0]!.glyph];
  const from = base?.drawings[master.id];
  if (!base || !from || isMark(base) || from.advance === 0 || /i|j|l|í|ı|ȷ/i.test([...first][0]!)) return undefined;
  const [xx, , , , dx] = drawing.components[0]!.transform;
  if (xx !== 1 || Math.abs(dx) > 0.5) return undefined;
  // A mark that stands beside its letter, as the caron of ď does, needs room.
  if (drawing.components.slice(1).some((c) => standsBeside(project, master, c, from.advance))) return undefined;
  return { by: drawing.advance - from.advance, base: base.name };
}

function standsBeside(project: Project, master: Master, c: Component, advance: number): boolean {
  const part = project.glyphs[c.glyph];
  const box = part && drawingBounds(drawingOf(part, master.id), drawingsOf(project, master.id));
  return (
    box !== undefined &&
    !isEmptyBox(box) &&
    (box.xMin + box.xMax) / 2 + c.transform[4] > 0.8 * advance &&
    box.yMax + c.transform[5] > master.zones.baseline.position
  );
}

type SidesBy = Map<MasterId, { of: Master; sides: ReturnType<typeof sidesOf> }>;
const sidesBy = new WeakMap<object, SidesBy>();

/** Sides of a master that are not what their rules say; `version` gives of a glyph something that is another when its outline is. */
export function lateSides(project: Project, master: Master, version: (id: GlyphId) => object): OutOfDate[] {
  /** Sides, known again while the glyph, its parts and how letters lean are the same. */
  const sides: typeof sidesOf = (p, glyph, id) => {
    const at = version(glyph.id);
    const own: SidesBy = sidesBy.get(at) ?? new Map();
    sidesBy.set(at, own);
    const held = own.get(id);
    if (held && sameLean(held.of, master)) return held.sides;
    const found = sidesOf(p, glyph, id);
    own.set(id, { of: master, sides: found });
    return found;
  };
  return outOfDate(project, [master.id], sides);
}

/** Sides that are not what their rules say, those of all masters together; `late` tells those of one. */
export function followFindings(project: Project, late: (master: Master) => readonly OutOfDate[]): Finding[] {
  const byGlyph = new Map<string, OutOfDate[]>();
  for (const off of project.masters.flatMap(late)) addTo(byGlyph, `${off.glyph} ${off.side}`, off);
  return [...byGlyph.values()].map((all) => {
    const [worst] = [...all].sort((a, b) => Math.abs(b.now - b.wanted) - Math.abs(a.now - a.wanted));
    const { side, now, wanted, glyph } = worst!;
    return finding(
      'fitting/follow',
      `Its ${side} side is ${shownNumber(now, 0)}; its rule says ${shownNumber(wanted, 0)}.`,
      {
        glyph,
        masters: all.map((o) => o.master),
        bad: Math.abs(now - wanted),
        mends: [{ edit: 'updateFollows', args: {}, title: 'Bring all sides that follow up to date' }],
      },
    );
  });
}

/** Figures that do not share the width that most have. */
export function figureFindings(project: Project): Finding[] {
  const odd = new Map<string, { masters: string[]; width: number; by: number }>();
  for (const m of project.masters) {
    const uneven = unevenFigures(project, m.id);
    for (const id of uneven?.odd ?? []) {
      const held = odd.get(id) ?? { masters: [], width: uneven!.width, by: 0 };
      held.masters.push(m.id);
      held.by = Math.max(held.by, Math.abs(drawingOf(project.glyphs[id]!, m.id).advance - uneven!.width));
      odd.set(id, held);
    }
  }
  return [...odd].map(([glyph, { masters, width, by }]) =>
    finding('fitting/figures', `It is ${said(by)} off the width of the other figures, ${width}.`, {
      glyph,
      masters,
      bad: by,
      mends: [{ edit: 'evenFigures', args: {}, title: 'Give all figures one width' }],
    }),
  );
}

/** A value that so many letters share is meant. */
const SHARED = 4;
/** So alike, of 1, two sides must be to be taken for the same shape. */
const ALIKE = 0.965;

const pieceLetters = new WeakMap<Glyph, boolean>();

/** A letter that is no mark. */
function isPieceLetter(glyph: Glyph): boolean {
  let known = pieceLetters.get(glyph);
  if (known === undefined) {
    const [code] = glyph.unicodes;
    known = code !== undefined && isLetterLike(code) && !isMark(glyph) && !isBlank(glyph);
    pieceLetters.set(glyph, known);
  }
  return known;
}

const sameLean = (a: Master, b: Master): boolean =>
  a === b || (a.italicAngle === b.italicAngle && a.zones.xHeight.position === b.zones.xHeight.position);

const sidesKnown = new WeakMap<Drawing, { of: Master; sides: Sides | undefined }>();

/** The sides of what is drawn in one piece, without parts; known again for the same drawing. */
function pieceSides(project: Project, glyph: Glyph, master: Master): Sides | undefined {
  const drawing = glyph.drawings[master.id];
  if (!drawing || drawing.contours.length === 0 || drawing.components.length > 0) return undefined;
  const held = sidesKnown.get(drawing);
  if (held && sameLean(held.of, master)) return held.sides;
  const found = sidesOf(project, glyph, master.id);
  const sides = 'left' in found ? found : undefined;
  sidesKnown.set(drawing, { of: master, sides });
  return sides;
}

type Alike = {
  readonly of: Master;
  readonly a: Glyph['unicodes'];
  readonly b: Glyph['unicodes'];
  readonly likeness: number;
};
const alikeKnown = new WeakMap<Drawing, WeakMap<Drawing, Map<string, Alike>>>();

/** How alike two glyphs drawn in one piece are on a side, 0 to 1; known again for the same two drawings. */
function alikeOn(project: Project, master: Master, side: SideName, a: Glyph, b: Glyph): number {
  const [one, other] = [a.drawings[master.id]!, b.drawings[master.id]!];
  const own = alikeKnown.get(one) ?? new WeakMap();
  alikeKnown.set(one, own);
  const two: Map<string, Alike> = own.get(other) ?? new Map();
  own.set(other, two);
  const key = `${master.id} ${side}`;
  const held = two.get(key);
  // How far up letters are compared hangs on their characters and on the heights, which are the master's.
  if (held?.a === a.unicodes && held.b === b.unicodes && held.of.zones === master.zones && sameLean(held.of, master))
    return held.likeness;
  const found = likeness(project, master, side === 'left' ? 'second' : 'first', a.id, b.id);
  two.set(key, { of: master, a: a.unicodes, b: b.unicodes, likeness: found });
  return found;
}

/** Letters of a master, drawn in one piece, whose side misses by a little the side bearing of several that look alike there. */
export function sideFindings(project: Project, master: Master, glyphs: readonly Glyph[], amounts: Amounts): Finding[] {
  const within = (amounts('fitting/side') * project.unitsPerEm) / 1000;
  const letters = glyphs.flatMap((glyph) => {
    const sides = isPieceLetter(glyph) ? pieceSides(project, glyph, master) : undefined;
    return sides ? [{ glyph, sides }] : [];
  });
  return (['left', 'right'] as const).flatMap((side) => {
    const values = new Map<number, Glyph[]>();
    for (const { glyph, sides } of letters) {
      const v = Math.round(sides[side] * 100) / 100;
      const own = values.get(v);
      if (own) own.push(glyph);
      else values.set(v, [glyph]);
    }
    const meant = [...values].filter(([, owners]) => owners.length >= SHARED);
    return [...values].flatMap(([value, owners]) => {
      if (owners.length > 1) return [];
      const [glyph] = owners;
      // What a rule sets is judged by its rule.
      if (glyph!.follows[side].length > 0) return [];
      const near = meant
        .filter(([v]) => v !== value && Math.abs(v - value) <= within)
        .sort((a, b) => Math.abs(a[0] - value) - Math.abs(b[0] - value));
      for (const [v, fellows] of near) {
        const alike = fellows.filter((f) => alikeOn(project, master, side, glyph!, f) >= ALIKE);
        if (alike.length < SHARED - 1) continue;
        return [
          finding(
            'fitting/side',
            `Its ${side} side is ${shownNumber(value)}; ${alike
              .slice(0, 3)
              .map((f) => f.name)
              .join(', ')} look alike there and have ${shownNumber(v)}.`,
            {
              glyph: glyph!.id,
              masters: [master.id],
              others: alike.slice(0, 6).map((f) => f.id),
              bad: Math.abs(v - value),
              mends: [
                {
                  edit: 'setSides',
                  args: { at: { glyph: glyph!.id, master: master.id }, [side]: v },
                  title: `Make it ${shownNumber(v)}`,
                },
              ],
            },
          ),
        ];
      }
      return [];
    });
  });
}
