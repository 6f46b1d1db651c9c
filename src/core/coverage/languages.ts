/** A language, what it is written with, and how many people read it. */
export type Language = {
  /** BCP 47: `pl`, `sr-Latn`. */
  code: string;
  name: string;
  /** What it calls itself; empty where that is the same. */
  own: string;
  /** ISO 15924. */
  script: string;
  /** People who speak and write it, from the populations of its territories; 0 where that is not known. */
  readers: number;
  /** Letters it is written with, small ones, some as two characters (`dž`, a letter with a combining mark). */
  letters: readonly string[];
  /** Letters of names and borrowed words. */
  auxiliary: readonly string[];
  punctuation: readonly string[];
  /** Quotation marks, outer ones first. */
  quotes: string;
  /** ISO 3166 codes of the territories with most speakers, most first. */
  territories: readonly string[];
};

/** All languages known, by their names, with names for territories and scripts. */
export type Languages = {
  all: readonly Language[];
  territoryNames: Readonly<Record<string, string>>;
  scriptNames: Readonly<Record<string, string>>;
};

type Row = readonly [string, string, string, string, number, string, string, string, string, string];

const words = (text: string): string[] => (text === '' ? [] : text.split(' '));

let loaded: Promise<Languages> | undefined;

/** The languages of the Unicode Common Locale Data Repository 48 (Unicode License 3.0), loaded when first asked for. */
export function loadLanguages(): Promise<Languages> {
  loaded ??= import('./languages.json').then(({ default: data }) => ({
    all: (data.languages as unknown as Row[])
      .map(
        ([code, name, own, script, readers, letters, auxiliary, punctuation, territories, quotes]): Language => ({
          code,
          name,
          own,
          script,
          readers,
          letters: words(letters),
          auxiliary: words(auxiliary),
          punctuation: words(punctuation),
          territories: words(territories),
          quotes,
        }),
      )
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
    territoryNames: data.territories as Record<string, string>,
    scriptNames: data.scripts as Record<string, string>,
  }));
  return loaded;
}

/** Languages that a search finds: in their names, codes, scripts, or territories; all for an empty one. */
export function findLanguages({ all, territoryNames, scriptNames }: Languages, search: string): Language[] {
  const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
  const wanted = plain(search.trim());
  if (wanted === '') return [...all];
  const begins = (text: string | undefined) =>
    text !== undefined &&
    plain(text)
      .split(/[\s()]+/)
      .some((_, i, parts) => parts.slice(i).join(' ').startsWith(wanted));
  return all.filter(
    (l) =>
      plain(l.code) === wanted ||
      begins(l.name) ||
      begins(l.own) ||
      begins(scriptNames[l.script]) ||
      l.territories.some((t) => begins(territoryNames[t])),
  );
}
