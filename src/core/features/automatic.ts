import { addTo } from '../base/grouping';
import { joins, positional } from './positional';

/**
 * Rules that write themselves from the names of glyphs, as feature text. A name with a suffix is a form of the glyph before the
 * dot; a name with low lines is a ligature of the glyphs between them.
 */
export type Rule = {
  /** Its feature. */
  tag: string;
  title: string;
  text: string;
  /** What becomes what, for pictures of the rules; left out is what could take part and does not. */
  shown: readonly RuleShown[];
  /** May each form take part or not? */
  isChosen?: true;
};

/** Glyph names before and after. */
export type RuleShown = { before: readonly string[]; after: readonly string[]; isOut?: true };

/** Does a form take part in the rule of a feature? Undefined where nobody has chosen: then what is usual holds. */
export type Takes = (tag: string, form: string) => boolean | undefined;

/** What the rules are made from: names of glyphs in their order, their characters, marks by where they sit. */
export type Ground = {
  names: readonly string[];
  /** The first character of a glyph. */
  codeOf: (name: string) => number | undefined;
  /** Marks that sit above, and those that sit below. */
  above: readonly string[];
  below: readonly string[];
  /** Units of the em; 1000 where it is not told. */
  unitsPerEm?: number;
  /** Which forms take part. */
  takes?: Takes;
};

/** One glyph for another; what is unusual takes part only where that was chosen. */
type Pair = readonly [from: string, to: string, isUnusual?: boolean];
type Writer = (ground: Ground, is: (name: string) => boolean) => Pair[];

const bySuffix = new WeakMap<Ground, Map<string, Pair[]>>();

/** Forms of glyphs that are there, by what stands behind the first dot. */
function formsOf(ground: Ground): Map<string, Pair[]> {
  let forms = bySuffix.get(ground);
  if (!forms) {
    forms = new Map();
    const there = new Set(ground.names);
    for (const name of ground.names) {
      const stop = name.indexOf('.');
      if (stop <= 0 || !there.has(name.slice(0, stop))) continue;
      const suffix = name.slice(stop);
      addTo(forms, suffix, [name.slice(0, stop), name]);
    }
    bySuffix.set(ground, forms);
  }
  return forms;
}
const withSuffix = (ground: Ground, suffix: string): Pair[] => formsOf(ground).get(suffix) ?? [];

const byCode = new WeakMap<Ground, Map<number | undefined, string>>();

/** The first glyph that stands for a character. */
function glyphOf(ground: Ground, code: number): string | undefined {
  let found = byCode.get(ground);
  if (!found) {
    found = new Map();
    for (const name of ground.names) {
      const own = ground.codeOf(name);
      if (!found.has(own)) found.set(own, name);
    }
    byCode.set(ground, found);
  }
  return found.get(code);
}

const FIGURES = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
const isCapital = (code: number | undefined): boolean =>
  code !== undefined && /\p{Lu}/u.test(String.fromCodePoint(code));
const isSmall = (code: number | undefined): boolean => code !== undefined && /\p{Ll}/u.test(String.fromCodePoint(code));

/** Pairs of a form with another form of the same glyph, where both are there. */
const across = (ground: Ground, from: string, to: string, is: (name: string) => boolean): Pair[] =>
  withSuffix(ground, from).flatMap(([plain, a]): Pair[] => (is(plain + to) ? [[a, plain + to]] : []));

/** Small capitals: `a.sc` or `a.smcp` of small letters; for capitals the form of the small letter of the same sound. */
const small: Writer = (g) => ['.sc', '.smcp'].flatMap((s) => withSuffix(g, s)).filter(([n]) => !isCapital(g.codeOf(n)));
const capital: Writer = (g, is) => [
  ...withSuffix(g, '.c2sc'),
  ...small(g, is).flatMap(([plain, form]): Pair[] => {
    const code = g.codeOf(plain);
    // Figures and signs of that height are for text all in capitals only where that is wanted.
    if (!isSmall(code)) return /\p{L}/u.test(String.fromCodePoint(code ?? 0)) ? [] : [[plain, form, true]];
    const upper = String.fromCodePoint(code!).toUpperCase();
    const found = [...upper].length === 1 ? glyphOf(g, upper.codePointAt(0)!) : undefined;
    return found && !is(`${found}.c2sc`) ? [[found, form]] : [];
  }),
];

const named =
  (suffix: string): Writer =>
  (_, is) =>
    FIGURES.flatMap((n): Pair[] => (is(n) && is(n + suffix) ? [[n, n + suffix]] : []));

