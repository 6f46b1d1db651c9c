import { restEvery } from '../base/rest';
import { attempt, isRefused, type Refusal, refused } from '../base/result';
import { EMPTY_HISTORY, type Entry, type History, withEntries } from '../project/history';
import type { Glyph, GlyphId, Parts, Project } from '../project/model';
import { applySteps, type Patch, type Step, stepsOf } from '../project/patch';
import { entrySchema, type JournalRecord, journalSchema, type Meta, metaSchema } from './forms';
import type { KeyValue } from './keyValue';
import { folded, unfolded } from './large';
import { MIGRATIONS, newerVersion, STORED_VERSION, versionOf } from './migrations';
import { packedGlyph, unpackedGlyph } from './pack';
import { inPieces } from './pieces';
import { readGlyphs, readParts } from './reading';
import { lastGood } from './recovery';
import { type Salvaged, salvagedGlyph, salvagedParts } from './salvage';
import {
  BEFORE,
  GLYPHS,
  HISTORY,
  JOURNAL,
  KEPT,
  KERNING,
  META,
  number,
  OLDER_FORMS,
  PARTS,
  PICTURE,
  Shelf,
} from './shelf';

/** What is opened: the project, its newest history, what could not be read, and the text that a worker can read for itself. */
export type Opened = {
  project: Project;
  history: History;
  faults: readonly Refusal[];
  /** Glyphs that could not be read whole; their bytes are kept. */
  damaged: readonly GlyphId[];
  packed: Packed;
};

/** A project as it lies in storage, and the project that this is; later steps lead from there to the present. */
export type Packed = { parts: Parts; segments: readonly string[]; base: Project };

/** One gesture, undo or redo on its way to storage. `entry` is the newest history entry, where there is a new one. */
export type Write = {
  steps: readonly Step[];
  history: Pick<History, 'position' | 'first' | 'last'>;
  entry: Entry | undefined;
  /** The entry takes the place of the one before, so that its patch leads from farther back than the steps. */
  merged?: boolean;
};

/** Glyphs of one segment: few enough to be written anew in a moment, many enough to be read in few pieces. */
const SEGMENT = 128;
/** Steps of the history that are read at once on opening, each way. */
const NEAR = 20;

/** So long, in milliseconds, text is made before the page is let on. */
const SLICE = 15;

/** How often a project is read again that is written while one looks. */
const MOST_LOOKS = 6;

const OPEN_IN_OLDER =
  'Another tab has this project open in an older version of Wendril. Close that tab: then it opens here by itself.';

/**
 * A project as records. What changes a document is written as one small record of the journal, the moment it happens; when
 * the hand rests, {@link checkpoint} writes the records that changed (segments of glyphs, kerning of a master, parts) and
 * lets go of the journal. Opening reads the records and replays what the journal has beyond them; replaying what the
 * records hold already changes nothing. History lies beside, an entry a record, numbered by serial, read when asked for.
 */
export class ProjectRecords {
  private meta: Meta = {
    version: STORED_VERSION,
    segments: 0,
    masters: [],
    pictures: [],
    checkpoint: 0,
    first: 1,
    position: 0,
    last: 0,
  };
  private journalled = 0;
  private readonly segmentOf = new Map<GlyphId, number>();
  private readonly segments: Set<GlyphId>[] = [];
  private dirty = new Set<string>();
  private pending = new Map<number, Entry>();
  private abandoned = new Set<number>();
  private readonly backedUp = new Set<string>();
  private swept = false;

  private readonly shelf: Shelf;

  constructor(
    private readonly store: KeyValue,
    private readonly prefix: string,
  ) {
    this.shelf = new Shelf(inPieces(store), prefix);
  }

  private get = (key: string) => this.shelf.get(key);
  private set = (key: string, value: unknown) => this.shelf.set(key, value);
  private remove = (key: string) => this.shelf.remove(key);

