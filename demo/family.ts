import { addTo } from '../src/core/base/grouping';
import { derivedSet, madeSet } from '../src/core/deriving/derive';
import { setOf } from '../src/core/deriving/sets';
import { spacedSet } from '../src/core/deriving/sides';
import { createProject, emptyDrawing, newGlyph } from '../src/core/project/create';
import { codePointsForName, encodingForName, nameForCodePoint } from '../src/core/project/glyphNames';
import type { Anchor, Component, Drawing, Glyph, Master, Project } from '../src/core/project/model';
import { agreeing } from './agree';
import { anchorsOf } from './anchors';
import { capitals } from './capitals';
import { recipes, SPACING } from './composites';
import { featureSections } from './features';
import { ampersand } from './figures';
import { FOLLOWS } from './follows';
import { FIRST, SECOND } from './groups';
import { ITALIC } from './italic';
import { latin } from './latin';
import { centred, type Letter, shifted, span } from './letter';
import { lowercase } from './lowercase';
import { forCapitals, type Mark, marks } from './marks';
import { punctuation, RAISED } from './punctuation';
import { reweighedMasters } from './reweighed';
import {
  alternates,
  FIGURES,
  figureSets,
  type Glyphs,
  historical,
  ligatures,
  smallCapitals,
  tabularWidth,
  to,
} from './sets';
import { spaced } from './spacing';
import { capitalMeasure, lowerMeasure, STYLES, type Style } from './style';
import { arrows, currency, lineSigns, reckoning } from './symbols';
import { texts } from './texts';

/** The day the family was begun: data, so that every build gives the same bytes. */
const BEGUN = Date.UTC(2026, 3, 12) / 1000;

/** Code points of signs whose names do not tell them. */
const CODES: Readonly<Record<string, number>> = {
  dotlessj: 0x237,
  commaturnedabovecomb: 0x312,
  circumflexcomb: 0x302,
  macroncomb: 0x304,
  brevecomb: 0x306,
  dotaccentcomb: 0x307,
  dieresiscomb: 0x308,
  ringcomb: 0x30a,
  hungarumlautcomb: 0x30b,
  caroncomb: 0x30c,
  commabelowcomb: 0x326,
  cedillacomb: 0x327,
  ogonekcomb: 0x328,
  arrowNE: 0x2197,
  arrowNW: 0x2196,
  arrowSW: 0x2199,
  arrowSE: 0x2198,
  platform: 0xe000,
  tunnel: 0xe001,
  levelcrossing: 0xe002,
  onesuperior: 0xb9,
  perthousand: 0x2030,
  periodcentered: 0xb7,
  macron: 0xaf,
  mu: 0xb5,
  hyphen: 0x2d,
  fraction: 0x2044,
  Dcroat: 0x110,
  Tbar: 0x166,
  tbar: 0x167,
  bar: 0x7c,
  Euro: 0x20ac,
  dollar: 0x24,
};

/** A sign moved up, to stand beside capitals. */
const raised =
  (name: string, by: number) =>
  (s: Style): Letter => {
    const { advance, contours } = punctuation[name]!(capitalMeasure(s));
    return { advance, contours: shifted(contours, 0, by) };
  };

const cased: Glyphs = Object.fromEntries(
  Object.entries(RAISED).map(([name, by]) => [`${name}.case`, raised(name, by)]),
);

/** Everything that is drawn, in the order of the case; accented letters follow, put together from these. */
const drawnGlyphs: Glyphs = {
  ...to(lowerMeasure, lowercase),
  ...to(capitalMeasure, capitals),
  ...Object.fromEntries(
    Object.entries(latin).map(([name, draw]) => [
      name,
      (s: Style) => draw((/^[A-Z]|^uni1E9E/.test(name) ? capitalMeasure : lowerMeasure)(s)),
    ]),
  ),
  ...figureSets,
  ...to(capitalMeasure, { ampersand }),
  ...to(capitalMeasure, punctuation),
  ...cased,
  ...to(capitalMeasure, reckoning),
  ...to(capitalMeasure, currency),
  ...to(lowerMeasure, alternates),
  ...Object.fromEntries(
    Object.entries(ligatures).map(([name, { draw }]) => [name, (s: Style) => draw(lowerMeasure(s))]),
  ),
  ...smallCapitals,
  ...to(capitalMeasure, arrows),
  ...to(capitalMeasure, lineSigns),
};

