import { featureParams } from '../opentype/layout/featureParams';
import { FeatureFault } from './cursor';
import type { NameText, Span, Statement } from './tree';

/** A name that a feature brings, with its number in the name table. */
export type NameOut = { id: number; platform: number; encoding: number; language: number; text: string };

type Named = Extract<Statement, { kind: 'parameters' | 'names' | 'cvParameters' | 'characters' }>;
type Variant = {
  label?: number;
  tooltip?: number;
  sample?: number;
  parameters: number[];
  codes: number[];
};

/** Names and parameters of features: stylistic sets, character variants, optical size; each set of names gets a number. */
export class FeatureNames {
  readonly names: NameOut[] = [];
  private next: number;
  private readonly sets = new Map<string, number>();
  private readonly variants = new Map<string, Variant>();
  private size: { values: readonly number[]; menu?: number } | undefined;

  constructor(first: number) {
    this.next = first;
  }

  get hasSize(): boolean {
    return this.size !== undefined;
  }

  /** The number that names get in the name table. */
  numbered(names: readonly NameText[]): number {
    const id = this.next++;
    for (const { platform, encoding, language, text } of names)
      this.names.push({ id, platform, encoding, language, text });
    return id;
  }

  add(feature: string | undefined, s: Named): void {
    if (s.kind === 'parameters') {
      if (feature !== 'size') throw new FeatureFault('“parameters” stands in the feature size.', s);
      if (s.values.length !== 2 && s.values.length !== 4)
        throw new FeatureFault('“parameters” has a design size, a subfamily and the range of sizes.', s);
      this.size = { ...this.size, values: s.values };
    } else if (s.kind === 'names' && s.of === 'sizemenuname') {
      if (feature !== 'size') throw new FeatureFault('“sizemenuname” stands in the feature size.', s);
      const menu = this.size?.menu ?? this.next++;
      for (const { platform, encoding, language, text } of s.names)
        this.names.push({ id: menu, platform, encoding, language, text });
      this.size = { values: this.size?.values ?? [], menu };
    } else if (s.kind === 'names' && s.of === 'featureNames') {
      if (!feature || !/^ss(0[1-9]|1\d|20)$/.test(feature))
        throw new FeatureFault('“featureNames” names a stylistic set, ss01 to ss20.', s);
      this.sets.set(feature, this.numbered(s.names));
    } else if (s.kind === 'cvParameters') {
      if (!feature || !/^cv(0[1-9]|[1-9]\d)$/.test(feature))
        throw new FeatureFault('“cvParameters” names a character variant, cv01 to cv99.', s);
      this.variants.set(feature, this.variant(s.body));
    } else throw new FeatureFault('These names stand in cvParameters.', s);
  }

  private variant(body: readonly Statement[]): Variant {
    const out: Variant = { parameters: [], codes: [] };
    for (const s of body) {
      if (s.kind === 'characters') out.codes.push(...s.codes);
      else if (s.kind === 'names') {
        const id = this.numbered(s.names);
        if (s.of === 'FeatUILabelNameID') out.label = id;
        else if (s.of === 'FeatUITooltipTextNameID') out.tooltip = id;
        else if (s.of === 'SampleTextNameID') out.sample = id;
        else if (s.of === 'ParamUILabelNameID') out.parameters.push(id);
        else throw new FeatureFault(`“${s.of}” has no place in cvParameters.`, s);
      } else throw new FeatureFault('This has no place in cvParameters.', s);
    }
    return out;
  }

  /** Parameter tables by feature (OpenType, “Feature Parameters”). */
  finished(tell: (reason: string, at: Span) => void): Map<string, Uint8Array> {
    const out = new Map<string, Uint8Array>();
    for (const [tag, name] of this.sets) out.set(tag, featureParams.write({ of: 'set', name }));
    for (const [tag, v] of this.variants)
      out.set(
        tag,
        featureParams.write({
          of: 'variant',
          label: v.label ?? 0,
          tooltip: v.tooltip ?? 0,
          sample: v.sample ?? 0,
          parameters: v.parameters.length,
          firstParameter: v.parameters[0] ?? 0,
          characters: v.codes,
        }),
      );
    if (this.size) {
      const [design = 0, subfamily = 0, start = 0, end = 0] = this.size.values;
      if (this.size.values.length === 0) tell('The feature size has no parameters.', { from: 0, to: 0 });
      // Readers of fonts leave out all positions where these fields do not agree (OpenType, “size”).
      const isOfSeries = subfamily !== 0 && start < end && start <= design && design <= end;
      if (!isOfSeries && (this.size.menu !== undefined || subfamily !== 0))
        tell(
          'The feature size: a menu name stands with the number of a subfamily, and with a range of sizes that has the design size in it; it is left out.',
          { from: 0, to: 0 },
        );
      out.set(
        'size',
        featureParams.write({
          of: 'size',
          design: Math.round(design),
          subfamily: isOfSeries ? subfamily : 0,
          menu: isOfSeries ? (this.size.menu ?? 0) : 0,
          start: isOfSeries ? Math.round(start) : 0,
          end: isOfSeries ? Math.round(end) : 0,
        }),
      );
    }
    return out;
  }
}
