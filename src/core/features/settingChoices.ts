import { attempt } from '../base/result';
import { carriedPath } from '../fontfacts/carried';
import { GPOS_EXTENSION } from '../opentype/gpos';
import { GSUB_EXTENSION } from '../opentype/gsub';
import { readLayout } from '../opentype/layout/lists';
import type { Project } from '../project/model';
import { featureDoes } from './known';
import { namesOfRange } from './resolve';
import type { GlyphSet, Statement } from './tree';
import { treeOf } from './trees';

/** What a text can be set with: features with how many forms each chooses from, scripts and languages that rules know. */
export type SettingChoices = {
  features: readonly { tag: string; title: string; most: number }[];
  scripts: readonly string[];
  languages: readonly string[];
};

type Found = {
  forms: Map<string, number>;
  scripts: Set<string>;
  languages: Set<string>;
  classes: Map<string, number>;
};

/** What the rules of a project, and the tables that it carries from a font, can be set with; features in the order of the sections. */
export function settingChoices({ features, kept }: Pick<Project, 'features' | 'kept'>): SettingChoices {
  const found: Found = { forms: new Map(), scripts: new Set(), languages: new Set(), classes: new Map() };
  const titles = new Map<string, string>();
  const on = features.sections.filter((s) => s.options.off !== true);
  for (const { automatic, title, text } of on) {
    const before = new Set(found.forms.keys());
    if (automatic !== undefined) add(found.forms, automatic, 1);
    else gather(treeOf(text).statements, found);
    const own = [...found.forms.keys()].filter((t) => !before.has(t));
    if (own.length === 1 && title) titles.set(own[0]!, title);
  }
  for (const text of Object.values(features.included)) gather(treeOf(text).statements, found);
  for (const [tag, extension] of [
    ['GSUB', GSUB_EXTENSION],
    ['GPOS', GPOS_EXTENSION],
  ] as const) {
    const bytes = kept[carriedPath(tag)];
    if (bytes) fromTable(bytes, tag, extension, found);
  }
  found.forms.delete('aalt');
  found.scripts.delete('DFLT');
  found.languages.delete('dflt');
  return {
    features: [...found.forms].map(([tag, most]) => ({ tag, title: titles.get(tag) ?? featureDoes(tag) ?? tag, most })),
    scripts: [...found.scripts].sort(),
    languages: [...found.languages].sort(),
  };
}

function add(forms: Map<string, number>, tag: string, most: number): void {
  forms.set(tag, Math.max(most, forms.get(tag) ?? 1));
}

function gather(list: readonly Statement[], found: Found, feature?: string): void {
  for (const s of list)
    switch (s.kind) {
      case 'feature': {
        const tag = s.tag.trimEnd();
        add(found.forms, tag, 1);
        gather(s.body, found, tag);
        break;
      }
      case 'lookup':
        gather(s.body, found, feature);
        break;
      case 'languagesystem':
        found.scripts.add(s.script.trimEnd());
        found.languages.add(s.language.trimEnd());
        break;
      case 'script':
        found.scripts.add(s.tag.trimEnd());
        break;
      case 'language':
        found.languages.add(s.tag.trimEnd());
        break;
      case 'glyphClass':
        found.classes.set(s.name, count(s.set, found.classes));
        break;
      case 'sub':
        if (feature && s.choice) add(found.forms, feature, count(s.choice, found.classes));
    }
}

/** So many glyphs a set has at most, as far as its text tells. */
function count(set: GlyphSet, classes: ReadonlyMap<string, number>): number {
  if (set.kind === 'list') return set.items.reduce((sum, s) => sum + count(s, classes), 0);
  if (set.kind === 'range' && set.first.kind === 'glyph' && set.last.kind === 'glyph')
    return rangeCount(set.first.name, set.last.name);
  // Without spaces a range reads as one name.
  if (set.kind === 'glyph') {
    const stops = [...set.name.matchAll(/-/g)].map((m) => m.index);
    return Math.max(1, ...stops.map((i) => rangeCount(set.name.slice(0, i), set.name.slice(i + 1))));
  }
  return set.kind === 'class' ? (classes.get(set.name) ?? 1) : 1;
}

function rangeCount(first: string, last: string): number {
  const names = namesOfRange(first, last);
  return typeof names === 'string' ? 1 : names.length;
}

/** Tables do not change; what they hold is read once. */
const tables = new WeakMap<Uint8Array, { features: string[]; scripts: string[]; languages: string[] }>();

function fromTable(bytes: Uint8Array, tag: string, extension: number, found: Found): void {
  let held = tables.get(bytes);
  if (!held) {
    const read = attempt(() => readLayout(bytes, tag, extension));
    const { features, scripts } = read.ok ? read.value : { features: [], scripts: [] };
    held = {
      features: features.map((f) => f.tag.trimEnd()),
      scripts: scripts.map((s) => s.tag.trimEnd()),
      languages: scripts.flatMap((s) => s.languages.map((l) => l.tag.trimEnd())),
    };
    tables.set(bytes, held);
  }
  for (const f of held.features) add(found.forms, f, 1);
  for (const s of held.scripts) found.scripts.add(s);
  for (const l of held.languages) found.languages.add(l);
}
