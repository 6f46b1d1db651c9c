import { remember, replacing, touchedBetween } from './lineage';
import type { Glyph, GlyphId, Project } from './model';

/** A way into the document: names of fields, ids, places in lists. */
export type Path = readonly (string | number)[];

/** One place that differs; `undefined` means that nothing is there. */
export type Change = { readonly path: Path; readonly before: unknown; readonly after: unknown };

/** What differs between two projects: as many places as differ, each no larger than what changed there. */
export type Patch = readonly Change[];

/** One place and what it becomes: a patch going one way, enough for a copy of the document to follow. */
export type Step = { readonly path: Path; readonly value: unknown };

type Fields = Readonly<Record<string, unknown>>;

const isFields = (v: unknown): v is Fields =>
  typeof v === 'object' && v !== null && !Array.isArray(v) && !ArrayBuffer.isView(v);

/** A point, a zone, a guide: so small that naming the field would cost more than the whole. */
const isSmall = (v: Fields): boolean => {
  let n = 0;
  for (const key in v) {
    if (++n > 8 || (typeof v[key] === 'object' && v[key] !== null)) return false;
  }
  return true;
};

/** The patch that was asked for last: whoever follows an edit asks for the same one after the other. */
let last: { before: Project; after: Project; patch: Patch } | undefined;

/** The patch that leads from one project to another; untouched parts are told by identity. */
export function patchBetween(before: Project, after: Project): Patch {
  if (last?.before !== before || last.after !== after) last = { before, after, patch: compared(before, after) };
  return last.patch;
}

function compared(before: Project, after: Project): Patch {
  const changes: Change[] = [];
  for (const name of Object.keys(after) as (keyof Project)[]) {
    if (name === 'glyphs') compareGlyphs(before.glyphs, after.glyphs, changes);
    else compare(before[name], after[name], [name], changes);
  }
  return changes;
}

function compareGlyphs(before: Project['glyphs'], after: Project['glyphs'], changes: Change[]): void {
  const ids = touchedBetween(before, after) ?? new Set([...Object.keys(after), ...Object.keys(before)]);
  for (const id of ids) compare(before[id], after[id], ['glyphs', id], changes);
}

function compare(before: unknown, after: unknown, path: Path, changes: Change[]): void {
  if (Object.is(before, after)) return;
  if (isFields(before) && isFields(after) && !(isSmall(before) && isSmall(after))) {
    for (const key in after) compare(before[key], after[key], [...path, key], changes);
    for (const key in before) if (!(key in after)) compare(before[key], undefined, [...path, key], changes);
  } else if (Array.isArray(before) && Array.isArray(after) && isWorthComparing(before, after)) {
    for (let i = 0; i < after.length; i++) compare(before[i], after[i], [...path, i], changes);
  } else changes.push({ path, before, after });
}

/** Lists are compared place by place while they are as long as before and no more than half of them differs. */
function isWorthComparing(before: readonly unknown[], after: readonly unknown[]): boolean {
  if (before.length !== after.length || typeof after[0] !== 'object') return false;
  let differing = 0;
  for (let i = 0; i < after.length; i++) if (before[i] !== after[i]) differing++;
  return differing <= 2 || differing * 2 <= after.length;
}

export const isEmptyPatch = (patch: Patch): boolean => patch.length === 0;

/** A patch going one way. */
export const stepsOf = (patch: Patch, direction: 'forwards' | 'backwards' = 'forwards'): Step[] =>
  patch.map(({ path, before, after }) => ({ path, value: direction === 'forwards' ? after : before }));

/** Applies a patch forwards, or backwards to undo it. */
export const applyPatch = (project: Project, patch: Patch, direction: 'forwards' | 'backwards' = 'forwards'): Project =>
  applySteps(project, stepsOf(patch, direction));

/**
 * Steps of a patch that was made elsewhere from this very project. They may come some at a time and are applied as they come, so that
 * little is left to do when all are there; nothing needs to be compared again to know the patch.
 */
export class MadeSteps {
  private rest: Project;
  private glyphs: Record<GlyphId, Glyph> | undefined;
  private readonly touched = new Set<GlyphId>();
  private readonly patch: Change[] = [];

