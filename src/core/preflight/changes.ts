import { touchedBetween } from '../project/lineage';
import type { Glyph, GlyphId, MasterId, Project } from '../project/model';

const NO_PARTS: readonly GlyphId[] = [];
const directParts = new WeakMap<Glyph, readonly GlyphId[]>();

/** The ids of what a glyph has as parts, in any master. */
export function partsOf(glyph: Glyph): readonly GlyphId[] {
  const known = directParts.get(glyph);
  if (known) return known;
  const ids = new Set(Object.values(glyph.drawings).flatMap((d) => d.components.map((c) => c.glyph)));
  const parts = ids.size === 0 ? NO_PARTS : [...ids];
  directParts.set(glyph, parts);
  return parts;
}

type Seen = {
  readonly glyphs: Project['glyphs'];
  readonly order: Project['glyphOrder'];
  readonly by: readonly unknown[];
};

/** What has changed of a project since it was last seen whole: which glyphs, and in which masters. */
export class Changes {
  private last: Seen | undefined;
  private users: ReadonlyMap<GlyphId, readonly GlyphId[]> = new Map();
  private readonly tokens = new Map<MasterId, object>();

  /** Glyphs that are other than when they were last seen, or built of such; undefined where all are to be looked at. `by` is by what else they are judged. */
  since(project: Project, by: readonly unknown[]): ReadonlySet<GlyphId> | undefined {
    const touched = this.touched(project, by);
    if (!touched) return undefined;
    const out = new Set<GlyphId>();
    const visit = (id: GlyphId) => {
      if (out.has(id)) return;
      out.add(id);
      for (const user of this.users.get(id) ?? []) visit(user);
    };
    for (const id of touched) visit(id);
    return out;
  }

  /** A thing that stays the same while nothing has changed of the drawings of a master, nor of what glyphs are but for their drawings. */
  of(master: MasterId): object {
    const token = this.tokens.get(master) ?? {};
    this.tokens.set(master, token);
    return token;
  }

  /** The project was looked at, glyph by glyph. */
  seen(project: Project, by: readonly unknown[]): void {
    const touched = this.touched(project, by);
    const before = this.last?.glyphs;
    const facts = touched && before ? [...touched].some((id) => !sameFacts(before[id], project.glyphs[id])) : true;
    const parts = touched && before ? [...touched].some((id) => !sameParts(before[id], project.glyphs[id])) : true;
    for (const { id: master } of project.masters)
      if (facts || [...touched!].some((id) => before![id]?.drawings[master] !== project.glyphs[id]?.drawings[master]))
        this.tokens.set(master, {});
    if (parts) this.users = usersIn(project);
    this.last = { glyphs: project.glyphs, order: project.glyphOrder, by };
  }

  private touched(project: Project, by: readonly unknown[]): ReadonlySet<GlyphId> | undefined {
    const { last } = this;
    if (!last || last.order !== project.glyphOrder || !by.every((v, i) => v === last.by[i])) return undefined;
    return touchedBetween(last.glyphs, project.glyphs);
  }
}

function usersIn(project: Project): Map<GlyphId, GlyphId[]> {
  const users = new Map<GlyphId, GlyphId[]>();
  for (const glyph of Object.values(project.glyphs))
    for (const part of partsOf(glyph)) {
      const own = users.get(part);
      if (own) own.push(glyph.id);
      else users.set(part, [glyph.id]);
    }
  return users;
}

/** Is all of a glyph but its drawings the same? */
const sameFacts = (a: Glyph | undefined, b: Glyph | undefined): boolean =>
  a === b ||
  (a !== undefined &&
    b !== undefined &&
    (Object.keys({ ...a, ...b }) as (keyof Glyph)[]).every((k) => k === 'drawings' || a[k] === b[k]));

const sameParts = (a: Glyph | undefined, b: Glyph | undefined): boolean => {
  const [one, other] = [a ? partsOf(a) : NO_PARTS, b ? partsOf(b) : NO_PARTS];
  return one.length === other.length && one.every((id, i) => id === other[i]);
};
