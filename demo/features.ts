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

/** Written by hand: sets with names for menus. */
const SETS: readonly (readonly [title: string, text: string])[] = [
  ['Round a', feature('ss01', ['sub a by a.ss01;'], 'Round a')],
  ['Level-tailed g', feature('ss02', ['sub g by g.ss02;'], 'Level-tailed g')],
  ['Straight y', feature('ss03', ['sub y by y.ss03;'], 'Straight y')],
];

/** The family’s layout rules, in the order they apply. */
export const featureSections = (): Section[] =>
  [
    ...AUTOMATIC.map(([automatic, title]) => ({ title, automatic, text: '' })),
    ...SETS.map(([title, text]) => ({ title, text })),
  ].map((s, i) => ({ id: `f${i + 1}`, options: {}, ...s }));