/** Forms by the place in a word that text asks for itself; those of other scripts are contexts, see {@link positional}. */
const ofPlace = (ground: Ground, suffix: string): Pair[] =>
  withSuffix(ground, suffix).filter(([plain]) => joins(ground, plain));

/** Single replacements by feature, in the order in which features go to work. */
const SINGLE: readonly (readonly [tag: string, title: string, write: Writer])[] = [
  ['smcp', 'Small capitals', small],
  ['c2sc', 'Capitals to small capitals', capital],
  [
    'case',
    'Signs beside capitals',
    (g) => withSuffix(g, '.case').filter(([n]) => !/\p{M}/u.test(String.fromCodePoint(g.codeOf(n) ?? 0))),
  ],
  [
    'lnum',
    'Figures as tall as capitals',
    (g, is) => [...withSuffix(g, '.lnum'), ...back(withSuffix(g, '.onum'), is, '.lnum')],
  ],
  [
    'onum',
    'Figures with ascenders and descenders',
    (g, is) => [...withSuffix(g, '.onum'), ...across(g, '.pnum', '.onum', is), ...across(g, '.lnum', '.onum', is)],
  ],
  ['pnum', 'Figures as wide as they need', (g, is) => [...withSuffix(g, '.pnum'), ...across(g, '.tnum', '.pnum', is)]],
  [
    'tnum',
    'Figures of one width',
    (g, is) => [...withSuffix(g, '.tnum'), ...back(withSuffix(g, '.pnum'), is, '.tnum')],
  ],
  ['zero', 'Zero told from O', (g) => withSuffix(g, '.zero')],
  ['sups', 'Superiors', (g, is) => [...named('superior')(g, is), ...withSuffix(g, '.sups')]],
  ['subs', 'Inferiors', (g, is) => [...named('inferior')(g, is), ...withSuffix(g, '.subs')]],
  ['sinf', 'Figures of formulas', (g) => withSuffix(g, '.sinf')],
  ['numr', 'Numerators', (g) => withSuffix(g, '.numr')],
  ['dnom', 'Denominators', (g) => withSuffix(g, '.dnom')],
  [
    'ordn',
    'Ordinals',
    (_, is) =>
      is('ordfeminine') && is('ordmasculine') && is('a') && is('o')
        ? [
            ['a', 'ordfeminine'],
            ['o', 'ordmasculine'],
          ]
        : [],
  ],
  ['swsh', 'Swashes', (g) => withSuffix(g, '.swsh')],
  ['titl', 'Titling forms', (g) => withSuffix(g, '.titl')],
  [
    'hist',
    'Historical forms',
    (g, is) => [...withSuffix(g, '.hist'), ...(is('s') && is('longs') ? [['s', 'longs'] as Pair] : [])],
  ],
  ['init', 'Initial forms', (g) => ofPlace(g, '.init')],
  ['medi', 'Medial forms', (g) => ofPlace(g, '.medi')],
  ['fina', 'Final forms', (g) => ofPlace(g, '.fina')],
  ['isol', 'Isolated forms', (g) => ofPlace(g, '.isol')],
  ...Array.from({ length: 20 }, (_, i): [string, string, Writer] => {
    const tag = `ss${String(i + 1).padStart(2, '0')}`;
    return [tag, `Stylistic set ${i + 1}`, (g) => withSuffix(g, `.${tag}`)];
  }),
  ...Array.from({ length: 99 }, (_, i): [string, string, Writer] => {
    const tag = `cv${String(i + 1).padStart(2, '0')}`;
    return [tag, `Character variant ${i + 1}`, (g) => withSuffix(g, `.${tag}`)];
  }),
];

/** From a form back to the plain glyph, where the form asked for is the plain one. */
const back = (pairs: readonly Pair[], is: (name: string) => boolean, suffix: string): Pair[] =>
  pairs.filter(([plain]) => !is(plain + suffix)).map(([plain, form]) => [form, plain]);

const list = (names: readonly string[]): string => {
  const lines: string[] = [];
  for (let i = 0; i < names.length; i += 12) lines.push(names.slice(i, i + 12).join(' '));
  return names.length === 1 ? names[0]! : `[${lines.join('\n    ')}]`;
};

const block = (tag: string, lines: readonly string[]): string =>
  [`feature ${tag} {`, ...lines.map((l) => `  ${l}`), `} ${tag};`].join('\n');