  /** Writes a whole project, for a new or opened one. */
  async create(project: Project, history: History = EMPTY_HISTORY): Promise<void> {
    const { position, done, undone } = history;
    this.meta = { ...this.meta, first: position - done.length + 1, position, last: position + undone.length };
    this.journalled = this.meta.checkpoint;
    const entries = [...done, ...[...undone].reverse()];
    for (const [i, entry] of entries.entries()) this.pending.set(position - done.length + 1 + i, entry);
    this.segments.length = 0;
    this.segmentOf.clear();
    for (const id of new Set([...project.glyphOrder, ...Object.keys(project.glyphs)]))
      if (project.glyphs[id]) this.seat(id);
    for (const i of this.segments.keys()) this.dirty.add(`${GLYPHS}${i}`);
    for (const key of [PARTS, KEPT, ...project.masters.map((m) => KERNING + m.id)]) this.dirty.add(key);
    for (const key of Object.keys(project.pictures)) this.dirty.add(PICTURE + key);
    this.swept = true;
    await this.checkpoint(project);
  }

  /** Takes the seats that were read, and seats the glyphs that had none. */
  private takeSeats(seats: ReadonlyMap<GlyphId, number>, all: readonly GlyphId[]): void {
    this.segmentOf.clear();
    this.segments.length = 0;
    for (let i = 0; i < this.meta.segments; i++) this.segments.push(new Set());
    for (const [id, segment] of seats) {
      this.segments[segment]!.add(id);
      this.segmentOf.set(id, segment);
    }
    for (const id of all) if (!seats.has(id)) this.dirty.add(`${GLYPHS}${this.seat(id)}`);
  }

  /** Gives a glyph its segment. */
  private seat(id: GlyphId): number {
    const at = this.segmentOf.get(id);
    if (at !== undefined) return at;
    if (this.segments.length === 0 || this.segments[this.segments.length - 1]!.size >= SEGMENT)
      this.segments.push(new Set());
    const last = this.segments.length - 1;
    this.segments[last]!.add(id);
    this.segmentOf.set(id, last);
    return last;
  }

  /** Is the project still in the store? Another tab may have removed it. */
  isThere = async (): Promise<boolean> => (await this.get(META)) !== undefined;

  /** Puts one gesture on disk as one small record. */
  async journal({ steps, history, entry, merged }: Write): Promise<void> {
    const record: JournalRecord = {
      position: history.position,
      first: history.first,
      last: history.last,
      ...(entry && { entry: entry as JournalRecord['entry'] }),
      ...((!entry || merged) && { steps: steps as JournalRecord['steps'] }),
    };
    const kept = await folded(record, 'steps');
    const kind = kept.entry ? { ...kept, entry: await folded(kept.entry, 'patch') } : kept;
    await this.set(JOURNAL + number(this.journalled + 1), kind);
    this.journalled++;
    this.note(record, steps);
  }

  /** Remembers what the next checkpoint has to write. */
  private note(record: JournalRecord, steps: readonly Step[]): void {
    for (const { path } of steps) for (const key of this.recordsFor(path)) this.dirty.add(key);
    for (let serial = record.last + 1; serial <= this.meta.last; serial++) this.abandoned.add(serial);
    for (let serial = this.meta.first; serial < record.first; serial++) this.abandoned.add(serial);
    if (record.entry) {
      this.pending.set(record.position, record.entry as Entry);
      this.abandoned.delete(record.position);
    }
    this.meta = { ...this.meta, first: record.first, position: record.position, last: record.last };
  }

  /** Which records a way into the document touches. */
  private recordsFor(path: readonly (string | number)[]): string[] {
    const [part, at, field] = path;
    if (part === 'glyphs') return [`${GLYPHS}${this.seat(String(at))}`];
    if (part === 'kept') return [KEPT];
    if (part === 'pictures') return at === undefined ? [PARTS, '*pictures'] : [PARTS, PICTURE + at];
    if (part !== 'masters') return [PARTS];
    if (field === 'kerning') return [`*kerning ${at}`];
    return field === undefined ? [PARTS, '*kerning'] : [PARTS];
  }

  /** The records behind marks that need the project to be told. */
  private resolved(marks: ReadonlySet<string>, project: Project): string[] {
    const keys = new Set<string>();
    for (const mark of marks) {
      if (mark === '*pictures') for (const key of Object.keys(project.pictures)) keys.add(PICTURE + key);
      else if (mark === '*kerning') for (const m of project.masters) keys.add(KERNING + m.id);
      else if (mark.startsWith('*kerning ')) {
        const master = project.masters[Number(mark.slice(9))];
        if (master) keys.add(KERNING + master.id);
      } else keys.add(mark);
    }
    return [...keys];
  }

