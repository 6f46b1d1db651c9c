import { plural } from '../project/edit';
import { FeatureFault } from './cursor';
import { GlyphIndex } from './glyphIndex';
import { Names } from './resolve';
import type { SectionText } from './sections';
import type { GlyphSet, Pattern, Statement } from './tree';
import { treeOf } from './trees';

/** A rule to be drawn: glyphs before it and after it, what stands around them, by names. */
export type ShownRule = {
  feature: string;
  /** The language that the rule is for, as an OpenType tag; none for all. */
  language?: string;
  back: readonly string[];
  before: readonly string[];
  ahead: readonly string[];
  after: readonly string[];
  /** Nothing is replaced: the context is left alone, or glyphs move. */
  kind: 'replace' | 'choose' | 'alone' | 'move';
};
/** What a section says, counted by kind, its rules to be drawn, the features that it has. */
export type ShownSection = { tags: readonly string[]; words: string; rules: readonly ShownRule[] };

/** Rules of a section that are drawn at most; its words count all. */
export const MOST_SHOWN = 240;

/** What sections say, for showing it; classes of earlier sections hold in later ones. */
export function shownSections(sections: readonly SectionText[], glyphs: readonly string[]): ShownSection[] {
  const names = new Names(new GlyphIndex(glyphs), { valueAt: (values) => values[0]?.value ?? 0 }, () => {});
  const lookups = new Map<string, Told>();
  return sections.map((s) => new Teller(names, glyphs, lookups).tell(treeOf(s.text).statements));
}

type Kind =
  | 'classes'
  | 'systems'
  | 'replaced'
  | 'ligatures'
  | 'split'
  | 'choices'
  | 'contexts'
  | 'moved'
  | 'pairs'
  | 'marks'
  | 'joins'
  | 'sizes'
  | 'tables';

/** What a lookup says, by itself. */
type Told = { rules: ShownRule[]; counts: Map<Kind, number> };

class Teller {
  private rules: ShownRule[] = [];
  private counts = new Map<Kind, number>();
  /** Languages in which lookups were called so far; nothing stands for all. */
  private readonly called = new Map<string, Set<string | undefined>>();
  private readonly tags = new Set<string>();
  private feature = '';
  private language: string | undefined;

  constructor(
    private readonly names: Names,
    private readonly glyphs: readonly string[],
    /** Lookups of this and earlier sections. */
    private readonly lookups: Map<string, Told>,
  ) {}

  tell(statements: readonly Statement[]): ShownSection {
    this.walk(statements);
    return { tags: [...this.tags], words: wordsOf(this.counts), rules: this.rules };
  }

  private count(kind: Kind, n = 1): void {
    this.counts.set(kind, (this.counts.get(kind) ?? 0) + n);
  }

  private walk(list: readonly Statement[]): void {
    for (const s of list) {
      try {
        this.statement(s);
      } catch (error) {
        if (!(error instanceof FeatureFault)) throw error;
      }
    }
  }

  private named(set: GlyphSet): string[] {
    return this.names.glyphs(set).map((g) => this.glyphs[g]!);
  }

  /** One glyph of a set that stands for it. */
  private one = (set: GlyphSet): string[] => this.named(set).slice(0, 1);

  private statement(s: Statement): void {
    switch (s.kind) {
      case 'glyphClass':
        this.names.classes.set(s.name, this.names.glyphs(s.set));
        this.count('classes');
        return;
      case 'languagesystem':
        this.count('systems');
        return;
      case 'markClass': {
        const own = this.names.markClasses.get(s.name) ?? new Map();
        this.names.markClasses.set(s.name, own);
        for (const g of this.names.glyphs(s.set)) own.set(g, { x: 0, y: 0 });
        return;
      }
      case 'feature':
        this.feature = s.tag.trimEnd();
        this.tags.add(this.feature);
        this.walk(s.body);
        this.feature = '';
        this.language = undefined;
        return;
      case 'script':
        this.language = undefined;
        return;
      case 'language':
        this.language = s.tag.trimEnd() === 'dflt' ? undefined : s.tag.trimEnd();
        return;
      case 'lookup':
        this.lookup(s.name, s.body);
        return;
      case 'lookupRef':
        this.call(s.name);
        return;
      case 'sub':
        this.substitution(s);
        return;
      case 'ignore':
        this.count('contexts', s.patterns.length);
        for (const p of s.patterns) this.context(p, [], 'alone');
        return;
      case 'pos':
        if (s.pattern.isContext) {
          this.count('contexts');
          this.context(s.pattern, [], 'move');
        } else if (s.pattern.input.length === 1) this.count('moved', this.named(s.pattern.input[0]!.set).length);
        else this.count('pairs');
        return;
      case 'attach':
      case 'attachParts':
        this.count('marks');
        return;
      case 'cursive':
        this.count('joins');
        return;
      case 'parameters':
        this.count('sizes');
        return;
      case 'table':
        this.count('tables');
    }
  }

