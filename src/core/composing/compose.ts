import { isRefused, type Refusal, refused } from '../base/result';
import { contourBounds } from '../geometry/contour';
import { tidy } from '../geometry/tidy';
import { emptyDrawing, newGlyph } from '../project/create';
import { nameForCodePoint } from '../project/glyphNames';
import type { Anchor, Component, Drawing, Glyph, GlyphId, Master, MasterId, Project } from '../project/model';
import { drawingOf, isEmptyDrawing } from '../project/queries';
import { anchorNamed, proposedAnchor } from './anchorPlaces';
import { type AnchorName, markOf } from './marks';
import { baseUnder, DOTLESS_LETTERS, type Recipe, recipeOf } from './recipes';

/** What putting together came to, by glyph name, with reasons. */
export type Composed = {
  project: Project;
  /** Precomposed glyphs that were built. */
  built: readonly string[];
  /** Dotless letters and combining marks that were made on the way. */
  made: readonly string[];
  /** Glyphs that are drawn by hand or built already. */
  kept: readonly string[];
  notPossible: readonly { code: number; name: string; why: string }[];
};

/** Combining marks are called by their spacing accent: `caroncomb`. */
function nameOf(code: number): string {
  const kind = markOf(code);
  const spacing = kind?.anchor === 'topright' ? undefined : kind?.spacing[0];
  const accent = spacing === undefined ? undefined : nameForCodePoint(spacing);
  return accent && !/^u(ni)?[0-9A-F]{4,}$/.test(accent) ? `${accent}comb` : nameForCodePoint(code);
}

/**
 * Puts characters together from a base and marks, in every master: missing glyphs are added, empty ones filled; what is drawn
 * is never overwritten. Dotless letters are made from i and j, combining marks from spacing accents; anchors that are missing
 * are placed by the shapes, those that are there hold.
 */
export function composed(project: Project, codes: readonly number[]): Composed {
  const work = new Workbench(project);
  const built: string[] = [];
  const kept: string[] = [];
  const notPossible: Composed['notPossible'][number][] = [];
  for (const code of new Set(codes)) {
    const there = work.forCode(code) ?? work.named(nameOf(code));
    const name = there?.name ?? nameOf(code);
    if (there && work.made.includes(name)) continue;
    if (there && project.masters.some((m) => !isEmptyDrawing(drawingOf(there, m.id)))) {
      kept.push(name);
      continue;
    }
    const recipe = recipeOf(code);
    const special = work.special(code);
    if (special) {
      if (isRefused(special)) notPossible.push({ code, name, why: special.reason });
      continue;
    }
    const drawings = recipe ? work.build(recipe, code) : refused(`${name} is no letter with marks; it is drawn.`);
    if (isRefused(drawings)) {
      notPossible.push({ code, name, why: drawings.reason });
      continue;
    }
    const glyph = there ?? work.added(name, [code]);
    work.put({ ...glyph, drawings: { ...glyph.drawings, ...drawings } });
    built.push(name);
  }
  return { project: work.done(), built, made: work.made, kept, notPossible };
}

/** Anchors for glyphs, in every master, where they have none of that name; those that are there hold. */
export function withAnchors(project: Project, glyphs: readonly GlyphId[]): { project: Project; changed: number } {
  const work = new Workbench(project);
  for (const id of glyphs) {
    const glyph = project.glyphs[id];
    if (!glyph) continue;
    for (const { anchor, role } of anchorsFor(glyph)) work.anchored(id, anchor, role);
  }
  const next = work.done();
  return { project: next, changed: glyphs.filter((id) => next.glyphs[id] !== project.glyphs[id]).length };
}

/** Anchors that a letter takes beside top and bottom, by its character. */
const MORE: readonly (readonly [AnchorName, RegExp])[] = [
  ['ogonek', /^[AEIOUYaeiouyǪǫ]$/],
  ['cedilla', /^[CSTDGKLNRHEcstdgklnrhe]$/],
  ['horn', /^[OUou]$/],
  ['topright', /^[dltL]$/],
];

function anchorsFor(glyph: Glyph): { anchor: AnchorName; role: 'takesMark' | 'isMark' }[] {
  const code = glyph.unicodes[0];
  if (code === undefined) return [];
  const kind = markOf(code);
  // Marks above and below carry others of their kind.
  if (kind)
    return [
      { anchor: kind.anchor, role: 'isMark' },
      ...(kind.anchor === 'top' || kind.anchor === 'bottom'
        ? [{ anchor: kind.anchor, role: 'takesMark' } as const]
        : []),
    ];
  const character = String.fromCodePoint(code);
  if (!/\p{L}/u.test(character) || /\p{Lm}/u.test(character)) return [];
  const names: AnchorName[] = ['top', 'bottom', ...MORE.flatMap(([name, of]) => (of.test(character) ? [name] : []))];
  return names.map((anchor) => ({ anchor, role: 'takesMark' }));
}

/**
 * A project being added to, step by step. Its glyphs are one object of its own that is written in place, with indices beside
 * it, so that a step costs nothing of the size of the font; it is given out when the work is done.
 */