  constructor(private readonly before: Project) {
    this.rest = before;
  }

  take(steps: readonly Step[]): this {
    for (const { path, value } of steps) this.patch.push({ path, before: valueAt(this.before, path), after: value });
    const others = steps.filter(({ path }) => path[0] !== 'glyphs');
    if (others.length > 0) this.rest = applySteps(this.rest, others);
    const ofGlyphs = treeOf(steps.filter(({ path }) => path[0] === 'glyphs')).below.get('glyphs');
    if (ofGlyphs) {
      this.glyphs ??= { ...this.before.glyphs };
      for (const id of putGlyphs(this.glyphs, ofGlyphs)) this.touched.add(id);
    }
    return this;
  }

  /** The project that they lead to. */
  made(): Project {
    const { glyphs, before } = this;
    if (glyphs) remember(glyphs, before.glyphs, [...this.touched]);
    const after = glyphs ? { ...this.rest, glyphs } : this.rest;
    last = { before, after, patch: this.patch };
    return after;
  }
}

/** As {@link MadeSteps}, all at once. */
export const applyMade = (before: Project, steps: readonly Step[]): Project => new MadeSteps(before).take(steps).made();

function valueAt(project: Project, path: Path): unknown {
  let at: unknown = project;
  for (const key of path) at = typeof at === 'object' && at !== null ? (at as Fields)[key] : undefined;
  return at;
}

/** Steps sorted by the way into the document, so that every record on the way is copied once. */
type Tree = { readonly below: Map<string | number, Tree>; value?: unknown; set?: true };

function treeOf(steps: readonly Step[]): Tree {
  const root: Tree = { below: new Map() };
  for (const { path, value } of steps) {
    let at = root;
    for (const key of path) {
      let next = at.below.get(key);
      if (!next) {
        next = { below: new Map() };
        at.below.set(key, next);
      }
      at = next;
    }
    // What comes later counts: a whole value ends what was said of its parts, parts are laid over a whole.
    at.below.clear();
    at.set = true;
    at.value = value;
  }
  return root;
}

/**
 * Applies steps. A step whose way leads nowhere (a glyph, a contour that is not there) changes nothing: whoever replays
 * steps over a state that has some of them already ends where the last of them leads.
 */
export function applySteps(project: Project, steps: readonly Step[]): Project {
  const root = treeOf(steps);
  const next: Record<string, unknown> = { ...project };
  for (const [name, tree] of root.below) {
    if (name === 'glyphs') next.glyphs = glyphsWith(project.glyphs, tree);
    else if (Object.hasOwn(next, name)) next[name] = valueWith(next[name], tree);
  }
  return next as Project;
}

function glyphsWith(glyphs: Project['glyphs'], { below }: Tree): Project['glyphs'] {
  const [only] = below;
  if (only && below.size === 1) {
    const glyph = valueWith(glyphs[only[0]], only[1]) as Glyph | undefined;
    if (glyph) return replacing(glyphs, [glyph]);
  }
  const next: Record<GlyphId, Glyph> = { ...glyphs };
  remember(next, glyphs, putGlyphs(next, { below }));
  return next;
}

/** Puts what steps make of glyphs among them; which ones that were. */
function putGlyphs(glyphs: Record<GlyphId, Glyph>, { below }: Tree): GlyphId[] {
  for (const [id, tree] of below) {
    const glyph = valueWith(glyphs[id], tree) as Glyph | undefined;
    if (glyph) glyphs[id] = glyph;
    else delete glyphs[id];
  }
  return [...below.keys()].map(String);
}

function valueWith(before: unknown, tree: Tree): unknown {
  const value = tree.set ? tree.value : before;
  if (tree.below.size === 0) return value;
  if (Array.isArray(value)) {
    const next = [...value];
    for (const [key, below] of tree.below) {
      if (typeof key === 'number' && key < next.length) next[key] = valueWith(next[key], below);
    }
    return next;
  }
  if (!isFields(value)) return value;
  const next: Record<string, unknown> = { ...value };
  for (const [key, below] of tree.below) {
    const made = valueWith(Object.hasOwn(value, key) ? value[key] : undefined, below);
    if (made === undefined) delete next[key];
    else next[key] = made;
  }
  return next;
}
