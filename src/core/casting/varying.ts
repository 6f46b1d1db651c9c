import { type Refusal, refuse, refused } from '../base/result';
import { DeltaStore, type RegionDelta } from '../opentype/itemStore';
import type { Device } from '../opentype/layout/values';
import type { AxisRegion } from '../opentype/variations';
import type { Drawing, Glyph, GlyphId, Master, Project } from '../project/model';
import { type DrawingSource, drawingsOf } from '../project/outline';
import { type Place, samePlace, wholePlace } from '../project/places';
import { drawingOf } from '../project/queries';
import { sameStructure } from '../project/structure';
import {
  type Location,
  normalised,
  type Region,
  scalarAt,
  type VariationModel,
  variationModel,
} from '../project/variationModel';
import { waypointId } from '../project/waypoints';

/** One drawing of a glyph that has a say between the masters, with what its components are there, and where that is in design units. */
export type Say = { drawing: Drawing; source: DrawingSource; place: Place };

/** Differences of numbers over the axes, by one model. */
export class Differences {
  private readonly regions: readonly AxisRegion[];
  /** How much each earlier region applies where a later one peaks. */
  private readonly shares: readonly (readonly number[])[];

  constructor(
    private readonly model: VariationModel,
    tags: readonly string[],
  ) {
    this.regions = model.regions.map((r: Region) => tags.map((t) => r[t] ?? ([0, 0, 0] as const)));
    this.shares = model.locations.map((at, i) => model.regions.slice(0, i).map((r) => scalarAt(r, at)));
  }

  /**
   * What a number is at the default, and what it differs by in each region, in whole units, from its values in all masters. Each
   * difference is what the ones before it leave, so that every master is met within half a unit.
   */
  of(values: readonly number[]): { base: number; deltas: RegionDelta[] } {
    const found: number[] = [];
    this.model.order.forEach((index, rank) => {
      let left = values[index]!;
      for (let j = 0; j < rank; j++) left -= found[j]! * this.shares[rank]![j]!;
      found.push(Math.round(left) || 0);
    });
    return {
      base: found[0]!,
      deltas: found.slice(1).map((delta, i) => ({ region: this.regions[i + 1]!, delta })),
    };
  }

  /** As {@link of} for each number of rows, one row for each master. */
  ofRows(values: readonly (readonly number[])[]): RowDeltas {
    const found: number[][] = [];
    this.model.order.forEach((index, rank) => {
      const own = values[index]!;
      const shares = this.shares[rank]!;
      const row = new Array<number>(own.length);
      for (let i = 0; i < row.length; i++) {
        let left = own[i]!;
        for (let j = 0; j < rank; j++) left -= found[j]![i]! * shares[j]!;
        row[i] = Math.round(left) || 0;
      }
      found.push(row);
    });
    return { regions: this.regions.slice(1), rows: found.slice(1) };
  }
}

/** Differences of many numbers by region, a row each. */
export type RowDeltas = { regions: readonly AxisRegion[]; rows: readonly (readonly number[])[] };

/** How a font varies: its axes, its masters, and what layout’s numbers vary by. */
export class Varying {
  readonly axes: Project['axes'];
  readonly masters: readonly Master[];
  private readonly sources: readonly DrawingSource[];
  /** Drawings at places of waypoints, by those. */
  private readonly between = new Map<string, DrawingSource>();
  private readonly ofMasters: Differences;
  private readonly ownModels = new Map<string, Differences>();
  /** Glyphs that could not be made alike in all masters: they stand as the default has them. */
  readonly frozen = new Set<GlyphId>();
  private readonly said = new Map<Glyph, { says: readonly Say[]; frozen: boolean }>();
  private store: DeltaStore;
  private found: ReturnType<DeltaStore['finished']> | undefined;

  /** `project` is one design: its axes run through. Refuses (throws) where no master stands at the default. */
  constructor(private readonly project: Project) {
    this.axes = project.axes;
    this.masters = project.masters;
    if (!this.masters.some((m) => samePlace(this.axes, m.place, {})))
      refuse('No master stands where all axes have their defaults, so nothing can be varied from there.');
    this.sources = this.masters.map((m) => drawingsOf(project, m.id));
    this.ofMasters = this.differences(this.masters.map((m) => m.place));
    this.store = new DeltaStore(this.axes.length);
  }

  private differences(places: readonly Place[]): Differences {
    const locations: Location[] = places.map((p) => normalised(this.axes, p));
    return new Differences(
      variationModel(locations),
      this.axes.map((a) => a.tag),
    );
  }

  /** What a number of the whole font differs by, from its values in the masters. */
  of(values: readonly number[]): { base: number; deltas: RegionDelta[] } {
    return this.ofMasters.of(values);
  }

  /** The drawings of a glyph that have a say, masters first; one alone where they do not agree. */
  says(glyph: Glyph): readonly Say[] {
    const known = this.said.get(glyph);
    if (known && known.frozen === this.frozen.has(glyph.id)) return known.says;
    const says = this.saysOf(glyph);
    this.said.set(glyph, { says, frozen: this.frozen.has(glyph.id) });
    return says;
  }