/** A form with the glyphs that it is for: taken if that was chosen, else if it is usual. */
const chosen = (ground: Ground, tag: string, before: readonly string[], form: string, usual = true): RuleShown => ({
  before,
  after: [form],
  ...(!(ground.takes?.(tag, form) ?? usual) && { isOut: true }),
});

function singleRule([tag, title, write]: (typeof SINGLE)[number], ground: Ground, is: (n: string) => boolean): Rule[] {
  const seen = new Set<string>();
  const pairs = write(ground, is).filter(([from]) => !seen.has(from) && seen.add(from));
  if (pairs.every(([, , isUnusual]) => isUnusual)) return [];
  const shown = pairs.map(([a, b, isUnusual]) => chosen(ground, tag, [a], b, !isUnusual));
  const taken = pairs.filter((_, i) => !shown[i]!.isOut);
  const [from, to] = [list(taken.map(([a]) => a)), list(taken.map(([, b]) => b))];
  return [{ tag, title, text: block(tag, taken.length > 0 ? [`sub ${from} by ${to};`] : []), shown, isChosen: true }];
}

/** Ligatures that text uses without being asked, those that one asks for, and historical ones with the long s. */
const USUAL = new Set([
  'f_f',
  'f_i',
  'f_l',
  'f_f_i',
  'f_f_l',
  'f_b',
  'f_h',
  'f_j',
  'f_k',
  'f_t',
  'f_f_b',
  'f_f_h',
  'f_f_j',
  'f_f_k',
  'f_f_t',
  't_t',
  't_i',
]);

function ligatureRules(ground: Ground, is: (name: string) => boolean): Rule[] {
  const found: { tag: 'liga' | 'dlig' | 'hlig' | 'rlig'; parts: string[]; to: string }[] = [];
  for (const name of ground.names) {
    const [plain, suffix = ''] = name.split('.', 2) as [string, string?];
    if (!plain.includes('_') || plain.startsWith('_')) continue;
    const parts = plain.split('_');
    if (!parts.every(is)) continue;
    const own = ['liga', 'dlig', 'hlig', 'rlig'].find((t) => t === suffix) as 'liga' | undefined;
    if (suffix !== '' && !own) continue;
    const tag = own ?? (parts.includes('longs') ? 'hlig' : USUAL.has(plain) ? 'liga' : 'dlig');
    found.push({ tag, parts, to: name });
  }
  const decomposed: readonly (readonly [string, string[]])[] = [
    ['fi', ['f', 'i']],
    ['fl', ['f', 'l']],
    ['ff', ['f', 'f']],
    ['ffi', ['f', 'f', 'i']],
    ['ffl', ['f', 'f', 'l']],
  ];
  for (const [name, parts] of decomposed)
    if (is(name) && parts.every(is) && !is(parts.join('_'))) found.push({ tag: 'liga', parts, to: name });
  const titles = {
    rlig: 'Ligatures that must be',
    liga: 'Ligatures',
    dlig: 'Ligatures on request',
    hlig: 'Historical ligatures',
  };
  return (['rlig', 'liga', 'dlig', 'hlig'] as const).flatMap((tag): Rule[] => {
    const own = found
      .filter((f) => f.tag === tag)
      .sort((a, b) => b.parts.length - a.parts.length || (a.to < b.to ? -1 : 1));
    if (own.length === 0) return [];
    const shown = own.map((f) => chosen(ground, tag, f.parts, f.to));
    const lines = shown.flatMap((f) => (f.isOut ? [] : [`sub ${f.before.join(' ')} by ${f.after[0]};`]));
    return [{ tag, title: titles[tag], text: block(tag, lines), shown, isChosen: true }];
  });
}

/** Fractions of any length: figures before the bar become numerators, those behind it denominators. */
function fractions(is: (name: string) => boolean): Rule[] {
  const bar = ['fraction', 'slash'].filter(is);
  const whole = FIGURES.every((n) => is(n) && is(`${n}.numr`) && is(`${n}.dnom`));
  if (!whole || bar.length < 2) return [];
  const [numr, dnom] = ['.numr', '.dnom'].map((s) => FIGURES.map((n) => n + s).join(' '));
  const text = block('frac', [
    'lookup fracNumerators {',
    `  sub [${FIGURES.join(' ')}] by [${numr}];`,
    '} fracNumerators;',
    'lookup fracBar {',
    '  sub slash by fraction;',
    '} fracBar;',
    'lookup fracDenominators {',
    `  sub [fraction ${dnom}] [${numr}]' by [${dnom}];`,
    '} fracDenominators;',
  ]);
  return [
    {
      tag: 'frac',
      title: 'Fractions',
      text,
      shown: [{ before: ['three', 'slash', 'four'], after: ['three.numr', 'fraction', 'four.dnom'] }],
    },
  ];
}

