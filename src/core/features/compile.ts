import type { FeatureVariation, Lookup } from '../opentype/layout/lists';
import type { Device } from '../opentype/layout/values';
import { Alternates } from './alternates';
import { type AxisRange, holdsAt, rangesOf } from './conditions';
import { FeatureFault } from './cursor';
import { FeatureNames, type NameOut } from './featureNames';
import { GlyphIndex } from './glyphIndex';
import { fresh, isManifold, mixed } from './joining';
import { builtLookup, type DraftLookup, type Flag, type Rules, sameFlag } from './lookups';
import { type Answering, Asked, NameTable } from './nameTable';
import { type FontPlace, placedValues, valueAtPlace } from './placeValues';
import { remember, remembered } from './remembered';
import { type DeviceOfValues, Names, type ValueAt } from './resolve';
import {
  addAttachment,
  addCursive,
  addIgnore,
  addPartsAttachment,
  addPosition,
  addSubstitution,
  emptyPairs,
  type RuleBench,
} from './rules';
import { featureKey, type System, type Systems, systemKey, systemsOf } from './systems';
import { type Definitions, definitionsOf, type KnownMarks } from './tables';
import type { Fault, Span, Statement, Tree } from './tree';

/** One text of rules, as it stands in the project: its faults are told by its place in the list. */
export type Source = { tree: Tree; include?: (path: string) => Included | undefined };
/** A file that text includes, and how it includes others. */
export type Included = Source & { text: string };

/** A lookup in the font, and where it comes from. */
export type CompiledLookup = Lookup<Uint8Array> & { name?: string; feature?: string; source: number; from: Span };
export type CompiledTable = Systems & {
  lookups: CompiledLookup[];
  /** Lookups that take the place of others somewhere on the axes. */
  variations?: readonly FeatureVariation[];
  /** What the text adds to features somewhere on the axes, in its order: the first that holds at a place counts. */
  varied?: readonly VariedFeatures[];
};
/** Lookups that features have besides their own within these ranges, in design units; outside they have none of them. */
export type VariedFeatures = {
  ranges: readonly AxisRange[];
  features: readonly { tag: string; lookups: readonly number[] }[];
};

/** What rules come to, before tables are joined with those that the project makes by itself. */
export type Compiled = {
  GSUB: CompiledTable;
  GPOS: CompiledTable;
  definitions: Definitions;
  names: readonly NameOut[];
  faults: readonly (Fault & { source: number })[];
  /** Tags of features that the text has. */
  tags: ReadonlySet<string>;
  /** Lookups as they were read, for questions about them. */
  drafts: readonly DraftLookup[];
};

export type CompileOptions = {
  /** Glyph names in the order of the font. */
  glyphs: readonly string[];
  /** Glyphs that are not in the font since they are not drawn yet. */
  waiting?: ReadonlySet<string>;
  /** Glyphs that are left out of the font on purpose: nothing is said of rules that name them. */
  away?: ReadonlySet<string>;
  /** Systems of scripts and languages where the text names none; `DFLT dflt` by the specification. */
  systems?: readonly (readonly [script: string, language: string])[];
  /** Where the font stands, for numbers that vary. */
  place?: FontPlace;
  /** What numbers vary by, from their values at places in design units: for a font that varies. */
  vary?: (values: readonly { place: Readonly<Record<string, number>>; value: number }[]) => Device | undefined;
  /** Classes and sets of marks that are numbered already. */
  knownMarks?: KnownMarks;
  /** The first number of names that features bring. */
  firstName?: number;
};

/** Includes in includes beyond this are refused. */
const DEEPEST_INCLUDE = 10;
/** Faults beyond this are not told one by one. */
const MOST_FAULTS = 300;

/** Compiles feature text, several sources in their order as one. Goes on after a fault; see {@link Compiled}. */
export function compileFeatures(sources: readonly Source[], options: CompileOptions): Compiled {
  const compiler = new Compiler(options);
  for (const [i, source] of sources.entries()) compiler.source(source, i);
  return compiler.finished();
}