  /**
   * Writes the records that changed since the last time, and lets go of the journal up to here. `project` is what the
   * journal has led to. A failure in between leaves the journal, so that nothing is lost.
   */
  async checkpoint(project: Project): Promise<void> {
    const upTo = this.journalled;
    const taken = { dirty: this.dirty, pending: this.pending, abandoned: this.abandoned, meta: this.meta };
    this.dirty = new Set();
    this.pending = new Map();
    this.abandoned = new Set();
    const from = this.meta.checkpoint;
    try {
      for (const key of this.resolved(taken.dirty, project)) await this.put(key, project);
      for (const [serial, entry] of taken.pending)
        await this.set(HISTORY + number(serial), await folded(entry, 'patch'));
      const meta: Meta = {
        ...taken.meta,
        segments: this.segments.length,
        masters: project.masters.map((m) => m.id),
        pictures: Object.keys(project.pictures),
        checkpoint: upTo,
      };
      await this.set(META, meta);
      this.meta = {
        ...this.meta,
        segments: meta.segments,
        masters: meta.masters,
        pictures: meta.pictures,
        checkpoint: upTo,
      };
    } catch (error) {
      for (const key of taken.dirty) this.dirty.add(key);
      for (const [serial, entry] of taken.pending) if (!this.pending.has(serial)) this.pending.set(serial, entry);
      for (const serial of taken.abandoned) this.abandoned.add(serial);
      throw error;
    }
    for (let n = from + 1; n <= upTo; n++) await this.remove(JOURNAL + number(n));
    for (const serial of taken.abandoned) await this.remove(HISTORY + number(serial));
    if (!this.swept) await this.sweep();
  }

  /** Removes what an interrupted checkpoint of an earlier session left behind. */
  private async sweep(): Promise<void> {
    this.swept = true;
    const known = new Set([
      ...this.meta.pictures.map((k) => PICTURE + k),
      ...this.meta.masters.map((m) => KERNING + m),
    ]);
    for (const key of await this.shelf.keys()) {
      const serial = key.startsWith(HISTORY) ? Number(key.slice(HISTORY.length)) : undefined;
      const stale =
        OLDER_FORMS.test(key) ||
        (key.startsWith(JOURNAL) && Number(key.slice(JOURNAL.length)) <= this.meta.checkpoint) ||
        (serial !== undefined && (serial > this.meta.last || serial < this.meta.first)) ||
        ((key.startsWith(PICTURE) || key.startsWith(KERNING)) && !known.has(key));
      if (stale) await this.remove(key);
    }
  }

  /** Writes one record as the project has it now; the first time since opening, what it was is kept beside. */
  private async put(key: string, project: Project): Promise<void> {
    const value = key.startsWith(GLYPHS) ? await this.segmentText(key, project) : this.valueOf(key, project);
    const worthKeeping = key === PARTS || key.startsWith(GLYPHS) || key.startsWith(KERNING);
    if (worthKeeping && !this.backedUp.has(key)) {
      const old = await this.get(key);
      if (old !== undefined) await this.set(BEFORE + key, { value: old });
      this.backedUp.add(key);
    }
    if (value === undefined) await this.remove(key);
    else await this.set(key, value);
  }

  /** The oldest entry that may have a record. */
  private oldest = 1;

  private valueOf(key: string, project: Project): unknown {
    if (key === KEPT) return project.kept;
    if (key === PARTS) return partsOf(project);
    if (key.startsWith(PICTURE)) return project.pictures[key.slice(PICTURE.length)];
    if (key.startsWith(KERNING)) {
      const master = project.masters.find((m) => m.id === key.slice(KERNING.length));
      return master && JSON.stringify(master.kerning);
    }
    return undefined;
  }

  /** The glyphs of a segment as text, made with rests: many masters of many glyphs at once would hold the page up. */
  private async segmentText(key: string, project: Project): Promise<string> {
    const ids = [...(this.segments[Number(key.slice(GLYPHS.length))] ?? [])];
    const texts: string[] = [];
    const breathe = restEvery(SLICE);
    for (const id of ids) {
      const glyph = project.glyphs[id];
      if (!glyph) continue;
      texts.push(JSON.stringify(packedGlyph(glyph)));
      await breathe();
    }
    return `[${texts.join()}]`;
  }