  /** A lookup block: what it says is kept by its name, and said here. */
  private lookup(name: string, body: readonly Statement[]): void {
    const outer = { rules: this.rules, counts: this.counts };
    this.rules = [];
    this.counts = new Map();
    this.walk(body);
    this.lookups.set(name, { rules: this.rules, counts: this.counts });
    ({ rules: this.rules, counts: this.counts } = outer);
    this.call(name);
  }

  /** What a lookup says, said where it is called: counted once, shown once in all languages or in each that calls it. */
  private call(name: string): void {
    const told = this.lookups.get(name);
    const languages = this.called.get(name) ?? new Set();
    if (!told || languages.has(undefined) || languages.has(this.language)) return;
    if (languages.size === 0) for (const [kind, n] of told.counts) this.count(kind, n);
    this.called.set(name, languages.add(this.language));
    for (const { language: _, ...rule } of told.rules) this.push(rule);
  }

  private push(rule: Omit<ShownRule, 'feature' | 'language'>): void {
    if (this.rules.length >= MOST_SHOWN) return;
    this.rules.push({ ...rule, feature: this.feature, ...(this.language && { language: this.language }) });
  }

  private context(p: Pattern, after: readonly string[], kind: ShownRule['kind']): void {
    this.push({
      back: p.back.flatMap(this.one),
      before: p.input.flatMap((i) => this.one(i.set)),
      ahead: p.ahead.flatMap(this.one),
      after,
      kind,
    });
  }

  /** What becomes of a context whose letters call lookups, as far as these are known. */
  private byLookups({ input }: Pattern): string[] {
    const names = input.flatMap((i) => this.one(i.set));
    const out: string[] = [];
    for (let i = 0; i < names.length; ) {
      const rules = input[i]?.lookups.flatMap((l) => this.lookups.get(l.name)?.rules ?? []) ?? [];
      const rule = rules.find(
        (r) => r.kind === 'replace' && r.before.length > 0 && r.before.every((n, k) => n === names[i + k]),
      );
      out.push(...(rule?.after ?? [names[i]!]));
      i += rule?.before.length ?? 1;
    }
    return out;
  }

  private substitution({ pattern, by, choice }: Extract<Statement, { kind: 'sub' }>): void {
    if (pattern.isContext) {
      this.count('contexts');
      const to = choice ? this.named(choice) : by ? by.flatMap(this.one) : this.byLookups(pattern);
      this.context(pattern, to, choice ? 'choose' : 'replace');
      return;
    }
    const around = { back: [], ahead: [] };
    const first = this.named(pattern.input[0]!.set);
    if (choice) {
      this.count('choices', first.length);
      for (const g of first) this.push({ ...around, before: [g], after: this.named(choice), kind: 'choose' });
    } else if (pattern.input.length > 1) {
      this.count('ligatures');
      this.push({
        ...around,
        before: pattern.input.flatMap((i) => this.one(i.set)),
        after: by!.flatMap(this.one),
        kind: 'replace',
      });
    } else if (by!.length === 1) {
      const to = this.named(by![0]!);
      this.count('replaced', first.length);
      first.forEach((g, i) => {
        this.push({ ...around, before: [g], after: [to[to.length === 1 ? 0 : i] ?? g], kind: 'replace' });
      });
    } else {
      this.count('split', first.length);
      for (const g of first) this.push({ ...around, before: [g], after: by!.flatMap(this.one), kind: 'replace' });
    }
  }
}

const WORDS: Readonly<Record<Kind, readonly [one: string, many: string]>> = {
  replaced: ['glyph gets another form', 'glyphs get another form'],
  ligatures: ['ligature', 'ligatures'],
  split: ['glyph becomes several', 'glyphs become several'],
  choices: ['glyph has a choice of forms', 'glyphs have a choice of forms'],
  contexts: ['rule with a context', 'rules with a context'],
  moved: ['glyph moves', 'glyphs move'],
  pairs: ['rule of pairs', 'rules of pairs'],
  marks: ['rule of marks', 'rules of marks'],
  joins: ['rule of joining', 'rules of joining'],
  sizes: ['size that the font is drawn for', 'sizes that the font is drawn for'],
  tables: ['table said outright', 'tables said outright'],
  classes: ['class of glyphs', 'classes of glyphs'],
  systems: ['language system', 'language systems'],
};

const wordsOf = (counts: ReadonlyMap<Kind, number>): string =>
  [...counts].map(([kind, n]) => plural(n, ...WORDS[kind])).join(', ') || 'no rule yet';