/** A lookup, and those that its rules with a context call. */
function withCalled(lookup: DraftLookup): DraftLookup[] {
  const called = lookup.parts.flatMap((p) =>
    p.kind === 'context' ? p.rules.flatMap((r) => r.calls.map((c) => c.lookup)) : [],
  );
  return [lookup, ...new Set(called)];
}

const VERTICAL = new Set(['valt', 'vhal', 'vkrn', 'vpal', 'vrt2', 'vert']);

/** A thing that a text comes to, done to a compiler. */
export type Deed = (compiler: Compiler) => void;

class Compiler implements RuleBench {
  readonly names: Names;
  private readonly faults: (Fault & { source: number })[] = [];
  private now = 0;
  private readonly lookups: DraftLookup[] = [];
  private readonly read = new Set<Tree>();
  /** Where what a text comes to is noted while it is read. */
  private deeds: Deed[] | undefined;
  private readonly byName: NameTable<DraftLookup>;
  private systems: System[] = [];
  /** Lookups by script, language and feature. */
  private readonly features = new Map<string, DraftLookup[]>();
  private readonly required = new Map<string, string>();
  private readonly tags = new Set<string>();
  /** What the text adds to features somewhere on the axes, by the name of its conditions. */
  private readonly varied = new Map<
    string,
    { ranges: readonly AxisRange[] | 'nowhere'; features: Map<string, DraftLookup[]> }
  >();
  private readonly conditionSets: NameTable<readonly AxisRange[] | 'nowhere'>;
  private readonly aalt = new Alternates();
  private readonly labels: FeatureNames;
  private readonly definitions: Definitions;
  // Where in a block the reading stands.
  private feature: string | undefined;
  private block: string | undefined;
  /** Lookups of the variation that is being read. */
  private variation: DraftLookup[] | undefined;
  private script = 'DFLT';
  private here: System[] = [];
  private flag: Flag = { flags: 0 };
  private current: DraftLookup | undefined;
  private breakNext = false;
  /** Was it told that of values that vary the first is taken? */
  private saidFirst = false;
  /** The file that is being read at a line that includes it, and that line. */
  private within: { path: string; text: string; at: Span } | undefined;

  constructor(private readonly options: CompileOptions) {
    const index = new GlyphIndex(options.glyphs, options.waiting, options.away);
    const { place } = options;
    const valueAt: ValueAt = (values, at) => {
      if (place && place.axes.length > 0) return valueAtPlace(values, place, at);
      if (!this.saidFirst)
        this.tell('The font has no axes: of values that vary with the place the first is taken.', at, 'attention');
      this.saidFirst = true;
      return values[0]?.value ?? 0;
    };
    const { vary } = options;
    const deviceOfValues: DeviceOfValues = (values, at) =>
      vary && place && place.axes.length > 0 ? vary(placedValues(values, place, at)) : undefined;
    this.names = new Names(index, { valueAt, deviceOfValues }, (name, at) => this.done((c) => c.lacks(name, at)));
    this.byName = new NameTable('lookup', this.names.listener);
    this.conditionSets = new NameTable('conditions', this.names.listener, (ranges) => JSON.stringify(ranges));
    this.labels = new FeatureNames(options.firstName ?? 256);
    this.definitions = definitionsOf(options.knownMarks, (names) => this.labels.numbered(names));
  }

  /**
   * Does something that a text comes to, and notes it, so that the text need not be read again while it means the same
   * (see {@link Remembered}). What is done within is done again with it.
   */
  private done(deed: Deed): void {
    this.deeds?.push(deed);
    const noting = this.deeds;
    const asked = this.names.listener.asked;
    this.deeds = undefined;
    this.names.listener.asked = undefined;
    this.tryTo(() => deed(this));
    this.deeds = noting;
    this.names.listener.asked = asked;
  }

  private tryTo(what: () => void): void {
    try {
      what();
    } catch (error) {
      if (!(error instanceof FeatureFault)) throw error;
      this.tell(error.reason, error.at);
    }
  }

  tell(reason: string, at: Span, severity: Fault['severity'] = 'error'): void {
    this.done((c) => c.telling(reason, at, severity));
  }