/** Signs of reckoning and currency stand in columns with the figures. */
const IN_COLUMNS = new Set([
  'dollar',
  'sterling',
  'yen',
  'Euro',
  'plus',
  'minus',
  'equal',
  'less',
  'greater',
  'plusminus',
  'multiply',
  'divide',
  'numbersign',
  ...FIGURES,
]);

const masterOf = (s: Style, id: string, base: Master): Master => ({
  ...base,
  id,
  name: s.name,
  place: { wght: s.weight, wdth: s.width },
  zones: {
    descender: { name: 'descender', position: -204, overshoot: -8 },
    baseline: { name: 'baseline', position: 0, overshoot: -s.over },
    xHeight: { name: 'x-height', position: s.xHeight, overshoot: s.over },
    capHeight: { name: 'cap height', position: 700, overshoot: s.over },
    ascender: { name: 'ascender', position: 742, overshoot: 10 },
    own: [],
  },
  stems: [
    { name: 'lowercase stem', value: s.stem, vertical: true },
    { name: 'lowercase level', value: s.level, vertical: false },
    { name: 'capital stem', value: s.capStem, vertical: true },
    { name: 'capital level', value: s.capLevel, vertical: false },
  ],
});

/** The family, fitted and kerned: see {@link buildUnspaced}. */
export function buildDemo(): Project {
  const project = withSets(spaced(buildUnspaced()));
  return { ...project, settings: { ...project.settings, partner: ITALIC } };
}

/** What Wendril makes of the letters that are drawn: small capitals with accents, and figures beside them. */
function withSets(project: Project): Project {
  let current = project;
  for (const key of ['smallCaps', 'smallCapFigures']) {
    const set = setOf(key)!;
    current = madeSet(current, set).project;
    const done = spacedSet(current, set, derivedSet(current, set));
    if (typeof done !== 'string') current = done.project;
  }
  // The drawing office works without a line for them.
  return { ...current, masters: current.masters.map((m) => ({ ...m, zones: { ...m.zones, own: [] } })) };
}

