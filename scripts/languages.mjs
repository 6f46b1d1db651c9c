// Takes what languages are written with, and by how many, from the Unicode Common Locale Data Repository (npm packages
// cldr-core, cldr-misc-full and cldr-localenames-full 48, Unicode License 3.0): node scripts/languages.mjs FOLDER, the folder
// with the three packages, writes src/core/coverage/languages.json. Of each language: code, name, its name for itself, script,
// readers (territory populations by the share that speaks and writes it), letters, rarer letters, punctuation, territories,
// quotation marks.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const folder = process.argv[2];
const read = (...path) => JSON.parse(readFileSync(join(folder, ...path), 'utf8'));
const likely = read('cldr-core', 'supplemental', 'likelySubtags.json').supplemental.likelySubtags;
const territories = read('cldr-core', 'supplemental', 'territoryInfo.json').supplemental.territoryInfo;
const names = (locale) =>
  read('cldr-localenames-full', 'main', locale, 'languages.json').main[locale].localeDisplayNames.languages;
const english = names('en');
const territoryNames = read('cldr-localenames-full', 'main', 'en', 'territories.json').main.en.localeDisplayNames
  .territories;
const scripts = read('cldr-localenames-full', 'main', 'en', 'scripts.json').main.en.localeDisplayNames.scripts;

/** Characters and strings of a set in the notation of Unicode sets: letters, ranges, escapes, strings in braces. */
function members(set) {
  const out = [];
  const text = [...set.replace(/^\[|\]$/g, '')];
  const one = (i) => {
    if (text[i] !== '\\') return [text[i], i + 1];
    if (text[i + 1] === 'u') return [String.fromCodePoint(parseInt(text.slice(i + 2, i + 6).join(''), 16)), i + 6];
    return [text[i + 1], i + 2];
  };
  for (let i = 0; i < text.length; ) {
    if (text[i] === ' ') i++;
    else if (text[i] === '{') {
      let string = '';
      i++;
      while (text[i] !== '}') {
        const [c, next] = one(i);
        string += c;
        i = next;
      }
      out.push(string);
      i++;
    } else {
      const [from, next] = one(i);
      if (text[next] === '-' && text[next + 1] !== undefined && text[next + 1] !== ' ') {
        const [to, after] = one(next + 1);
        for (let c = from.codePointAt(0); c <= to.codePointAt(0); c++) out.push(String.fromCodePoint(c));
        i = after;
      } else {
        out.push(from);
        i = next;
      }
    }
  }
  return [...new Set(out)];
}

const readers = new Map();
for (const [territory, facts] of Object.entries(territories)) {
  for (const [language, share] of Object.entries(facts.languagePopulation ?? {})) {
    const speak = (Number(facts._population) * Number(share._populationPercent)) / 100;
    const writing = Number(share._writingPercent ?? share._literacyPercent ?? facts._literacyPercent) / 100;
    const [n, where] = readers.get(language) ?? [0, []];
    readers.set(language, [n + speak * writing, [...where, [territory, speak]]]);
  }
}

/** Quotation marks, outer ones first. */
function quotesOf(locale) {
  const { quotationStart, quotationEnd, alternateQuotationStart, alternateQuotationEnd } = read(
    'cldr-misc-full',
    'main',
    locale,
    'delimiters.json',
  ).main[locale].delimiters;
  return [...new Set([quotationStart, quotationEnd, alternateQuotationStart, alternateQuotationEnd].join(''))].join('');
}

const languages = [];
for (const locale of readdirSync(join(folder, 'cldr-misc-full', 'main')).sort()) {
  const [language, second, ...more] = locale.split('-');
  if (language === 'root' || language === 'und' || more.length > 0 || (second && second.length !== 4)) continue;
  const { exemplarCharacters, auxiliary, punctuation } = read('cldr-misc-full', 'main', locale, 'characters.json').main[
    locale
  ].characters;
  const letters = members(exemplarCharacters ?? '[]');
  if (letters.length === 0) continue;
  const usual = likely[language]?.split('-')[1];
  const script = second ?? usual;
  // A form in the script that the language has anyway is the language itself.
  if (!script || (second && second === usual)) continue;
  const name =
    english[locale] ?? (english[language] && second ? `${english[language]} (${scripts[second]})` : english[language]);
  if (!name) continue;
  let own = name;
  try {
    own = names(locale)[language] ?? names(locale)[locale] ?? name;
  } catch {}
  const [count, where] = readers.get(second ? `${language}_${second}` : language) ?? [0, []];
  languages.push([
    locale,
    name,
    own === name ? '' : own,
    script,
    Math.round(count),
    letters.join(' '),
    members(auxiliary ?? '[]').join(' '),
    members(punctuation ?? '[]').join(' '),
    where
      .sort((a, b) => b[1] - a[1])
      .slice(0, 12)
      .map(([t]) => t)
      .join(' '),
    quotesOf(locale),
  ]);
}
const used = new Set(languages.flatMap((l) => l[8].split(' ')).filter(Boolean));
const data = {
  territories: Object.fromEntries([...used].sort().map((t) => [t, territoryNames[t] ?? t])),
  scripts: Object.fromEntries([...new Set(languages.map((l) => l[3]))].sort().map((s) => [s, scripts[s] ?? s])),
  languages,
};
const lines = languages.map((l) => JSON.stringify(l)).join(',\n');
writeFileSync(
  'src/core/coverage/languages.json',
  `{"territories":${JSON.stringify(data.territories)},\n"scripts":${JSON.stringify(data.scripts)},\n"languages":[\n${lines}\n]}\n`,
);
console.log(`${languages.length} languages`);