/** Letters that lose their dot under a mark above. */
function dotless(ground: Ground, is: (name: string) => boolean): Rule[] {
  const { above, below } = ground;
  const pairs = (
    [
      [0x69, 0x131],
      [0x6a, 0x237],
      [0x456, 0x131],
      [0x458, 0x237],
    ] as const
  ).flatMap(([a, b]): Pair[] => {
    const [from, to] = [glyphOf(ground, a), glyphOf(ground, b)];
    return from && to && is(from) && is(to) ? [[from, to]] : [];
  });
  if (pairs.length === 0 || above.length === 0) return [];
  const [from, to] = [list(pairs.map(([a]) => a)), list(pairs.map(([, b]) => b))];
  const text = block('ccmp', [
    `sub ${from}' ${list(above)} by ${to};`,
    // A mark below comes first in normalised text.
    ...(below.length > 0 ? [`sub ${from}' ${list(below)} ${list(above)} by ${to};`] : []),
  ]);
  return [
    {
      tag: 'ccmp',
      title: 'Accents take the place of dots',
      text,
      shown: pairs.map(([a, b]) => ({ before: [a, above[0]!], after: [b, above[0]!] })),
    },
  ];
}

/** Letters of one language that stand for those of others: which glyphs, in which script and language. */
const LOCAL: readonly (readonly [script: string, language: string, title: string, pairs: readonly Pair[]])[] = [
  [
    'latn',
    'ROM',
    'Romanian',
    [
      ['scedilla', 'scommaaccent'],
      ['Scedilla', 'Scommaaccent'],
      ['tcedilla', 'tcommaaccent'],
      ['Tcedilla', 'Tcommaaccent'],
      ['uni015F', 'uni0219'],
      ['uni015E', 'uni0218'],
      ['uni0163', 'uni021B'],
      ['uni0162', 'uni021A'],
      ['scedilla', 'uni0219'],
      ['Scedilla', 'uni0218'],
      ['uni0163', 'tcommaaccent'],
      ['tcommaaccent', 'uni021B'],
      ['Tcommaaccent', 'uni021A'],
    ],
  ],
  [
    'latn',
    'MOL',
    'Moldavian',
    [
      ['scedilla', 'uni0219'],
      ['Scedilla', 'uni0218'],
      ['tcommaaccent', 'uni021B'],
      ['Tcommaaccent', 'uni021A'],
    ],
  ],
  [
    'latn',
    'TRK',
    'Turkish',
    [
      ['i', 'i.loclTRK'],
      ['i', 'idotaccent'],
    ],
  ],
  [
    'latn',
    'AZE',
    'Azerbaijani',
    [
      ['i', 'i.loclTRK'],
      ['i', 'idotaccent'],
    ],
  ],
  ['latn', 'CAT', 'Catalan', [['periodcentered', 'periodcentered.loclCAT']]],
  ['latn', 'NLD', 'Dutch', [['ij', 'ij.loclNLD']]],
];

/** Forms of a language: by known needs, and by names like `b.loclSRB`. */
function local(ground: Ground, is: (name: string) => boolean): Rule[] {
  const systems = new Map<string, { title: string; pairs: Pair[] }>();
  const add = (script: string, language: string, title: string, pair: Pair) => {
    const key = `${script} ${language}`;
    const own = systems.get(key) ?? { title, pairs: [] };
    systems.set(key, own);
    if (is(pair[0]) && is(pair[1]) && !own.pairs.some(([a]) => a === pair[0])) own.pairs.push(pair);
  };
  for (const name of ground.names) {
    const found = /^(.+)\.locl([A-Z]{3,4})$/.exec(name);
    if (!found || !is(found[1]!)) continue;
    const code = ground.codeOf(found[1]!);
    const script = code !== undefined && /\p{Script=Cyrillic}/u.test(String.fromCodePoint(code)) ? 'cyrl' : 'latn';
    add(script, found[2]!, found[2]!, [found[1]!, name]);
  }
  for (const [script, language, title, pairs] of LOCAL) for (const p of pairs) add(script, language, title, p);
  const wanted = [...systems].filter(([, s]) => s.pairs.length > 0).sort(([a], [b]) => (a < b ? -1 : 1));
  if (wanted.length === 0) return [];
  const lines: string[] = [];
  let script = '';
  for (const [key, { pairs }] of wanted) {
    const [own, language] = key.split(' ') as [string, string];
    if (own !== script) lines.push(`script ${own};`);
    script = own;
    const taken = pairs.filter(([, form]) => ground.takes?.('locl', form) ?? true);
    lines.push(`language ${language};`, ...taken.map(([a, b]) => `sub ${a} by ${b};`));
  }
  return [
    {
      tag: 'locl',
      title: 'Forms of single languages',
      text: block('locl', lines),
      shown: wanted.flatMap(([, { pairs }]) => pairs.map(([a, b]) => chosen(ground, 'locl', [a], b))),
      isChosen: true,
    },
  ];
}