/** Velmarrow Sans: the faces of the Velmarrow Light Railway's signs and timetables, six masters on weight and width. */
export function buildUnspaced(): Project {
  const base = createProject({ family: 'Velmarrow Sans', masterName: 'Regular', created: BEGUN });
  const masters = STYLES.map((s, i) => masterOf(s, `m${i + 1}`, base.masters[0]!));
  const glyphs: Record<string, Glyph> = {};
  const order: string[] = [];
  const idOf = new Map<string, string>();
  let nextId = base.nextId;
  const add = (
    name: string,
    code: number | undefined,
    drawings: readonly Drawing[],
    more: Partial<Glyph> = {},
    id = `g${nextId++}`,
  ): void => {
    const glyph = newGlyph(id, name, code === undefined ? [] : [code], masters, 0);
    const unlisted = code !== undefined && !codePointsForName(name).includes(code);
    order.push(id);
    idOf.set(name, id);
    glyphs[id] = {
      ...glyph,
      ...(unlisted ? { productionName: `uni${code.toString(16).toUpperCase().padStart(4, '0')}` } : {}),
      drawings: Object.fromEntries(masters.map((m, i) => [m.id, drawings[i]!])),
      ...more,
    };
  };
  const [notdef, space] = base.glyphOrder.map((id) => base.glyphs[id]!);
  add(
    '.notdef',
    undefined,
    STYLES.map(() => notdef!.drawings.m1!),
    {},
    notdef!.id,
  );
  add(
    'space',
    0x20,
    STYLES.map((s) => emptyDrawing(Math.round(236 * (0.35 + 0.39 * s.gap + 0.26 * s.side)))),
    { unicodes: [0x20, 0xa0] },
    space!.id,
  );

  const letters: Record<string, readonly Letter[]> = {};
  for (const [name, make] of Object.entries(drawnGlyphs)) {
    const inColumn = (letter: Letter, s: Style) =>
      IN_COLUMNS.has(name) ? centred(letter.contours, tabularWidth(s)) : letter;
    const ruled = STYLES.map((s) => inColumn(make(s), s));
    const made = reweighedMasters(base, name, ruled, STYLES).map((l, i) => inColumn(l, STYLES[i]!));
    letters[name] = agreeing(made);
    const anchors = (i: number): Anchor[] => [
      ...(TAKES_MARKS.test(name) || name in latin ? anchorsOf(name, made[i]!, STYLES[i]!) : []),
      ...evenCarets(ligatures[name]?.parts.length ?? 0, made[i]!),
    ];
    add(
      name,
      CODES[name] ?? encodingForName(name),
      letters[name]!.map((l, i) => ({ ...emptyDrawing(l.advance), contours: l.contours, anchors: anchors(i) })),
      name in ligatures ? { category: 'ligature' } : {},
    );
  }

  const addMark = (name: string, mark: (s: Style) => Mark) => {
    const made = STYLES.map(mark);
    const high = name.endsWith('.case') ? () => 700 : (s: Style) => s.xHeight;
    const y = (s: Style) => ({ top: high(s), bottom: 0, cedilla: 0, ogonek: 0, topright: 742 })[made[0]!.anchor];
    const drawn = agreeing(made.map((m) => ({ advance: 0, contours: m.contours })));
    add(
      name,
      name.endsWith('.case') ? undefined : (CODES[name] ?? encodingForName(name)),
      drawn.map((l, i) => ({
        ...emptyDrawing(0),
        contours: shifted(l.contours, 0),
        anchors: [
          { name: `_${made[i]!.anchor}`, x: 0, y: y(STYLES[i]!), role: 'isMark' },
          // A second accent stands on the first.
          ...(made[i]!.anchor === 'top'
            ? [{ name: 'top', x: 0, y: span(l.contours, 'y')[1] - 30, role: 'takesMark' as const }]
            : []),
        ],
      })),
      { category: 'mark' },
    );
  };
  for (const [name, mark] of Object.entries(marks)) addMark(name, (s) => mark(lowerMeasure(s)));
  for (const [name, mark] of Object.entries(marks))
    if (mark(lowerMeasure(STYLES[0]!)).anchor === 'top')
      addMark(`${name}.case`, (s) => forCapitals(mark(lowerMeasure(s)), lowerMeasure(s)));

  const drawing = (name: string, i: number): Drawing => glyphs[idOf.get(name)!]!.drawings[masters[i]!.id]!;
  const component = (name: string, dx: number, dy: number): Component => ({
    glyph: idOf.get(name)!,
    transform: [1, 0, 0, 1, dx, dy],
  });
  const anchor = (name: string, i: number, key: string): Anchor | undefined =>
    drawing(name, i).anchors.find((a) => a.name === key);
  for (const { code, base: letter, mark } of recipes()) {
    add(
      nameForCodePoint(code),
      code,
      masters.map((_, i) => {
        const on = drawing(mark, i).anchors.find((a) => a.name.startsWith('_'))!;
        const key = on.name.slice(1);
        const at = anchor(letter, i, key) ?? anchor(letter, i, 'bottom')!;
        const { advance, anchors } = drawing(letter, i);
        const room =
          key === 'topright'
            ? Math.max(0, at.x + span(drawing(mark, i).contours, 'x')[1] - advance + Math.round(10 * STYLES[i]!.side))
            : 0;
        return {
          ...emptyDrawing(advance + room),
          components: [component(letter, 0, 0), { ...component(mark, at.x - on.x, at.y - on.y), anchor: key }],
          anchors: anchors.filter((a) => a.name !== key && a.name !== 'topright'),
        };
      }),
    );
  }
  /** A row of glyphs side by side, each with an offset up. */
  const row = (name: string, code: number, parts: readonly string[], overlap: (i: number) => number = () => 0) =>
    add(
      name,
      code,
      masters.map((_, i) => {
        let x = 0;
        const components = parts.map((p) => {
          const c = component(p, x, 0);
          x += drawing(p, i).advance - overlap(i);
          return c;
        });
        return { ...emptyDrawing(x + overlap(i)), components };
      }),
    );
  for (const [name, mark] of Object.entries(SPACING)) {
    add(
      name,
      CODES[name] ?? encodingForName(name),
      masters.map((_, i) => {
        const [left, right] = span(drawing(mark, i).contours, 'x');
        const side = Math.round(48 * STYLES[i]!.side);
        return { ...emptyDrawing(right - left + 2 * side), components: [component(mark, side - left, 0)] };
      }),
    );
  }
  row('IJ', 0x132, ['I', 'J']);
  row('ij', 0x133, ['i', 'j']);
  row('Ldot', 0x13f, ['L', 'periodcentered'], (i) => Math.round(150 * STYLES[i]!.side));
  row('ldot', 0x140, ['l', 'periodcentered'], (i) => Math.round(60 * STYLES[i]!.side));
  row('napostrophe', 0x149, ['quoteright', 'n']);
  row('onehalf', 0xbd, ['one.numr', 'fraction', 'two.dnom']);
  row('onequarter', 0xbc, ['one.numr', 'fraction', 'four.dnom']);
  row('threequarters', 0xbe, ['three.numr', 'fraction', 'four.dnom']);
  for (const [name, { parts, draw }] of Object.entries(historical)) {
    const made = STYLES.map((s) => draw(lowerMeasure(s)));
    add(
      name,
      encodingForName(name),
      agreeing(made).map((l, i) => ({
        ...emptyDrawing(l.advance),
        contours: l.contours,
        anchors: parts.length > 1 ? evenCarets(parts.length, made[i]!) : [],
      })),
      parts.length > 1 ? { category: 'ligature' } : {},
    );
  }

  add(
    'colon.case',
    undefined,
    agreeing(STYLES.map(raised('colon', 90))).map((l) => ({ ...emptyDrawing(l.advance), contours: l.contours })),
  );

  const byBase = new Map<string, string[]>();
  for (const r of recipes()) addTo(byBase, r.base, nameForCodePoint(r.code));
  const groups = (['first', 'second'] as const).flatMap((side) =>
    Object.entries(side === 'first' ? FIRST : SECOND).map(([name, members]) => ({
      id: `k${side === 'first' ? 1 : 2}-${name}`,
      side,
      name,
      members: members.flatMap((m) => [m, ...accentedLike(m, byBase, side)]).map((n) => idOf.get(n)!),
    })),
  );
  for (const [name, side, of, ofSide] of FOLLOWS) {
    const id = idOf.get(name)!;
    const glyph = glyphs[id]!;
    glyphs[id] = {
      ...glyph,
      follows: { ...glyph.follows, [side]: [{ glyph: idOf.get(of)!, side: ofSide, offset: 0 }] },
    };
  }

  const project: Project = {
    ...base,
    glyphs,
    glyphOrder: order,
    nextId,
    family: {
      ...base.family,
      designer: 'The Velmarrow drawing office',
      manufacturer: 'Velmarrow Light Railway',
      vendor: 'VLMR',
      copyright: 'Made up for the Wendril demo; free for any use.',
    },
    axes: [
      { tag: 'wght', name: 'Weight', minimum: 300, default: 400, maximum: 800, map: [], hidden: false, labels: {} },
      { tag: 'wdth', name: 'Width', minimum: 75, default: 100, maximum: 100, map: [], hidden: false, labels: {} },
    ],
    masters: BY_WEIGHT.map((i) => ({ ...masters[i]!, kerning: {} })),
    instances: INSTANCES.flatMap(([name, wght]) => [
      { name, place: { wght, wdth: 100 }, weightClass: wght },
      {
        name: name === 'Regular' ? 'Narrow' : `Narrow ${name}`,
        place: { wght, wdth: 75 },
        weightClass: wght,
        widthClass: 3,
      },
    ]),
    groups,
    features: {
      sections: featureSections(),
      classes: {},
      languageSystems: [],
      included: {},
    },
    texts,
  };
  return project;
}

