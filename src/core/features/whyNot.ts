import type { Setting } from '../project/setting';
import { isUsual } from './known';
import { alphabetOf } from './scripts';
import { isFontTag } from './setting';
import type { ShownRule } from './shown';

/** A glyph in a line, and the letter that it comes from. */
export type LineGlyph = { name: string; cluster: number };
/** What one lookup did to a line. */
export type LineStep = {
  table: 'GSUB' | 'GPOS';
  lookup: number;
  feature: string;
  before: readonly LineGlyph[];
  after: readonly LineGlyph[];
};
/** A lookup of substitutions: the section it stands in, its flag, and the features that call it in which systems. */
export type LineLookup = {
  title: string;
  section?: string | undefined;
  line?: number | undefined;
  flag: number;
  features: readonly { tag: string; systems: readonly string[] }[];
};
/** A rule whose letters stand in a text and that did nothing there, and why; where another rule is to blame, that. */
export type Unapplied = { rule: ShownRule; reason: string; blame?: { lookup: number } };

type Line = {
  text: string;
  setting: Setting;
  /** The glyphs of the text’s characters. */
  letters: readonly LineGlyph[];
  steps: readonly LineStep[];
  /** Lookups of GSUB by their numbers. */
  lookups: readonly LineLookup[];
};

/** Features that shapers apply by where a letter joins others. */
const JOINED: Readonly<Record<string, string>> = {
  init: 'where a joined word begins',
  medi: 'within joined letters',
  fina: 'where a joined word ends',
  isol: 'where a letter stands alone',
};
/** Bits of a lookup’s flag, and what it passes over (OpenType, “lookupFlag”). */
const FLAGS = [
  [2, 'letters'],
  [4, 'ligatures'],
  [8, 'marks'],
] as const;

/** Rules of a section whose letters stand in a line and that did nothing there: why, by the shaper’s own trace. */
export function unapplied(section: string, rules: readonly ShownRule[], line: Line): Unapplied[] {
  return rules.flatMap((rule): Unapplied[] => {
    if (rule.before.length === 0 || (rule.kind !== 'replace' && rule.kind !== 'choose')) return [];
    const at = placesOf(rule.before, line.letters);
    const own = line.lookups.flatMap((l, i) =>
      l.section === section && l.features.some((f) => f.tag === rule.feature) ? [i] : [],
    );
    // Lookups that others call have no feature of their own; a rule in one of them is told by its caller.
    if (at.length === 0 || own.length === 0 || at.some((i) => wasApplied(rule, i, own, line))) return [];
    return [{ rule, ...reasonOf(rule, at[0]!, own, line) }];
  });
}

/** Where a row of glyphs stands in a line. */
function placesOf(row: readonly string[], line: readonly LineGlyph[]): number[] {
  return line.flatMap((_, i) => (row.every((n, k) => line[i + k]?.name === n) ? [i] : []));
}

function wasApplied(rule: ShownRule, at: number, own: readonly number[], { letters, steps }: Line): boolean {
  const { cluster } = letters[at]!;
  return steps.some(
    (s) =>
      s.table === 'GSUB' &&
      own.includes(s.lookup) &&
      !sameAt(s.before, s.after, cluster) &&
      s.after.some((g) => g.cluster === cluster && rule.after.includes(g.name)),
  );
}

const namesAt = (line: readonly LineGlyph[], cluster: number): string =>
  line.flatMap((g) => (g.cluster === cluster ? [g.name] : [])).join(' ');
const sameAt = (a: readonly LineGlyph[], b: readonly LineGlyph[], cluster: number): boolean =>
  namesAt(a, cluster) === namesAt(b, cluster);

function reasonOf(rule: ShownRule, at: number, own: readonly number[], line: Line): Omit<Unapplied, 'rule'> {
  const { feature } = rule;
  const { setting, letters, steps, lookups } = line;
  const value = setting.features[feature];
  if (value === 0 || (value === undefined && !isUsual(feature)))
    return { reason: `${feature} is off in this line${value === undefined ? '; text uses it only when asked' : ''}.` };
  if (rule.language && setting.language !== rule.language)
    return { reason: `It is for text in the language ${rule.language}.` };
  const system = systemOf(line);
  const systems = own.flatMap((i) => lookups[i]!.features.flatMap((f) => (f.tag === feature ? f.systems : [])));
  if (system && !systems.includes(system)) {
    const [script, language] = system.split(' ');
    const what = language === 'dflt' ? `the script ${script}` : `the language ${language}`;
    return { reason: `Text in ${what} has no ${feature}; rules declare it for ${listed(systems)}.` };
  }
  const { cluster } = letters[at]!;
  const first = Math.min(...own);
  const earlier = steps.filter((s) => s.table === 'GSUB' && s.lookup < first);
  const wanted = rule.before[0]!;
  const taken = earlier.find((s) => hasAt(s.before, cluster, wanted) && !hasAt(s.after, cluster, wanted));
  if (taken) {
    const by = lookups[taken.lookup];
    return {
      reason: `${wanted} was ${namesAt(taken.after, cluster) || 'part of another glyph'} already, by ${by?.title ?? taken.feature}, which comes before.`,
      blame: { lookup: taken.lookup },
    };
  }
  const other = steps.find((s) => s.table === 'GSUB' && own.includes(s.lookup) && !sameAt(s.before, s.after, cluster));
  if (other)
    return {
      reason: `Another rule of the same lookup came first and made it ${namesAt(other.after, cluster) || 'part of another glyph'}.`,
      blame: { lookup: other.lookup },
    };
  if (JOINED[feature]) return { reason: `The shaper applies ${feature} ${JOINED[feature]} only.` };
  const flags = FLAGS.flatMap(([bit, name]) => (own.some((i) => (lookups[i]!.flag & bit) !== 0) ? [name] : []));
  if (rule.back.length + rule.ahead.length > 0)
    return {
      reason: `What stands around it is not what the rule wants${flags.length > 0 ? `; its lookup passes over ${flags.join(', ')}` : ''}.`,
    };
  if (flags.length > 0) return { reason: `Its lookup passes over ${flags.join(', ')}.` };
  return { reason: 'The shaper did not reach it: another rule, or its own way of setting this script, came between.' };
}

const hasAt = (line: readonly LineGlyph[], cluster: number, name: string): boolean =>
  line.some((g) => g.cluster === cluster && g.name === name);

const listed = (systems: readonly string[]): string => [...new Set(systems)].slice(0, 4).join(', ') || 'none';

/** The system that a line is set in, as far as its letters and its setting tell; undefined where the shaper alone knows. */
function systemOf({ text, setting, lookups }: Line): string | undefined {
  const known = new Set(lookups.flatMap((l) => l.features.flatMap((f) => f.systems)));
  const scripts = new Set([...known].map((s) => s.split(' ')[0]!));
  const wanted = setting.script ?? alphabetOf(text);
  if (wanted === undefined) return undefined;
  // A script that rules do not name gets what holds for all.
  const script = scripts.has(wanted) ? wanted : 'DFLT';
  const { language } = setting;
  if (language !== undefined && !isFontTag(language)) return undefined;
  return language !== undefined && known.has(`${script} ${language}`) ? `${script} ${language}` : `${script} dflt`;
}