  /**
   * Reads the project, replaying what the journal has beyond its records. `undefined` when there is none. A project of an
   * older form is led on, which writes it anew; refused where it is only looked at, since who holds it writes the old form.
   */
  async open(holds = true): Promise<Opened | Refusal | undefined> {
    if (holds) return this.read(holds);
    for (let tries = 1; ; tries++) {
      const before = await this.checkpointThere();
      const found = await new ProjectRecords(this.store, this.prefix).read(holds);
      // Records and journal belong together only where nobody has moved work from one to the other meanwhile.
      if (before === (await this.checkpointThere()) || tries === MOST_LOOKS) return found;
    }
  }

  private checkpointThere = async (): Promise<unknown> => {
    const meta = await this.get(META);
    return typeof meta === 'object' && meta !== null && 'checkpoint' in meta ? meta.checkpoint : undefined;
  };

  private async read(holds: boolean): Promise<Opened | Refusal | undefined> {
    const meta = await this.get(META);
    const version = versionOf({ meta, firstVersion: meta === undefined ? await this.get('part/version') : undefined });
    if (version === undefined) {
      const isGone = meta === undefined && (await this.get(PARTS)) === undefined;
      return isGone ? undefined : this.withoutMeta();
    }
    if (version > STORED_VERSION) return newerVersion(version);
    if (version < STORED_VERSION) {
      if (!holds) return refused(OPEN_IN_OLDER);
      const migrated = await this.migrate(version);
      if (migrated) return migrated;
      return this.read(holds);
    }
    const parsed = metaSchema.safeParse(meta);
    if (!parsed.success) return this.withoutMeta();
    this.meta = parsed.data;
    return this.assembled();
  }

  /** The head record is damaged: it is made anew from the records that are there. */
  private async withoutMeta(): Promise<Opened | Refusal> {
    const keys = await this.shelf.keys();
    const under = (prefix: string) => keys.filter((k) => k.startsWith(prefix)).map((k) => k.slice(prefix.length));
    const serials = under(HISTORY)
      .map(Number)
      .sort((a, b) => a - b);
    const journals = under(JOURNAL).map(Number);
    await this.shelf.keepUnread(META, await this.get(META));
    this.meta = {
      version: STORED_VERSION,
      segments: 1 + Math.max(-1, ...under(GLYPHS).map(Number)),
      masters: under(KERNING),
      pictures: under(PICTURE),
      checkpoint: journals.length > 0 ? Math.min(...journals) - 1 : 0,
      first: serials[0] ?? 1,
      position: serials[serials.length - 1] ?? 0,
      last: serials[serials.length - 1] ?? 0,
    };
    return this.assembled();
  }

  /** Leads an older form to this one; a refusal where nothing of it can be shown. */
  private async migrate(version: number): Promise<Refusal | undefined> {
    const read = MIGRATIONS[version];
    if (!read) return refused(`This project is stored in a form (${version}) that is not known.`);
    const old = await this.shelf.everything();
    const { parts, glyphs, history } = read(old);
    const sound = salvagedParts(parts);
    if (isRefused(sound)) return sound;
    const whole: Record<string, Glyph> = {};
    for (const [id, raw] of Object.entries(glyphs)) {
      const made = soundGlyph(id, raw, sound.value.masters, (v) => v as never);
      whole[id] = made.value;
      if (made.faults.length > 0) await this.shelf.keepUnread(`glyph/${id}`, raw);
    }
    const project: Project = { ...sound.value, glyphs: whole };
    await this.create(project, history(project));
    for (const key of old.keys()) if (OLDER_FORMS.test(key)) await this.remove(key);
    return undefined;
  }

