import type { Ground, Rule, RuleShown } from './automatic';

/** Scripts whose letters join: text asks for their forms itself, by `init`, `medi`, `fina` and `isol`. */
const JOINING =
  /\p{Script=Arabic}|\p{Script=Syriac}|\p{Script=Mongolian}|\p{Script=Nko}|\p{Script=Phags_Pa}|\p{Script=Mandaic}|\p{Script=Manichaean}|\p{Script=Psalter_Pahlavi}|\p{Script=Adlam}|\p{Script=Hanifi_Rohingya}|\p{Script=Sogdian}|\p{Script=Old_Sogdian}|\p{Script=Chorasmian}/u;

const characterOf = (ground: Ground, name: string): string | undefined => {
  const first = name.split(/[._]/, 1)[0]!;
  const code = ground.codeOf(name) ?? ground.codeOf(first);
  return code === undefined ? undefined : String.fromCodePoint(code);
};

/** Does text ask for the forms of this glyph by its place in a word? What has no character may belong to such a script. */
export function joins(ground: Ground, name: string): boolean {
  const c = characterOf(ground, name);
  return c === undefined || JOINING.test(c);
}

/** A letter of a script that does not join, a form of one, or letters in one glyph. */
const isLetter = (ground: Ground, name: string): boolean => {
  const c = characterOf(ground, name);
  return c !== undefined && /\p{L}/u.test(c) && !/\p{Lm}/u.test(c) && !JOINING.test(c);
};

const LETTERS = '@letters_in_words';

/** Rules for the forms of one place: `x` are the letters that have one, `forms` those. */
const PLACES: readonly (readonly [suffix: string, lines: (x: string, forms: string) => string[]])[] = [
  ['.isol', (x, f) => [`ignore sub ${LETTERS} ${x}';`, `ignore sub ${x}' ${LETTERS};`, `sub ${x}' by ${f};`]],
  ['.init', (x, f) => [`ignore sub ${LETTERS} ${x}';`, `sub ${x}' ${LETTERS} by ${f};`]],
  ['.fina', (x, f) => [`ignore sub ${x}' ${LETTERS};`, `sub ${LETTERS} ${x}' by ${f};`]],
  ['.medi', (x, f) => [`sub ${LETTERS} ${x}' ${LETTERS} by ${f};`]],
];

/**
 * Forms by their place in a word (`e.fina`) in scripts that do not join, where no text asks for `init`, `medi`, `fina` or `isol`: as
 * contexts, which always hold. A word is letters side by side, whatever marks they bear.
 */
export function positional(ground: Ground): Rule[] {
  const there = new Set(ground.names);
  const shown: RuleShown[] = [];
  const lookups: string[] = [];
  for (const [suffix, lines] of PLACES) {
    if (!ground.names.some((n) => n.endsWith(suffix))) continue;
    const forms = ground.names.filter((n) => there.has(n + suffix) && isLetter(ground, n));
    const takes = (n: string) => ground.takes?.('calt', n + suffix) ?? true;
    shown.push(...forms.map((n) => ({ before: [n], after: [n + suffix], ...(!takes(n) && { isOut: true as const }) })));
    const own = forms.filter(takes);
    if (own.length === 0) continue;
    const name = `letters_${suffix.slice(1)}`;
    const [x, by] = [own, own.map((n) => n + suffix)].map((l) => (l.length === 1 ? l[0]! : `[${l.join(' ')}]`));
    lookups.push(
      `  lookup ${name} {`,
      '    lookupflag IgnoreMarks;',
      ...lines(x!, by!).map((l) => `    ${l}`),
      `  } ${name};`,
    );
  }
  if (shown.length === 0) return [];
  const letters = ground.names.filter((n) => isLetter(ground, n));
  const body = lookups.length > 0 ? [`  ${LETTERS} = [${letters.join(' ')}];`, ...lookups] : [];
  const text = ['feature calt {', ...body, '} calt;'].join('\n');
  return [{ tag: 'calt', title: 'Forms by place in a word', text, shown, isChosen: true }];
}
