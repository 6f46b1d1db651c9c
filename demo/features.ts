import type { Project } from '../src/core/project/model';
import { FIGURES, ligatures } from './sets';

type Section = Project['features']['sections'][number];

const list = (names: readonly string[]) => names.join(' ');
const small = 'abcdefghijklmnopqrstuvwxyz'.split('').map((c) => `${c}.sc`);
const lower = 'abcdefghijklmnopqrstuvwxyz'.split('');
const upper = lower.map((c) => c.toUpperCase());
const withSuffix = (suffix: string) => FIGURES.map((n) => `${n}${suffix}`);

const feature = (tag: string, lines: readonly string[], name?: string): string =>
  [
    `feature ${tag} {`,
    ...(name ? [`  featureNames { name "${name}"; };`] : []),
    ...lines.map((l) => `  ${l}`),
    `} ${tag};`,
  ].join('\n');

const classSwap = (from: readonly string[], to: readonly string[]) => `sub [${list(from)}] by [${list(to)}];`;

/** The family's layout rules, in the order they apply. `cased` are the signs that have a form for capitals. */
export function featureSections(cased: readonly string[], topMarks: readonly string[]): Section[] {
  const sections: [title: string, text: string][] = [
    [
      'Accents take the place of dots',
      feature('ccmp', [`sub i' [${list(topMarks)}] by dotlessi;`, `sub j' [${list(topMarks)}] by dotlessj;`]),
    ],
    ['Small capitals', feature('smcp', [classSwap(lower, small)])],
    ['Capitals to small capitals', feature('c2sc', [classSwap(upper, small)])],
    [
      'Signs beside capitals',
      feature('case', [
        classSwap(
          cased,
          cased.map((n) => `${n}.case`),
        ),
      ]),
    ],
    [
      'Old-style figures',
      feature('onum', [classSwap(FIGURES, withSuffix('.onum')), classSwap(withSuffix('.pnum'), withSuffix('.onum'))]),
    ],
    ['Lining figures', feature('lnum', [classSwap(withSuffix('.onum'), FIGURES)])],
    ['Proportional figures', feature('pnum', [classSwap(FIGURES, withSuffix('.pnum'))])],
    ['Tabular figures', feature('tnum', [classSwap(withSuffix('.pnum'), FIGURES)])],
    ['Superiors', feature('sups', [classSwap(FIGURES, withSuffix('superior'))])],
    ['Inferiors', feature('subs', [classSwap(FIGURES, withSuffix('inferior'))])],
    ['Numerators', feature('numr', [classSwap(FIGURES, withSuffix('.numr'))])],
    ['Denominators', feature('dnom', [classSwap(FIGURES, withSuffix('.dnom'))])],
    [
      'Fractions',
      feature('frac', [
        'lookup numerators {',
        `  ${classSwap(FIGURES, withSuffix('.numr'))}`,
        '  sub slash by fraction;',
        '} numerators;',
        'lookup denominators {',
        `  sub [fraction ${list(withSuffix('.dnom'))}] [${list(withSuffix('.numr'))}]' by [${list(withSuffix('.dnom'))}];`,
        '} denominators;',
      ]),
    ],
    [
      'Ligatures',
      feature(
        'liga',
        Object.entries(ligatures)
          .sort(([, a], [, b]) => b.parts.length - a.parts.length)
          .map(([name, { parts }]) => `sub ${list(parts)} by ${name};`),
      ),
    ],
    ['Round a', feature('ss01', ['sub a by a.ss01;'], 'Round a')],
    ['Level-tailed g', feature('ss02', ['sub g by g.ss02;'], 'Level-tailed g')],
    ['Straight y', feature('ss03', ['sub y by y.ss03;'], 'Straight y')],
  ];
  return sections.map(([title, text], i) => ({ id: `f${i + 1}`, title, options: {}, text }));
}