/** All alternates of the features that replace single glyphs. */
const ALTERNATES = /^(smcp|c2sc|case|onum|lnum|pnum|tnum|zero|sups|subs|sinf|swsh|titl|hist|ss\d\d|cv\d\d|salt)$/;

/** Choices of one glyph: `a.alt`, `a.alt1`, `a.salt` … */
function stylistic(ground: Ground, is: (name: string) => boolean): Rule[] {
  const by = new Map<string, string[]>();
  for (const name of ground.names) {
    const found = /^(.+?)\.s?alt\d*$/.exec(name);
    if (found && is(found[1]!)) addTo(by, found[1]!, name);
  }
  if (by.size === 0) return [];
  const shown = [...by].flatMap(([n, forms]) => forms.map((f) => chosen(ground, 'salt', [n], f)));
  const lines = [...by].flatMap(([n]) => {
    const forms = shown.flatMap((s) => (s.before[0] === n && !s.isOut ? s.after : []));
    // One by one and by choice are rules of two kinds.
    return forms.length > 1 ? [`sub ${n} from [${forms.join(' ')}];`] : forms.map((f) => `sub ${n} by ${f};`);
  });
  return [{ tag: 'salt', title: 'Other forms', text: block('salt', lines), shown, isChosen: true }];
}

/** Fewer capitals than this are no alphabet. */
const ALPHABET = 10;

/** A little more room at both sides of capitals, for words in capitals alone: a hundredth of the em for each. */
function roomBetweenCapitals(ground: Ground): Rule[] {
  const { names, codeOf, unitsPerEm = 1000 } = ground;
  const all = names.filter((n) => isCapital(codeOf(n)));
  if (all.length < ALPHABET) return [];
  const shown = all.map((n) => chosen(ground, 'cpsp', [n], n));
  const capitals = shown.flatMap((s) => (s.isOut ? [] : s.after));
  const room = Math.max(2, Math.round(unitsPerEm / 200) * 2);
  const text = block('cpsp', capitals.length > 0 ? [`pos [${capitals.join(' ')}] <${room / 2} 0 ${room} 0>;`] : []);
  return [{ tag: 'cpsp', title: 'Room between capitals', text, shown, isChosen: true }];
}

/** Every rule that the names of a font call for, in the order in which they are to work. */
export function automaticRules(ground: Ground): Rule[] {
  const there = new Set(ground.names);
  const is = (name: string) => there.has(name);
  const single = SINGLE.flatMap((s) => singleRule(s, ground, is));
  const byTag = (tags: RegExp) => single.filter((r) => tags.test(r.tag));
  const rules = [
    ...dotless(ground, is),
    ...local(ground, is),
    ...byTag(/^(init|medi|fina|isol)$/),
    ...byTag(/^(smcp|c2sc|case)$/),
    ...roomBetweenCapitals(ground),
    ...byTag(/^(lnum|onum|pnum|tnum|zero)$/),
    ...byTag(/^(sups|subs|sinf|ordn|numr|dnom)$/),
    ...fractions(is),
    ...ligatureRules(ground, is),
    ...stylistic(ground, is),
    ...positional(ground),
    ...byTag(/^(swsh|titl|hist|ss\d\d|cv\d\d)$/),
  ];
  const alternates = rules.filter((r) => ALTERNATES.test(r.tag));
  if (alternates.length === 0) return rules;
  const aalt: Rule = {
    tag: 'aalt',
    title: 'All other forms',
    text: block(
      'aalt',
      alternates.map((r) => `feature ${r.tag};`),
    ),
    shown: [],
  };
  return [aalt, ...rules];
}