  private lacks(name: string, at: Span): void {
    const said = this.names.lacking(name, at);
    if (said) this.telling(said[0], at, said[1]);
  }

  private telling(reason: string, at: Span, severity: Fault['severity']): void {
    if (this.faults.length >= MOST_FAULTS) return;
    const { from, to } = this.placed(at);
    const { path, text } = this.within ?? {};
    const said =
      text === undefined ? reason : `In ${path}, line ${text.slice(0, at.from).split('\n').length}: ${reason}`;
    this.faults.push({ reason: said, from, to, severity, source: this.now });
  }

  /** A place in the text of the section: of what stands in an included file, the line that includes it. */
  private placed(at: Span): Span {
    return this.within?.at ?? at;
  }

  get isVertical(): boolean {
    return this.feature !== undefined && VERTICAL.has(this.feature);
  }

  source({ tree, include }: Source, number: number): void {
    this.now = number;
    // The same text twice has lookups twice.
    const isFirst = !this.read.has(tree);
    this.read.add(tree);
    const known = isFirst ? remembered(tree, this.options, this.answering) : undefined;
    if (known) {
      for (const deed of known) this.tryTo(() => deed(this));
      return;
    }
    const asked = new Asked();
    const deeds: Deed[] = [];
    this.names.listener.asked = asked;
    this.deeds = deeds;
    for (const f of tree.faults) this.tell(f.reason, f, f.severity);
    this.statements(tree.statements, include, 0);
    this.names.listener.asked = undefined;
    this.deeds = undefined;
    if (isFirst) remember(tree, this.options, asked, deeds);
  }

  /** Classes of attachment so far: their numbers are given in the order in which they are met. */
  private readonly attachments: Answering = {
    what: 'attachments',
    stamp: () => JSON.stringify(this.definitions.attachmentClasses),
  };

  private get answering(): Answering[] {
    const { classes, anchors, values, markClasses } = this.names;
    return [classes, anchors, values, markClasses, this.byName, this.conditionSets, this.attachments];
  }

  private statements(list: readonly Statement[], include: Source['include'], depth: number): void {
    for (const s of list) this.tryTo(() => this.statement(s, include, depth));
  }