class Workbench {
  readonly made: string[] = [];
  private readonly glyphs: Record<GlyphId, Glyph>;
  private readonly order: GlyphId[];
  private readonly byCode = new Map<number, GlyphId>();
  private readonly byName = new Map<string, GlyphId>();
  private changed = false;
  /** What functions of projects are asked with: the glyphs as they are just now. */
  readonly project: Project;

  constructor(private readonly before: Project) {
    this.glyphs = { ...before.glyphs };
    this.order = [...before.glyphOrder];
    this.project = { ...before, glyphs: this.glyphs, glyphOrder: this.order };
    for (const id of this.order) this.note(this.glyphs[id]!);
  }

  private note(glyph: Glyph): void {
    if (!this.byName.has(glyph.name)) this.byName.set(glyph.name, glyph.id);
    for (const code of glyph.unicodes) if (!this.byCode.has(code)) this.byCode.set(code, glyph.id);
  }

  /** The project with all that was done; the same where nothing was. */
  done(): Project {
    const added = this.order.length - this.before.glyphOrder.length;
    if (!this.changed) return this.before;
    // Lists of its own: indices are kept by them, and those worked on were written in place.
    const [glyphs, glyphOrder] = [{ ...this.glyphs }, added > 0 ? [...this.order] : this.before.glyphOrder];
    return { ...this.project, glyphs, glyphOrder, nextId: this.before.nextId + added };
  }

  forCode(code: number): Glyph | undefined {
    const id = this.byCode.get(code);
    return id === undefined ? undefined : this.glyphs[id];
  }

  named(name: string): Glyph | undefined {
    const id = this.byName.get(name);
    return id === undefined ? undefined : this.glyphs[id];
  }

  put(glyph: Glyph): void {
    this.glyphs[glyph.id] = glyph;
    this.changed = true;
  }

  /** A new, empty glyph at the end of the order. */
  added(name: string, unicodes: number[]): Glyph {
    const { masters, unitsPerEm } = this.before;
    const number = this.before.nextId + this.order.length - this.before.glyphOrder.length;
    const glyph = newGlyph(`g${number}`, name, unicodes, masters, Math.round(unitsPerEm / 2));
    this.order.push(glyph.id);
    this.put(glyph);
    this.note(glyph);
    return glyph;
  }

  /** A dotless letter or a combining mark that is asked for by itself; undefined where it is neither. */
  special(code: number): Glyph | Refusal | undefined {
    if (markOf(code)) return this.mark(code, '');
    const dotted = [...DOTLESS_LETTERS].find(([, dotless]) => dotless === code)?.[0];
    if (dotted === undefined) return undefined;
    return this.base({ base: dotted, marks: [{ mark: 0x301, anchor: 'top' }] });
  }

  /** The drawings of a recipe in every master, or why they cannot be made. */
  build(recipe: Recipe, code: number): Record<MasterId, Drawing> | Refusal {
    const base = this.base(recipe);
    if (isRefused(base)) return base;
    const marks: { id: GlyphId; anchor: AnchorName }[] = [];
    for (const { mark, anchor } of recipe.marks) {
      const found = this.mark(mark, String.fromCodePoint(code));
      if (isRefused(found)) return found;
      marks.push({ id: found.id, anchor });
    }
    const out: Record<MasterId, Drawing> = {};
    for (const master of this.project.masters) {
      const drawing = this.stacked(base.id, marks, master);
      if (isRefused(drawing)) return drawing;
      out[master.id] = drawing;
    }
    return out;
  }

  /** The base with its marks: the first on the base, each further one of the same anchor on the one before. */
  private stacked(
    base: GlyphId,
    marks: readonly { id: GlyphId; anchor: AnchorName }[],
    master: Master,
  ): Drawing | Refusal {
    const own = drawingOf(this.project.glyphs[base]!, master.id);
    const components: Component[] = [{ glyph: base, transform: [1, 0, 0, 1, 0, 0] }];
    const above = new Map<AnchorName, { id: GlyphId; dx: number; dy: number }>();
    for (const { id, anchor } of marks) {
      const under = above.get(anchor);
      const on = under
        ? this.anchored(under.id, anchor, 'takesMark', master)
        : this.anchored(base, anchor, 'takesMark', master);
      const at = this.anchored(id, anchor, 'isMark', master);
      if (!on || !at) return refused(`${this.project.glyphs[on ? id : base]!.name} is not drawn in ${master.name}.`);
      const [dx, dy] = [tidy(on.x + (under?.dx ?? 0) - at.x), tidy(on.y + (under?.dy ?? 0) - at.y)];
      components.push({ glyph: id, transform: [1, 0, 0, 1, dx, dy], anchor });
      above.set(anchor, { id, dx, dy });
    }
    // What marks of other kinds, or one on top of the last, find on the whole letter.
    const free = own.anchors.filter((a) => !a.name.startsWith('_') && !above.has(a.name as AnchorName));
    const onTop = [...above].flatMap(([anchor, { id, dx, dy }]): Anchor[] => {
      const carries = anchorNamed(this.project.glyphs[id]!, master, anchor);
      return carries ? [{ ...carries, x: tidy(carries.x + dx), y: tidy(carries.y + dy) }] : [];
    });
    return { ...emptyDrawing(own.advance), components, anchors: [...free, ...onTop] };
  }

