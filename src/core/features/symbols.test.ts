import { readyDemo } from '../../../demo/ready';
import type { Outcome } from '../project/edit';
import type { Project } from '../project/model';
import { addSections, renameSymbol } from './edits';
import { definedIn, symbolAt, symbolsIn, withSymbol } from './symbols';

const TEXT = `@Up = [A B]; # @Up in a comment
markClass [acutecomb] <anchor 0 500> @Top;
lookup swap useExtension { sub @Up by a; } swap;
feature calt { sub A' lookup swap @Up'; lookup swap; table GDEF {} GDEF; pos base A <anchor 0 0> mark @Top; } calt;
feature swap { lookup inner { sub A by B; } inner; } swap;`;

test('classes and lookups are found where they are defined and where they are used', () => {
  const told = symbolsIn(TEXT).map((s) => `${s.kind} ${s.name}${s.defines ? ' defined' : ''}`);
  expect(told).toEqual([
    'class @Up defined',
    'class @Top defined',
    'lookup swap defined',
    'class @Up',
    'lookup swap',
    'lookup swap',
    'class @Up',
    'lookup swap',
    'class @Top',
    'lookup inner defined',
    'lookup inner',
  ]);
  for (const s of symbolsIn(TEXT)) expect(TEXT.slice(s.from, s.to)).toBe(s.name);
  const at = TEXT.indexOf('swap useExtension');
  expect(symbolAt(TEXT, at + 4)).toMatchObject({ kind: 'lookup', name: 'swap', defines: true });
  expect(symbolAt(TEXT, at - 2)).toBeUndefined();
});

test('a name is changed throughout, and nothing else', () => {
  const lookup = withSymbol(TEXT, { kind: 'lookup', name: 'swap' }, 'exchange');
  expect(lookup.match(/exchange/g)).toHaveLength(4);
  // The feature of the same name stays.
  expect(lookup).toContain('feature swap {');
  expect(withSymbol(lookup, { kind: 'lookup', name: 'exchange' }, 'swap')).toBe(TEXT);
  const named = withSymbol(TEXT, { kind: 'class', name: '@Up' }, '@Capitals');
  expect(named.match(/@Capitals/g)).toHaveLength(3);
  expect(named).toContain('# @Up in a comment');
  expect(symbolsIn('lookup } } { lookup a {')).toHaveLength(1);
});

test('a class is renamed in all sections by hand in one step; a name that is taken, impossible or included elsewhere is refused', () => {
  const done = (o: Outcome): Project => {
    if (!o.ok) throw new Error(o.reason);
    return o.project;
  };
  const demo = readyDemo();
  const project = done(
    addSections(demo, {
      sections: [
        { title: 'one', text: '@Mine = [a b];' },
        { title: 'two', text: 'feature ss07 { sub @Mine by o; } ss07; @Other = [o];' },
      ],
    }),
  );
  const texts = (p: Project) => p.features.sections.slice(-2).map((s) => s.text);
  const renamed = done(renameSymbol(project, { kind: 'class', name: '@Mine', to: '@Yours' }));
  expect(texts(renamed)).toEqual(['@Yours = [a b];', 'feature ss07 { sub @Yours by o; } ss07; @Other = [o];']);
  const why = (to: string, name = '@Mine', p = project) => {
    const outcome = renameSymbol(p, { kind: 'class', name, to });
    return outcome.ok ? undefined : outcome.reason;
  };
  expect(why('@Other')).toBe('The rules have a class called @Other already.');
  expect(why('Mine')).toMatch(/^Mine can't name a class/);
  expect(why('@Mine')).toBe('It is called @Mine already.');
  expect(why('@New', '@None')).toBe('The rules have no class called @None.');
  const included = { ...project, features: { ...project.features, included: { 'more.fea': '@Mine = [n];' } } };
  expect(why('@New', '@Mine', included)).toMatch(/included file more\.fea/);
});

/** The same by reading everything. */
const definedByReading = (text: string) => {
  const all = symbolsIn(text).filter((s) => s.defines);
  return [...new Set(all.map((s) => `${s.kind} ${s.name}`))].sort();
};
const symbolByReading = (text: string, at: number) => symbolsIn(text).find((s) => s.from <= at && at <= s.to);

test('what a text defines, and what stands at a place, is told without reading all as it is by reading all', () => {
  const texts = [
    TEXT,
    '# @no = [a];\n@A.b-c_1 = [a]; name "lookup no { @q = "; lookup  x.y\n{ } x.y; feature a { lookup z; } a;',
    '@a=[b]; @a = [c]; markClass a <anchor 0 0>\n @M; lookup l { } # done\n l; lookup # which\n k;',
    'xlookup no { } no; @a; [@b]; }',
    ...readyDemo().features.sections.map((s) => s.text),
  ];
  let symbols = 0;
  for (const text of texts) {
    expect(
      definedIn(text)
        .map((d) => `${d.kind} ${d.name}`)
        .sort(),
    ).toEqual(definedByReading(text));
    for (let at = 0; at <= Math.min(text.length, 900); at++) {
      const found = symbolByReading(text, at);
      expect([text, at, symbolAt(text, at)]).toEqual([text, at, found]);
      symbols += found ? 1 : 0;
    }
  }
  expect(symbols).toBeGreaterThan(100);
});