  private statement(s: Statement, include: Source['include'], depth: number): void {
    switch (s.kind) {
      case 'empty':
      case 'anon':
        return;
      case 'conditionset':
        this.conditions(s);
        return;
      case 'variation':
        this.variationBlock(s, include, depth);
        return;
      case 'include': {
        this.names.listener.asked?.spoil();
        if (depth >= DEEPEST_INCLUDE) throw new FeatureFault('Files include one another too deep, or in a circle.', s);
        const file = include?.(s.path);
        if (!file) throw new FeatureFault(`The file ${s.path} is not there to be included.`, s);
        const outside = this.within;
        this.within = { path: s.path, text: file.text, at: this.placed(s) };
        for (const f of file.tree.faults) this.tell(f.reason, f, f.severity);
        this.statements(file.tree.statements, file.include, depth + 1);
        this.within = outside;
        return;
      }
      case 'languagesystem':
        if (this.feature || this.block) throw new FeatureFault('“languagesystem” stands before all features.', s);
        this.done((c) => c.declare([s.script, s.language]));
        return;
      case 'glyphClass':
        if (this.names.classes.has(s.name))
          this.tell(`@${s.name} is defined a second time; this holds from here on.`, s, 'attention');
        this.giveName((c) => c.names.classes, s.name, this.names.glyphs(s.set));
        return;
      case 'markClass':
        // What a class has already may come from elsewhere.
        this.names.markClasses.get(s.name);
        this.names.listener.asked?.given(this.names.markClasses, s.name);
        this.done((c) => c.markClass(s));
        return;
      case 'anchorDef':
        this.giveName((c) => c.names.anchors, s.name, s.anchor);
        return;
      case 'valueRecordDef':
        this.giveName((c) => c.names.values, s.name, s.value);
        return;
      case 'feature':
        this.featureBlock(s, include, depth);
        return;
      case 'lookup':
        this.lookupBlock(s, include, depth);
        return;
      case 'lookupRef':
        this.lookupReference(s);
        return;
      case 'featureRef':
        if (this.feature !== 'aalt') throw new FeatureFault('Only aalt names other features.', s);
        this.done((c) => c.aalt.features.add(s.tag));
        return;
      case 'script':
        this.inFeature(s, 'script');
        this.flag = { flags: 0 };
        this.current = undefined;
        this.done((c) => {
          c.script = s.tag;
          c.language('dflt', true, false);
        });
        return;
      case 'language':
        this.inFeature(s, 'language');
        this.current = undefined;
        this.done((c) => c.language(s.tag, s.withDefault, s.required));
        return;
      case 'lookupflag': {
        const attachment = s.attachment && this.names.glyphs(s.attachment);
        const filter = s.filter && this.names.glyphs(s.filter);
        if (attachment) {
          this.names.listener.asked?.note(this.attachments, '');
          this.done((c) => c.definitions.attachmentClass(attachment));
          this.checkAttachment(attachment, s);
        }
        this.flag = { flags: s.flags, ...(attachment && { attachment }), ...(filter && { filter }) };
        return;
      }
      case 'subtable':
        if (!this.current) throw new FeatureFault('There is no lookup here whose subtable could end.', s);
        this.breakNext = true;
        return;
      case 'sub':
        if (this.feature === 'aalt') {
          this.done((c) => c.aalt.add(s, c.names));
          return;
        }
        addSubstitution(this, s);
        return;
      case 'pos':
        addPosition(this, s);
        return;
      case 'ignore':
        addIgnore(this, s);
        return;
      case 'cursive':
        addCursive(this, s);
        return;
      case 'attach':
        addAttachment(this, s);
        return;
      case 'attachParts':
        addPartsAttachment(this, s);
        return;
      case 'parameters':
      case 'names':
      case 'cvParameters':
      case 'characters':
        this.done((c) => c.labels.add(c.feature, s));
        return;
      case 'table':
        this.done((c) => c.definitions.add(s, c.names, (...said) => c.tell(...said)));
    }
  }

  /** A mark can be in one class of attachment only: there is one number for each glyph. */
  private checkAttachment(set: readonly number[], at: Span): void {
    const number = this.definitions.attachmentClass(set);
    this.definitions.attachmentClasses.forEach((other, i) => {
      const shared = i + 1 !== number && other.find((g) => set.includes(g));
      if (shared !== false && shared !== undefined)
        throw new FeatureFault(
          `${this.options.glyphs[shared]} is in another MarkAttachmentType already; a mark can be in one.`,
          at,
        );
    });
  }

  private giveName<T>(table: (c: Compiler) => NameTable<T>, name: string, value: T): void {
    this.names.listener.asked?.given(table(this), name);
    this.done((c) => table(c).set(name, value));
  }

  private inFeature(s: Statement, what: string): void {
    if (!this.feature) throw new FeatureFault(`“${what}” stands in a feature.`, s);
    if (this.feature === 'aalt' || this.feature === 'size')
      throw new FeatureFault(`The feature ${this.feature} has no scripts or languages of its own.`, s);
    if (this.block) throw new FeatureFault(`“${what}” stands outside of lookups.`, s);
  }

  private markClass(s: Extract<Statement, { kind: 'markClass' }>): void {
    if (this.names.classes.has(s.name)) throw new FeatureFault(`@${s.name} is a class of glyphs already.`, s);
    const anchor = this.names.anchor(s.anchor) ?? { x: 0, y: 0 };
    const own = this.names.markClasses.get(s.name) ?? new Map();
    this.names.markClasses.set(s.name, own);
    for (const g of this.names.glyphs(s.set)) {
      if (own.has(g)) this.tell(`A mark is in @${s.name} twice; its first anchor holds.`, s, 'attention');
      else own.set(g, anchor);
    }
  }

  private declare(system: System): void {
    if (!this.systems.some((s) => s[0] === system[0] && s[1] === system[1])) this.systems.push(system);
  }

  private usualSystems(): System[] {
    if (this.systems.length > 0) return this.systems;
    return [...(this.options.systems ?? [['DFLT', 'dflt']])];
  }

