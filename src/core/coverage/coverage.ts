import type { Language } from './languages';

/** What a language needs, as code points in the order of its alphabet, small letters before capitals. */
export type Needs = { letters: readonly number[]; punctuation: readonly number[] };

const known = new WeakMap<Language, Needs>();

/** Code points of texts in their composed form, each once. */
function pointsOf(texts: Iterable<string>): number[] {
  const out = new Set<number>();
  for (const text of texts) for (const c of text.normalize('NFC')) out.add(c.codePointAt(0)!);
  return [...out];
}

/** Marks on letters of two characters stand by themselves; a capital of several letters (ß: SS) needs no glyph of its own. */
function capital(letter: string, language: string): string {
  // Only Turkish and its kin have rules of their own; those of Greek are for text all in capitals.
  const upper = /^(tr|az)\b/.test(language) ? letter.toLocaleUpperCase(language) : letter.toUpperCase();
  return letter.length === 1 && [...upper].length > 1 ? '' : upper;
}

/** What is needed to write a language: its letters, small and capital, and its punctuation. */
export function needsOf(language: Language): Needs {
  let needs = known.get(language);
  if (!needs) {
    const { letters, code, punctuation } = language;
    needs = {
      letters: pointsOf([...letters, ...letters.map((l) => capital(l, code)).filter((c, i) => c !== letters[i])]),
      punctuation: pointsOf(punctuation),
    };
    known.set(language, needs);
  }
  return needs;
}

/** How far a language can be written with some characters. */
export type Coverage = {
  language: Language;
  /** Letters that lack. */
  missing: readonly number[];
  /** Punctuation that lacks; a language is complete without it, but not set as it should be. */
  unpunctuated: readonly number[];
};

export type Have = (code: number) => boolean;

/** Coverage of languages, in their order. */
export const coverageOf = (languages: readonly Language[], have: Have): Coverage[] =>
  languages.map((language) => {
    const { letters, punctuation } = needsOf(language);
    return {
      language,
      missing: letters.filter((c) => !have(c)),
      unpunctuated: punctuation.filter((c) => !have(c)),
    };
  });

const textOf = (codes: readonly number[]): string =>
  codes.map((c) => (/\p{M}/u.test(String.fromCodePoint(c)) ? '◌' : '') + String.fromCodePoint(c)).join(' ');

/** Coverage as a sentence: “Polish: complete”, “Hungarian: 4 missing, ő ű Ő Ű”. */
export function coverageSentence({ language, missing, unpunctuated }: Coverage, most = 12): string {
  if (missing.length > 0) {
    const rest = missing.length > most ? ` and ${missing.length - most} more` : '';
    return `${language.name}: ${missing.length} missing, ${textOf(missing.slice(0, most))}${rest}`;
  }
  return unpunctuated.length > 0
    ? `${language.name}: all letters, without ${textOf(unpunctuated.slice(0, most))}`
    : `${language.name}: complete`;
}

/** Scripts that are begun: of some language half the letters are there. */
export const begunScripts = (coverage: readonly Coverage[]): ReadonlySet<string> =>
  new Set(
    coverage.filter((c) => c.missing.length * 2 <= needsOf(c.language).letters.length).map((c) => c.language.script),
  );

/** A few glyphs that make languages complete, and how many read those. */
export type NextStep = {
  codes: readonly number[];
  /** Of the codes those that can be put together from what is drawn. */
  composed: readonly number[];
  languages: readonly Language[];
  readers: number;
};

/** A glyph to be drawn costs as much as so many that are put together. */
const DRAWN = 12;
/** Steps of more glyphs than this are a project of their own. */
const LONGEST = 80;

/**
 * The steps that open most readers for what they cost, best first: each is what one language lacks, with all the languages
 * that are complete with it. After a step the others are judged anew, as if it had been done. `canCompose` tells what can be
 * put together at once; what must be drawn costs more.
 */
export function nextSteps(
  coverage: readonly Coverage[],
  canCompose: (code: number) => boolean,
  { steps = 3, onlyScripts }: { steps?: number; onlyScripts?: ReadonlySet<string> } = {},
): NextStep[] {
  let open = coverage
    .filter(
      (c) =>
        c.missing.length > 0 &&
        c.missing.length <= LONGEST &&
        c.language.readers > 0 &&
        (!onlyScripts || onlyScripts.has(c.language.script)),
    )
    .map((c) => ({ language: c.language, missing: new Set(c.missing) }));
  const out: NextStep[] = [];
  while (out.length < steps && open.length > 0) {
    let best: { step: NextStep; worth: number } | undefined;
    for (const { missing } of open) {
      const complete = open.filter(
        (o) => o.missing.size <= missing.size && [...o.missing].every((c) => missing.has(c)),
      );
      const readers = complete.reduce((sum, o) => sum + o.language.readers, 0);
      const codes = [...missing];
      const composed = codes.filter(canCompose);
      const worth = readers / (composed.length + DRAWN * (codes.length - composed.length) + 2);
      if (!best || worth > best.worth)
        best = { worth, step: { codes, composed, readers, languages: complete.map((o) => o.language) } };
    }
    const { step } = best!;
    step.languages = [...step.languages].sort((a, b) => b.readers - a.readers);
    out.push(step);
    const done = new Set(step.codes);
    open = open
      .map((o) => ({ ...o, missing: new Set([...o.missing].filter((c) => !done.has(c))) }))
      .filter((o) => o.missing.size > 0);
  }
  return out;
}

/** A number of people as one says it: “24 million”, “310 thousand”. */
export function peopleOf(n: number): string {
  if (n >= 1e9) return `${(n / 1e9).toFixed(1)} billion`;
  if (n >= 10e6) return `${Math.round(n / 1e6)} million`;
  if (n >= 1e6) return `${(n / 1e6).toFixed(1).replace('.0', '')} million`;
  if (n >= 1000) return `${Math.round(n / 1000)} thousand`;
  return String(Math.round(n));
}