/** Masters as they are shown: by width, then from light to heavy. */
const BY_WEIGHT = [1, 0, 2, 4, 3, 5];

const INSTANCES: readonly (readonly [string, number])[] = [
  ['Light', 300],
  ['Regular', 400],
  ['Medium', 500],
  ['Bold', 700],
  ['Heavy', 800],
];

/** Plain letters; their alternates and sets take no marks. */
const TAKES_MARKS = /^([A-Za-z]|dotlessi|dotlessj)$/;

/** Where a caret may stand within a ligature of so many letters: at equal shares of its advance. */
const evenCarets = (parts: number, letter: Letter): Anchor[] =>
  Array.from({ length: Math.max(0, parts - 1) }, (_, i) => ({
    name: `caret_${i + 1}`,
    x: Math.round((letter.advance * (i + 1)) / parts),
    y: 0,
    role: 'caret' as const,
  }));

/** Accented letters that have the side of their base; a caron or a dot beside the stem changes the right one. */
function accentedLike(
  base: string,
  byBase: ReadonlyMap<string, readonly string[]>,
  side: 'first' | 'second',
): string[] {
  const beside = new Set(['dcaron', 'lcaron', 'tcaron', 'Lcaron']);
  return (byBase.get(base) ?? []).filter((n) => side === 'second' || !beside.has(n));
}
