import fc from 'fast-check';
import { treeOf } from './trees';
import { withoutFeatures } from './without';

const block = (tag: string, body = 'sub a by b;') => `feature ${tag} {\n  ${body}\n} ${tag};`;
const without = (text: string, ...tags: string[]) => withoutFeatures(text, new Set(tags));
const tagsOf = (text: string) =>
  treeOf(text).statements.flatMap((s) => (s.kind === 'feature' || s.kind === 'variation' ? [s.tag.trimEnd()] : []));

test('a feature goes with its block; all others and what stands between stay where they are', () => {
  const text = `@x = [a b];\n${block('liga')}\n# between\n${block('ss01')}\nlanguagesystem latn dflt;`;
  const left = without(text, 'liga');
  expect(tagsOf(left)).toEqual(['ss01']);
  expect(left.split('\n')).toHaveLength(text.split('\n').length);
  expect(left.indexOf('feature ss01')).toBe(text.indexOf('feature ss01'));
  expect(left).toContain('@x = [a b];');
  expect(left).toContain('# between');
  expect(without(text)).toBe(text);
  expect(without(text, 'zero')).toBe(text);
});

test('a lookup that is called elsewhere stays by itself; one that only the feature has goes with it', () => {
  const text = [
    'feature liga {',
    '  lookup shared { sub a by b; } shared;',
    '  lookup own { sub c by d; } own;',
    '  sub e by f;',
    '} liga;',
    'feature dlig { lookup shared; } dlig;',
    "feature calt { sub x y' lookup shared z; } calt;",
  ].join('\n');
  const left = without(text, 'liga');
  expect(left).toContain('lookup shared { sub a by b; } shared;');
  expect(left).not.toContain('lookup own');
  expect(left).not.toContain('sub e by f');
  expect(tagsOf(left)).toEqual(['dlig', 'calt']);
  expect(treeOf(left).faults).toEqual([]);
  // With nobody left to call it, it goes too.
  expect(without(text, 'liga', 'dlig', 'calt').trim()).toBe('');
});

test('what a feature has under conditions goes with it', () => {
  const text = `conditionset c { wght 1 2; } c;\nvariation rvrn c { sub a by b; } rvrn;\n${block('liga')}`;
  expect(tagsOf(without(text, 'rvrn'))).toEqual(['liga']);
  expect(without(text, 'rvrn')).toContain('conditionset c');
});

test('whatever features there are and whichever go, the rest reads as it did, line for line', () => {
  const tag = fc.constantFrom('liga', 'ss01', 'ss02', 'calt', 'smcp');
  fc.assert(
    fc.property(fc.uniqueArray(tag), fc.subarray(['liga', 'ss01', 'ss02', 'calt', 'smcp']), (tags, gone) => {
      const text = tags.map((t, i) => block(t, `sub a${i} by b;`)).join('\n\n');
      const left = without(text, ...gone);
      expect(tagsOf(left)).toEqual(tags.filter((t) => !gone.includes(t)));
      expect(treeOf(left).faults).toEqual([]);
      left.split('\n').forEach((line, i) => {
        const own = text.split('\n')[i]!;
        expect([own, ' '.repeat(own.length)]).toContain(line);
      });
    }),
  );
});