  private featureBlock(s: Extract<Statement, { kind: 'feature' }>, include: Source['include'], depth: number): void {
    this.done((c) => c.begin(s.tag.trimEnd()));
    this.flag = { flags: 0 };
    this.current = undefined;
    this.statements(s.body, include, depth);
    this.done((c) => {
      c.feature = undefined;
    });
    this.current = undefined;
    this.flag = { flags: 0 };
  }

  /** Names where on the axes something holds. */
  private conditions(s: Extract<Statement, { kind: 'conditionset' }>): void {
    if (this.feature || this.block) throw new FeatureFault('“conditionset” stands outside of features.', s);
    if (this.conditionSets.has(s.name)) throw new FeatureFault(`There are conditions ${s.name} already.`, s);
    this.names.listener.asked?.given(this.conditionSets, s.name);
    this.done((c) => c.nameConditions(s));
  }

  private nameConditions(s: Extract<Statement, { kind: 'conditionset' }>): void {
    const axes = this.options.place?.axes ?? [];
    if (axes.length === 0) this.tell('The font has no axes: rules under conditions hold nowhere.', s, 'attention');
    this.conditionSets.set(s.name, 'nowhere');
    if (axes.length > 0) this.conditionSets.set(s.name, rangesOf(s, axes));
  }

  /** Rules that a feature has where conditions hold. */
  private variationBlock(
    s: Extract<Statement, { kind: 'variation' }>,
    include: Source['include'],
    depth: number,
  ): void {
    if (this.feature || this.block) throw new FeatureFault('A variation stands outside of features.', s);
    const holds = s.condition === 'NULL' || this.conditionSets.has(s.condition);
    if (!holds) throw new FeatureFault(`The conditions ${s.condition} are not defined before this place.`, s);
    const system = s.body.find((b) => b.kind === 'script' || b.kind === 'language');
    if (system)
      this.tell('What a variation says of scripts and languages is left out: it holds in all.', system, 'attention');
    const tag = s.tag.trimEnd();
    this.done((c) => c.beginVariation(tag, s.condition));
    this.flag = { flags: 0 };
    this.current = undefined;
    this.statements(
      s.body.filter((b) => b.kind !== 'script' && b.kind !== 'language'),
      include,
      depth,
    );
    this.done((c) => {
      c.feature = undefined;
      c.variation = undefined;
    });
    this.current = undefined;
    this.flag = { flags: 0 };
  }

  private beginVariation(tag: string, name: string): void {
    this.feature = tag;
    const ranges = name === 'NULL' ? [] : (this.conditionSets.get(name) ?? 'nowhere');
    const own = this.varied.get(name) ?? { ranges, features: new Map<string, DraftLookup[]>() };
    this.varied.set(name, own);
    this.variation = own.features.get(tag) ?? [];
    own.features.set(tag, this.variation);
  }

  /** Where a font stands at one place, features have what holds there. */
  private settleVariations(): void {
    const { place, vary } = this.options;
    if (!place || vary) return;
    const here = [...this.varied.values()].find(({ ranges }) => ranges !== 'nowhere' && holdsAt(ranges, place));
    for (const [tag, lookups] of here?.features ?? [])
      for (const [script, language] of this.systemsWith(tag)) {
        const k = featureKey(script, language, tag);
        this.features.set(k, [...(this.features.get(k) ?? []), ...lookups]);
      }
  }

  /** Every system that a feature is in, and those that features are in where nothing is said. */
  private systemsWith(tag: string): System[] {
    const own = [...this.features.keys()].map((k) => k.split('\n') as [string, string, string]);
    const all = [...own.map(([script, language]): System => [script, language]), ...this.usualSystems()];
    return [...new Map(all.map((s) => [featureKey(...s, tag), s])).values()];
  }

  private begin(feature: string): void {
    this.feature = feature;
    this.tags.add(feature);
    this.script = 'DFLT';
    this.here = this.usualSystems();
  }