  private async assembled(): Promise<Opened | Refusal> {
    const faults: Refusal[] = [];
    const parts = await readParts(this.shelf, this.meta, faults);
    if (isRefused(parts)) return parts;
    const { glyphs, damaged, missing, seats, segments } = await readGlyphs(this.shelf, this.meta, parts, faults);
    this.takeSeats(seats, Object.keys(glyphs));
    const base: Project = { ...parts, glyphs };
    let project = base;
    const brought = new Set<string>();
    this.oldest = this.meta.first;
    this.journalled = this.meta.checkpoint;
    for (;;) {
      const record = await this.get(JOURNAL + number(this.journalled + 1));
      if (record === undefined) break;
      this.journalled++;
      const parsed = journalSchema.safeParse(unfoldedJournal(record));
      if (!parsed.success) {
        await this.shelf.keepUnread(JOURNAL + number(this.journalled), record);
        faults.push(
          refused(
            'A change that was on its way to storage could not be read; it was passed over.',
            undefined,
            'attention',
          ),
        );
        continue;
      }
      const steps = (parsed.data.steps ?? stepsOf((parsed.data.entry?.patch ?? []) as Patch)) as Step[];
      project = applySteps(project, steps);
      for (const { path } of steps) if (path[0] === 'glyphs' && path.length === 2) brought.add(String(path[1]));
      this.note(parsed.data, steps);
    }
    // A glyph on its way to its segment when the writing broke off is in the journal.
    for (const [id, said] of missing) {
      if (brought.has(id)) continue;
      damaged.push(id);
      faults.push(...said);
    }
    const history = await this.nearHistory(faults);
    return { project, history, faults, damaged, packed: { parts, segments, base } };
  }

  /** The newest steps done and the next ones undone; the others are read when they are asked for. */
  private async nearHistory(faults: Refusal[]): Promise<History> {
    const { position, first, last } = this.meta;
    const bare: History = { done: [], undone: [], position, first, last };
    const done = await this.entries(Math.max(first, position - NEAR + 1), position);
    const undone = await this.entries(position + 1, Math.min(last, position + NEAR));
    const whole = withEntries(withEntries(bare, 'undo', done), 'redo', undone);
    if (whole.first !== first || whole.last !== last)
      faults.push(
        refused(
          'Some steps of the history could not be read; those beyond them cannot be taken back.',
          undefined,
          'note',
        ),
      );
    return whole;
  }

  /** History entries by serial, oldest first; undefined for one that cannot be read. */
  async entries(from: number, to: number): Promise<(Entry | undefined)[]> {
    const serials = Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);
    const read = await Promise.all(
      serials.map(async (s) => this.pending.get(s) ?? (await this.get(HISTORY + number(s)))),
    );
    return read.map((e) => {
      const parsed = entrySchema.safeParse(unfolded(e, 'patch'));
      return parsed.success ? (parsed.data as Entry) : undefined;
    });
  }

  /** The last state of a damaged glyph that storage can still tell; see `lastGood`. */
  lastGood = (id: GlyphId, project: Project): Promise<Glyph | undefined> =>
    lastGood(this.shelf, this.meta, this.segmentOf.get(id), {
      id,
      project,
      entries: (from, to) => this.entries(from, to),
    });

  /** Removes history entries older than a serial, and what lay beyond the present, at once: to make room. */
  async forgetBefore(first: number, last: number): Promise<void> {
    const from = this.oldest;
    for (let serial = from; serial < first; serial++) await this.remove(HISTORY + number(serial));
    for (let serial = this.meta.position + 1; serial <= last; serial++) await this.remove(HISTORY + number(serial));
    this.oldest = first;
  }

  /** Every record as it lies there, for a way out when nothing else is left. */
  everything = (): Promise<Map<string, unknown>> => this.shelf.everything();
}

function unfoldedJournal(record: unknown): unknown {
  const whole = unfolded(record, 'steps');
  if (typeof whole !== 'object' || whole === null || !('entry' in whole)) return whole;
  return { ...whole, entry: unfolded(whole.entry, 'patch') };
}

/** The parts that are stored as one record: all but glyphs, pictures, kept files, and kerning. */
function partsOf(project: Project): unknown {
  const { glyphs: _g, pictures: _p, kept: _k, ...parts } = project;
  return { ...parts, masters: project.masters.map((m) => ({ ...m, kerning: {} })) };
}

function soundGlyph(
  id: string,
  raw: unknown,
  masters: Parts['masters'],
  drawing: (v: unknown) => never,
): Salvaged<Glyph> {
  const read = attempt(() => unpackedGlyph(packedGlyph(raw as Glyph)));
  return read.ok ? { value: read.value, faults: [] } : salvagedGlyph(id, raw, masters, drawing);
}

/** The project that a worker makes of what lies in storage. */
export function unpackedProject({ parts, segments }: Pick<Packed, 'parts' | 'segments'>): Project {
  const glyphs: Record<GlyphId, Glyph> = {};
  for (const text of segments)
    for (const raw of JSON.parse(text)) {
      const glyph = unpackedGlyph(raw);
      glyphs[glyph.id] = glyph;
    }
  return { ...parts, glyphs };
}