  /** An anchor that a glyph has, or that is placed by its shape and kept; of one master, or of all. */
  anchored(id: GlyphId, anchor: AnchorName, role: 'takesMark' | 'isMark', master?: Master): Anchor | undefined {
    const name = role === 'isMark' ? `_${anchor}` : anchor;
    let first: Anchor | undefined;
    for (const m of master ? [master] : this.project.masters) {
      const glyph = this.project.glyphs[id]!;
      const there = anchorNamed(glyph, m, name);
      const placed = there ?? proposedAnchor(this.project, glyph, m, anchor, role);
      first ??= placed;
      if (there || !placed) continue;
      const drawing = drawingOf(glyph, m.id);
      this.put({
        ...glyph,
        drawings: { ...glyph.drawings, [m.id]: { ...drawing, anchors: [...drawing.anchors, placed] } },
      });
    }
    return first;
  }

  private drawnEverywhere(glyph: Glyph | undefined): glyph is Glyph {
    return glyph !== undefined && this.project.masters.every((m) => !isEmptyDrawing(drawingOf(glyph, m.id)));
  }

  private base(recipe: Recipe): Glyph | Refusal {
    const code = baseUnder(recipe);
    const found = this.forCode(code);
    if (this.drawnEverywhere(found)) return found;
    if (DOTLESS_LETTERS.get(recipe.base) === code) {
      const dotted = this.forCode(recipe.base);
      if (this.drawnEverywhere(dotted)) return this.dotless(dotted, code, found);
    }
    // A letter that has marks of its own may have to be put together first.
    const own = recipeOf(code);
    const drawings = own && this.build(own, code);
    if (drawings && !isRefused(drawings)) {
      const glyph = found ?? this.added(nameOf(code), [code]);
      this.put({ ...glyph, drawings: { ...glyph.drawings, ...drawings } });
      this.made.push(glyph.name);
      return this.project.glyphs[glyph.id]!;
    }
    return refused(`${nameOf(code)} is not drawn yet.`);
  }

  /** The letter without its dot: what stands clear above the x-height goes, in every master. */
  private dotless(dotted: Glyph, code: number, empty: Glyph | undefined): Glyph | Refusal {
    const drawings: Record<MasterId, Drawing> = {};
    for (const m of this.project.masters) {
      const d = drawingOf(dotted, m.id);
      const stays = d.contours.filter((c) => contourBounds(c).yMin < m.zones.xHeight.position * 0.9);
      if (stays.length === 0 || stays.length === d.contours.length || d.components.length > 0)
        return refused(`${nameOf(code)} is not drawn, and ${dotted.name} has no dot of its own to be left out.`);
      drawings[m.id] = { ...d, contours: stays, anchors: d.anchors.filter((a) => a.name !== 'top') };
    }
    const glyph = empty ?? this.added(nameOf(code), [code]);
    this.put({ ...glyph, drawings: { ...glyph.drawings, ...drawings } });
    this.made.push(glyph.name);
    return this.project.glyphs[glyph.id]!;
  }

  /** The combining mark, for a capital its own form where there is one; made from the spacing accent where it is missing. */
  private mark(code: number, letter: string): Glyph | Refusal {
    const found = this.forCode(code);
    if (found && letter !== letter.toLowerCase()) {
      const capital = this.named(`${found.name}.case`);
      if (this.drawnEverywhere(capital)) return capital;
    }
    if (this.drawnEverywhere(found)) return found;
    const kind = markOf(code)!;
    const accent = kind.spacing.map((s) => this.forCode(s)).find((g) => this.drawnEverywhere(g));
    if (!accent) return refused(`${nameOf(code)} is not drawn yet, nor an accent of that shape.`);
    return this.combining(accent, code, found);
  }

  /** A mark without width, the accent's drawing as its part, its anchor at zero. */
  private combining(accent: Glyph, code: number, empty: Glyph | undefined): Glyph {
    const { anchor } = markOf(code)!;
    const glyph = empty ?? this.added(nameOf(code), [code]);
    const drawings: Record<MasterId, Drawing> = {};
    for (const m of this.project.masters) {
      const at = proposedAnchor(this.project, accent, m, anchor, 'isMark')!;
      const d = drawingOf(glyph, m.id);
      drawings[m.id] = {
        ...d,
        advance: 0,
        components: [{ glyph: accent.id, transform: [1, 0, 0, 1, -at.x, 0] }],
        anchors: [{ ...at, x: 0 }],
      };
    }
    this.put({ ...glyph, category: 'mark', drawings: { ...glyph.drawings, ...drawings } });
    this.made.push(glyph.name);
    return this.project.glyphs[glyph.id]!;
  }
}