  private lookupBlock(s: Extract<Statement, { kind: 'lookup' }>, include: Source['include'], depth: number): void {
    if (this.block) throw new FeatureFault('A lookup cannot stand in a lookup.', s);
    if (this.byName.has(s.name)) throw new FeatureFault(`There is a lookup ${s.name} already.`, s.nameAt);
    if (this.feature === undefined) this.flag = { flags: 0 };
    this.block = s.name;
    this.current = undefined;
    const before = this.lookups.length;
    this.statements(s.body, include, depth);
    this.block = undefined;
    this.current = undefined;
    this.breakNext = false;
    if (this.feature === undefined) this.flag = { flags: 0 };
    const made = this.byName.get(s.name);
    if (made)
      this.done((c) => {
        made.nameAt = { ...c.placed(s.nameAt), source: c.now };
      });
    if (!this.byName.has(s.name) && this.lookups.length === before)
      this.tell(`The lookup ${s.name} has no rules.`, s.nameAt, 'attention');
  }

  private lookupReference(s: Extract<Statement, { kind: 'lookupRef' }>): void {
    const found = this.byName.get(s.name);
    if (!found) throw new FeatureFault(`The lookup ${s.name} is not defined before this place.`, s);
    if (!this.feature) throw new FeatureFault('A lookup is called within a feature.', s);
    this.current = undefined;
    this.done((c) => c.enlist(found));
  }

  /** Puts a lookup into the feature at hand, for all systems that hold here. */
  private enlist(lookup: DraftLookup): void {
    if (!this.feature) return;
    if (this.variation) {
      if (!this.variation.includes(lookup)) this.variation.push(lookup);
      return;
    }
    for (const [script, language] of this.here) {
      const k = featureKey(script, language, this.feature);
      const list = this.features.get(k) ?? [];
      this.features.set(k, list);
      if (!list.includes(lookup)) list.push(lookup);
    }
  }

  private language(tag: string, withDefault: boolean, required: boolean): void {
    const feature = this.feature!;
    const k = featureKey(this.script, tag, feature);
    const usual = this.features.get(featureKey(this.script, 'dflt', feature)) ?? [];
    if (tag === 'dflt' || withDefault) {
      // What the default has so far holds here too; a script that was not named before begins with nothing.
      if (usual.length > 0) this.features.set(k, [...usual]);
      else if (!this.features.has(k)) this.features.set(k, []);
    } else
      this.features.set(
        k,
        (this.features.get(k) ?? []).filter((l) => !usual.includes(l)),
      );
    this.here = [[this.script, tag]];
    if (required) this.required.set(systemKey(this.script, tag), feature);
  }

  lookupFor(
    table: 'GSUB' | 'GPOS',
    kind: Rules['kind'],
    at: Span,
    fits: (rules: Rules) => boolean = () => true,
  ): DraftLookup {
    if (!this.feature && !this.block) throw new FeatureFault('A rule stands in a feature or in a lookup.', at);
    const c = this.current;
    const last = c?.parts[c.parts.length - 1];
    const takes = c && c.table === table && last?.kind === kind && sameFlag(c.flag, this.flag) && fits(last);
    if (takes) {
      if (this.breakNext) {
        if (last.kind === 'pair') last.parts.push(emptyPairs());
        else c.parts.push(fresh(last));
      }
      this.breakNext = false;
      return c;
    }
    this.breakNext = false;
    const joins = last && (this.block !== undefined || isManifold(last.kind, kind));
    if (c && joins && c.table === table && sameFlag(c.flag, this.flag) && mixed(c, last, kind)) return c;
    if (c && this.block) {
      const why = c.table !== table || last?.kind !== kind ? 'of one kind' : 'with one lookupflag';
      throw new FeatureFault(`A lookup holds rules ${why}; this one differs from those before it.`, at);
    }
    const lookup: DraftLookup = {
      table,
      flag: this.flag,
      parts: [],
      from: at,
      ...(this.block !== undefined && { name: this.block }),
      ...(this.feature !== undefined && { feature: this.feature }),
    };
    lookup.from = this.placed(lookup.from);
    this.done((c) => c.register(lookup));
    this.current = lookup;
    if (this.block !== undefined) this.giveName((c) => c.byName, this.block, lookup);
    this.done((c) => c.enlist(lookup));
    return lookup;
  }