  private saysOf(glyph: Glyph): readonly Say[] {
    const own = this.masters.map((m, i) => ({
      drawing: drawingOf(glyph, m.id),
      source: this.sources[i]!,
      place: m.place,
    }));
    const waypoints = glyph.waypoints.map(({ drawing, place }) => ({ drawing, source: this.sourceAt(place), place }));
    const all = [...own, ...waypoints];
    if (this.frozen.has(glyph.id)) return [this.main(own)];
    return sameStructure(all.map((s) => s.drawing)) ? all : [this.main(own)];
  }

  /**
   * The drawings that have a say where a glyph is drawn out: waypoints of its components have one too, since what is drawn out does not
   * follow them by itself.
   */
  saysDrawnOut(glyph: Glyph): readonly Say[] {
    const own = this.says(glyph);
    if (own.length === 1) return own;
    const found = new Map(own.map((s) => [waypointId(wholePlace(this.axes, s.place)), s] as const));
    for (const place of this.placesOfParts(glyph)) {
      const id = waypointId(wholePlace(this.axes, place));
      const source = this.sourceAt(place);
      const drawing = source(glyph.id);
      if (drawing && !found.has(id)) found.set(id, { drawing, source, place });
    }
    return [...found.values()];
  }

  private placesOfParts(glyph: Glyph, seen = new Set<GlyphId>([glyph.id])): Place[] {
    const parts = this.masters.flatMap((m) => drawingOf(glyph, m.id).components.map((c) => c.glyph));
    return [...new Set(parts)].flatMap((id) => {
      const part = this.project.glyphs[id];
      if (!part || seen.has(id)) return [];
      seen.add(id);
      return [...part.waypoints.map((w) => w.place), ...this.placesOfParts(part, seen)];
    });
  }

  private sourceAt(place: Place): DrawingSource {
    const id = waypointId(place);
    const source = this.between.get(id) ?? drawingsOf(this.project, id);
    this.between.set(id, source);
    return source;
  }

  private main<T>(list: readonly T[]): T {
    return list[this.masters.findIndex((m) => samePlace(this.axes, m.place, {}))]!;
  }

  /** What a number of a glyph differs by, from what it is in each of the drawings that have a say. */
  ofSays(says: readonly Say[], numberIn: (say: Say, index: number) => number): { base: number; deltas: RegionDelta[] } {
    const values = says.map(numberIn);
    return values.length === 1 ? { base: Math.round(values[0]!), deltas: [] } : this.modelOf(says).of(values);
  }

  /** What many numbers of a glyph differ by, from what they are in each of the drawings that have a say: two at least. */
  rowsOfSays(says: readonly Say[], values: readonly (readonly number[])[]): RowDeltas {
    return this.modelOf(says).ofRows(values);
  }

  private modelOf(says: readonly Say[]): Differences {
    if (says.length === this.masters.length) return this.ofMasters;
    const places = says.map((s) => s.place);
    const key = JSON.stringify(places);
    const model = this.ownModels.get(key) ?? this.differences(places);
    this.ownModels.set(key, model);
    return model;
  }

  /** The place of an anchor, with what it varies by; still where not all drawings have it. */
  anchor(glyph: Glyph, name: string): { x: number; y: number; xDevice?: Device; yDevice?: Device } | undefined {
    const says = this.says(glyph);
    const all = says.map(({ drawing }) => drawing.anchors.find((a) => a.name === name));
    if (all.some((a) => a === undefined)) return undefined;
    const [x, y] = (['x', 'y'] as const).map((key) => this.ofSays(says, (_, i) => all[i]![key]));
    const [xDevice, yDevice] = [this.device(x!.deltas), this.device(y!.deltas)];
    return { x: x!.base, y: y!.base, ...(xDevice && { xDevice }), ...(yDevice && { yDevice }) };
  }

  /** Where differences lie in the store that layout has; nothing where nothing differs. Before {@link settle} they are only noted. */
  device(deltas: readonly RegionDelta[]): Device | undefined {
    const key = this.store.add(deltas);
    if (key === undefined) return undefined;
    return { kind: 'variation', ...(this.found ? this.found.at(key) : { outer: 0, inner: 0 }) };
  }

  /** What a number differs by that is given at places of its own, one of them the default, in design units. */
  deviceOf(values: readonly { place: Place; value: number }[]): Device | undefined {
    const { deltas } = this.differences(values.map((v) => v.place)).of(values.map((v) => v.value));
    return this.device(deltas);
  }

  /** Lays the store out: from here on every difference that was noted has its place. */
  settle(): void {
    if (!this.store.isEmpty) this.found = this.store.finished();
  }

  /** The store of layout’s differences as bytes, where there are any. */
  get storeBytes(): Uint8Array | undefined {
    return this.found?.bytes;
  }
}

/** Leaves a glyph as the default has it, and says so. */
export function freeze(plan: { notes: Refusal[] }, varies: Varying, { glyph }: { glyph: Glyph }): void {
  varies.frozen.add(glyph.id);
  plan.notes.push(
    refused(
      `${glyph.name} keeps the default’s drawing: its curves come to other points in other masters.`,
      { glyph: glyph.name },
      'attention',
    ),
  );
}
