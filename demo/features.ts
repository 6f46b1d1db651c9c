import type { Project } from '../src/core/project/model';

type Section = Project['features']['sections'][number];

const feature = (tag: string, lines: readonly string[], name?: string): string =>
  [
    `feature ${tag} {`,
    ...(name ? [`  featureNames { name "${name}"; };`] : []),
    ...lines.map((l) => `  ${l}`),
    `} ${tag};`,
  ].join('\n');

/** Rules that the names of glyphs call for, in the order in which they work. */
const AUTOMATIC: readonly (readonly [tag: string, title: string])[] = [
  ['ccmp', 'Accents take the place of dots'],
  ['smcp', 'Small capitals'],
  ['c2sc', 'Capitals to small capitals'],
  ['case', 'Signs beside capitals'],
  ['onum', 'Old-style figures'],
  ['lnum', 'Lining figures'],
  ['pnum', 'Proportional figures'],
  ['tnum', 'Tabular figures'],
  ['sups', 'Superiors'],
  ['subs', 'Inferiors'],
  ['numr', 'Numerators'],
  ['dnom', 'Denominators'],
  ['frac', 'Fractions'],
  ['liga', 'Ligatures'],
];

/** Written by hand: classes, earlier spelling, room between capitals, sets with names for menus. */
const BY_HAND: readonly (readonly [title: string, text: string])[] = [
  [
    'Letters by kind',
    '@Small = [a-z];\n@Capitals = [A-Z];\n@Figures = [zero one two three four five six seven eight nine];',
  ],
  [
    'Long s of earlier spelling',
    `lookup long_s {
  sub s by longs;
} long_s;

feature hist {
  # The short s stays at the end of a word, and before f.
  ignore sub s' f;
  sub s' lookup long_s @Small;
} hist;`,
  ],
  [
    'Ligatures of earlier spelling',
    feature('hlig', [
      'sub longs longs by longs_longs;',
      'sub longs i by longs_i;',
      'sub longs l by longs_l;',
      'sub longs t by longs_t;',
    ]),
  ],
  ['Room between capitals', feature('cpsp', ['pos @Capitals <5 0 10 0>;'])],
  ['Other forms', feature('salt', ['sub a from [a.ss01];', 'sub g from [g.ss02];', 'sub y from [y.ss03];'])],
  ['Round a', feature('ss01', ['sub a by a.ss01;'], 'Round a')],
  ['Level-tailed g', feature('ss02', ['sub g by g.ss02;'], 'Level-tailed g')],
  ['Straight y', feature('ss03', ['sub y by y.ss03;'], 'Straight y')],
  ['Raised colon in times', feature('ss04', ["sub @Figures colon' @Figures by colon.case;"], 'Raised colon in times')],
];

/** The family’s layout rules, in the order they apply. */
export const featureSections = (): Section[] =>
  [
    ...AUTOMATIC.map(([automatic, title]) => ({ title, automatic, text: '' })),
    ...BY_HAND.map(([title, text]) => ({ title, text })),
  ].map((s, i) => ({ id: `f${i + 1}`, options: {}, ...s }));