  own(table: 'GSUB' | 'GPOS', at: Span): DraftLookup {
    const lookup: DraftLookup = {
      table,
      flag: this.flag,
      parts: [],
      from: at,
      ...(this.feature !== undefined && { feature: this.feature }),
    };
    lookup.from = this.placed(lookup.from);
    this.done((c) => c.register(lookup));
    return lookup;
  }

  private register(lookup: DraftLookup): void {
    this.lookups.push(lookup);
    lookup.source = this.now;
  }

  named = (name: string): DraftLookup | undefined => this.byName.get(name);

  private buildAalt(): DraftLookup[] {
    if (!this.tags.has('aalt')) return [];
    const made = this.aalt.lookups((tag) =>
      this.lookups.filter((l) => l.feature === tag || this.isIn(l, tag)).flatMap(withCalled),
    );
    for (const [script, language] of this.usualSystems()) {
      const k = featureKey(script, language, 'aalt');
      this.features.set(k, [...made, ...(this.features.get(k) ?? [])]);
    }
    return made;
  }

  private isIn(lookup: DraftLookup, tag: string): boolean {
    for (const [k, list] of this.features) if (k.endsWith(`\n${tag}`) && list.includes(lookup)) return true;
    return false;
  }

  /** Lookups with a name that no feature and no rule calls. */
  private tellUncalled(): void {
    const called = new Set(
      [...this.features.values(), ...[...this.varied.values()].flatMap((v) => [...v.features.values()])].flat(),
    );
    for (const l of this.lookups)
      for (const p of l.parts)
        if (p.kind === 'context') for (const r of p.rules) for (const c of r.calls) called.add(c.lookup);
    for (const [name, lookup] of this.byName.entries()) {
      if (called.has(lookup) || !lookup.nameAt || this.faults.length >= MOST_FAULTS) continue;
      const { source, from, to } = lookup.nameAt;
      this.faults.push({ reason: `Nothing calls the lookup ${name}.`, from, to, severity: 'attention', source });
    }
  }

  private variedIn(table: 'GSUB' | 'GPOS'): VariedFeatures[] {
    return [...this.varied.values()].flatMap(({ ranges, features }) => {
      if (ranges === 'nowhere') return [];
      const own = [...features].flatMap(([tag, lookups]) => {
        const numbers = lookups.filter((l) => l.table === table && l.parts.length > 0).map((l) => l.index!);
        return numbers.length === 0 ? [] : [{ tag: tag.padEnd(4), lookups: numbers.sort((a, b) => a - b) }];
      });
      return own.length === 0 ? [] : [{ ranges, features: own }];
    });
  }

  finished(): Compiled {
    const aalt = this.buildAalt();
    this.tellUncalled();
    this.settleVariations();
    const all = [...aalt, ...this.lookups].filter((l) => l.parts.length > 0);
    const parameters = this.labels.finished((reason, at) => this.tell(reason, at));
    const facts = {
      features: this.features,
      required: this.required,
      parameters,
      sized: this.labels.hasSize ? this.usualSystems() : [],
    };
    const compiled = (table: 'GSUB' | 'GPOS'): CompiledTable => {
      const own = all.filter((l) => l.table === table);
      own.forEach((l, i) => {
        l.index = i;
      });
      const lookups = own.map(
        (l): CompiledLookup => ({
          ...builtLookup(l, this.names.markClasses, this.definitions),
          ...(l.name !== undefined && { name: l.name }),
          ...(l.feature !== undefined && { feature: l.feature }),
          source: l.source ?? 0,
          from: { from: l.from.from, to: l.from.to },
        }),
      );
      const varied = this.options.vary ? this.variedIn(table) : [];
      return { ...systemsOf(table, facts), lookups, ...(varied.length > 0 && { varied }) };
    };
    return {
      GSUB: compiled('GSUB'),
      GPOS: compiled('GPOS'),
      definitions: this.definitions,
      names: this.labels.names,
      faults: this.faults,
      tags: this.tags,
      drafts: this.lookups,
    };
  }
}
