import { isRefused, type Refusal, refused } from '../base/result';
import { contourBounds } from '../geometry/contour';
import { emptyDrawing, newGlyph } from '../project/create';
import { nameForCodePoint } from '../project/glyphNames';
import type { Anchor, Drawing, Glyph, GlyphId, Master, MasterId, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, isEmptyDrawing } from '../project/queries';
import { anchorNamed, proposedAnchor } from './anchorPlaces';
import { assembled, type Place } from './assemble';
import { ligatureAnchors } from './ligatures';
import { ANCHOR_NAMES, type AnchorName, markOf } from './marks';
import { type OwnRecipe, ownRecipeOf } from './ownRecipes';
import { baseUnder, DOTLESS_LETTERS, type Recipe, recipeOf, spacingTogether } from './recipes';

/** What a letter is put together from, glyph by glyph. */
type Ingredients = {
  base: GlyphId;
  marks: readonly { id: GlyphId; anchor: string }[];
  before: readonly GlyphId[];
  beside: readonly GlyphId[];
};

/** Combining marks are called by the spacing accent that is theirs alone: `caroncomb`. */
export function nameOf(code: number): string {
  const kind = markOf(code);
  const isOwn = kind && kind.anchor !== 'topright' && !BORROWED.has(code);
  const accent = isOwn && kind.spacing[0] !== undefined ? nameForCodePoint(kind.spacing[0]) : undefined;
  return accent && !/^u(ni)?[0-9A-F]{4,}$/.test(accent) ? `${accent}comb` : nameForCodePoint(code);
}

/** Marks whose shape is that of a sign that stands elsewhere: below the letter, or quotes above it. */
const BORROWED: ReadonlySet<number> = new Set([
  0x312, 0x313, 0x314, 0x323, 0x324, 0x325, 0x326, 0x32d, 0x32e, 0x330, 0x331,
]);
/** White between a letter and a mark whose shape is borrowed, as a share of the em. */
const WHITE = 0.075;

/** Forms of a mark that are taken where they are drawn: for capitals, and for letters narrower than the mark. */
const CAPITAL_FORM = '.case';
const NARROW_FORM = '.narrow';

/**
 * A project being added to, step by step. Its glyphs are one object of its own that is written in place, with indices beside
 * it, so that a step costs nothing of the size of the font; it is given out when the work is done.
 */
export class Workbench {
  readonly made: string[] = [];
  private readonly glyphs: Record<GlyphId, Glyph>;
  private readonly order: GlyphId[];
  private readonly byCode = new Map<number, GlyphId>();
  private readonly byName = new Map<string, GlyphId>();
  private changed = false;
  /** Letters being put together just now, so that recipes that lead back to themselves end. */
  private readonly under: string[] = [];
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
    if (markOf(code)) return this.mark(code);
    const dotted = [...DOTLESS_LETTERS].find(([, dotless]) => dotless === code)?.[0];
    if (dotted === undefined) return undefined;
    return this.base({ base: dotted, marks: [{ mark: 0x301, anchor: 'top' }] });
  }

  /** Is there a recipe for a glyph: the project's own by its name, else that of its character? */
  recipeFor(name: string, code: number | undefined): OwnRecipe | Recipe | undefined {
    return ownRecipeOf(this.before, name) ?? (code === undefined ? undefined : recipeOf(code));
  }

  /** The drawings of a glyph by its recipe in every master, or why they cannot be made. */
  build(name: string, code: number | undefined): Record<MasterId, Drawing> | Refusal {
    if (this.under.includes(name)) return refused(`${name} would be put together from itself.`);
    this.under.push(name);
    const recipe = this.recipeFor(name, code);
    const parts = !recipe
      ? refused(`${name} is no letter with marks; it is drawn.`)
      : 'parts' in recipe
        ? this.ownIngredients(recipe)
        : this.ingredients(recipe, code === undefined ? '' : String.fromCodePoint(code));
    this.under.pop();
    if (isRefused(parts)) return parts;
    const there = this.named(name) ?? (code === undefined ? undefined : this.forCode(code));
    const out: Record<MasterId, Drawing> = {};
    for (const master of this.project.masters) {
      const drawing = this.assembledIn(master, parts);
      if (isRefused(drawing)) return drawing;
      const was = there && drawingOf(there, master.id);
      // Guides and pictures behind stay; what is drawn is replaced.
      out[master.id] = { ...(was ?? emptyDrawing(0)), contours: [], ...drawing };
    }
    return out;
  }

  private ingredients(recipe: Recipe, letter: string): Ingredients | Refusal {
    const base = this.base(recipe);
    if (isRefused(base)) return base;
    const marks: { id: GlyphId; anchor: string }[] = [];
    for (let i = 0; i < recipe.marks.length; i++) {
      const { mark, anchor } = recipe.marks[i]!;
      const next = recipe.marks[i + 1];
      const both = next?.anchor === anchor ? this.stackDrawn(mark, next.mark, letter) : undefined;
      const found = both ?? this.mark(mark, letter, base);
      if (isRefused(found)) return found;
      marks.push({ id: found.id, anchor });
      if (both) i++;
    }
    const before = this.accentsBefore(recipe.before ?? []);
    if (isRefused(before)) return before;
    const beside: GlyphId[] = [];
    for (const code of recipe.beside ?? []) {
      const found = this.base({ base: code, marks: [] });
      if (isRefused(found)) return found;
      beside.push(found.id);
    }
    return { base: base.id, marks, before, beside };
  }

  /** Parts of a recipe of the project's own, which names glyphs. */
  private ownIngredients(recipe: OwnRecipe): Ingredients | Refusal {
    const ids: GlyphId[] = [];
    for (const name of [recipe.base, ...recipe.parts.map((p) => p.glyph)]) {
      const glyph = this.named(name);
      const code = glyph?.unicodes[0];
      const drawn = this.drawnEverywhere(glyph)
        ? glyph
        : code === undefined
          ? undefined
          : this.base({ base: code, marks: [] });
      if (!drawn || isRefused(drawn)) return refused(`${name} is not drawn yet.`);
      ids.push(drawn.id);
    }
    const parts = recipe.parts.map(({ anchor }, i) => ({ id: ids[i + 1]!, anchor }));
    return {
      base: ids[0]!,
      marks: parts.filter((p) => p.anchor !== ''),
      before: [],
      beside: parts.filter((p) => p.anchor === '').map((p) => p.id),
    };
  }

  /** One drawing for two marks that stand on each other, where there is one: by its name, or as ligatures are named. */
  private stackDrawn(first: number, second: number, letter: string): Glyph | undefined {
    const hex = (c: number) => c.toString(16).toUpperCase().padStart(4, '0');
    const [a, b] = [first, second].map((c) => this.forCode(c)?.name ?? nameOf(c));
    const names = [`${a}_${b}`, `${a}${b}`, `uni${hex(first)}${hex(second)}`];
    const forms = isCapital(letter) ? [CAPITAL_FORM, ''] : [''];
    return names.flatMap((n) => forms.map((f) => this.named(n + f))).find((g): g is Glyph => this.drawnEverywhere(g));
  }

  /** Marks before a capital: one spacing character for all of them, or one after the other. */
  private accentsBefore(marks: readonly number[]): GlyphId[] | Refusal {
    if (marks.length === 0) return [];
    const together = spacingTogether(marks);
    const one = together === undefined ? undefined : this.forCode(together);
    if (this.drawnEverywhere(one)) return [one.id];
    const out: GlyphId[] = [];
    for (const mark of marks) {
      const accent = [...markOf(mark)!.spacing, mark].map((c) => this.forCode(c)).find((g) => this.drawnEverywhere(g));
      if (!accent) return refused(`${nameOf(mark)} is not drawn yet, nor an accent of that shape.`);
      out.push(accent.id);
    }
    return out;
  }

  private assembledIn(master: Master, { base, marks, before, beside }: Ingredients) {
    const source = drawingsOf(this.project, master.id);
    const drawn = (id: GlyphId): Place => {
      const drawing = drawingOf(this.glyphs[id]!, master.id);
      return { glyph: id, advance: drawing.advance, anchors: drawing.anchors, box: drawingBounds(drawing, source) };
    };
    const placed: { place: Place; on: Anchor; at: Anchor; onMark: number }[] = [];
    const last = new Map<string, number>();
    for (const { id, anchor } of marks) {
      const under = last.get(anchor);
      const carrier = under === undefined ? base : marks[under]!.id;
      const on = this.anchored(carrier, anchor, 'takesMark', master);
      const at = this.anchored(id, anchor, 'isMark', master);
      if (!on || !at) {
        const lacking = this.glyphs[on ? id : carrier]!;
        return refused(
          isEmptyDrawing(drawingOf(lacking, master.id))
            ? `${lacking.name} is not drawn in ${master.name}.`
            : `${lacking.name} has no anchor ${on ? '_' : ''}${anchor} in ${master.name}.`,
        );
      }
      placed.push({ place: drawn(id), on, at, onMark: under ?? -1 });
      last.set(anchor, placed.length - 1);
    }
    return assembled(master, this.project.unitsPerEm, {
      base: drawn(base),
      marks: placed.map((p, i) => ({ ...p, anchor: marks[i]!.anchor })),
      before: before.map(drawn),
      beside: beside.map(drawn),
    });
  }

  /** An anchor that a glyph has, or that is placed by its shape and kept; of one master, or of all. */
  anchored(id: GlyphId, anchor: string, role: 'takesMark' | 'isMark', master?: Master): Anchor | undefined {
    const name = role === 'isMark' ? `_${anchor}` : anchor;
    const kind = ANCHOR_NAMES.find((n): n is AnchorName => n === anchor);
    let first: Anchor | undefined;
    for (const m of master ? [master] : this.project.masters) {
      const glyph = this.project.glyphs[id]!;
      const there = anchorNamed(glyph, m, name);
      const placed = there ?? (kind && proposedAnchor(this.project, glyph, m, kind, role));
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

  /** Carets and numbered anchors of a ligature, by those of its letters, in every master where they lack. */
  anchorLigature(id: GlyphId, letters: readonly GlyphId[]): void {
    for (const letter of letters) for (const name of ['top', 'bottom']) this.anchored(letter, name, 'takesMark');
    for (const m of this.project.masters) {
      const glyph = this.project.glyphs[id]!;
      const drawing = drawingOf(glyph, m.id);
      const fresh = ligatureAnchors(this.project, glyph, m).filter(
        (a) => !drawing.anchors.some((o) => o.name === a.name),
      );
      if (fresh.length === 0) continue;
      const next = { ...drawing, anchors: [...drawing.anchors, ...fresh] };
      this.put({ ...glyph, drawings: { ...glyph.drawings, [m.id]: next } });
    }
  }

  drawnEverywhere(glyph: Glyph | undefined): glyph is Glyph {
    return glyph !== undefined && this.project.masters.every((m) => !isEmptyDrawing(drawingOf(glyph, m.id)));
  }

  private base(recipe: Pick<Recipe, 'base' | 'marks'>): Glyph | Refusal {
    const code = baseUnder(recipe);
    const found = this.forCode(code);
    const name = found?.name ?? nameOf(code);
    if (this.drawnEverywhere(found)) return found;
    if (DOTLESS_LETTERS.get(recipe.base) === code) {
      const dotted = this.forCode(recipe.base);
      if (this.drawnEverywhere(dotted)) return this.dotless(dotted, code, found);
    }
    // A letter that has marks of its own may have to be put together first.
    const drawings = this.recipeFor(name, code) && this.build(name, code);
    if (drawings && !isRefused(drawings)) {
      const glyph = found ?? this.added(name, [code]);
      this.put({ ...glyph, drawings: { ...glyph.drawings, ...drawings } });
      this.made.push(glyph.name);
      return this.project.glyphs[glyph.id]!;
    }
    return refused(`${name} is not drawn yet.`);
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

  /**
   * The combining mark; for a capital its own form where there is one, for a letter narrower than it its narrow one; made
   * from the spacing accent where it is missing.
   */
  private mark(code: number, letter = '', base?: Glyph): Glyph | Refusal {
    const found = this.forCode(code);
    const own = found && this.formOf(found, letter, base);
    if (own) return own;
    if (this.drawnEverywhere(found)) return found;
    const kind = markOf(code)!;
    // An accent that is itself built on the mark has nothing to give while the mark is not drawn.
    const accent = kind.spacing
      .map((s) => this.forCode(s))
      .find(
        (g) =>
          this.drawnEverywhere(g) &&
          this.project.masters.every((m) => proposedAnchor(this.project, g, m, kind.anchor, 'isMark')),
      );
    if (!accent) return refused(`${nameOf(code)} is not drawn yet, nor an accent of that shape.`);
    return this.combining(accent, code, found);
  }

  /** The form of a mark for a capital, or for a letter that is narrower than the mark, where it is drawn. */
  private formOf(mark: Glyph, letter: string, base: Glyph | undefined): Glyph | undefined {
    const form = isCapital(letter) ? CAPITAL_FORM : base && this.isNarrower(base, mark) ? NARROW_FORM : undefined;
    const own = form && this.named(mark.name + form);
    return own && this.drawnEverywhere(own) ? own : undefined;
  }

  /** Is a letter less wide than a mark, its advance against the mark's ink, in the first master? */
  private isNarrower(base: Glyph, mark: Glyph): boolean {
    const { id } = this.project.masters[0]!;
    const box = drawingBounds(drawingOf(mark, id), drawingsOf(this.project, id));
    return drawingOf(base, id).advance < box.xMax - box.xMin;
  }

  /** How far a sign moves up or down to stand clear below the baseline, or above the x-height, as a mark. */
  private borrowedRise(sign: Glyph, m: Master, anchor: AnchorName): number {
    const box = drawingBounds(drawingOf(sign, m.id), drawingsOf(this.project, m.id));
    const white = WHITE * this.project.unitsPerEm;
    return Math.round(anchor === 'bottom' ? -white - box.yMax : m.zones.xHeight.position + white - box.yMin);
  }

  /** A mark without width, the accent's drawing as its part, its anchor at zero. */
  private combining(accent: Glyph, code: number, empty: Glyph | undefined): Glyph {
    const { anchor } = markOf(code)!;
    const glyph = empty ?? this.added(nameOf(code), [code]);
    const drawings: Record<MasterId, Drawing> = {};
    for (const m of this.project.masters) {
      const dy = BORROWED.has(code) ? this.borrowedRise(accent, m, anchor) : 0;
      const at = proposedAnchor(this.project, accent, m, anchor, 'isMark')!;
      const d = drawingOf(glyph, m.id);
      const y = dy === 0 ? at.y : anchor === 'bottom' ? 0 : m.zones.xHeight.position;
      // Along the slant, what moves up moves aside.
      const lean = Math.tan((-m.italicAngle * Math.PI) / 180);
      const x = Math.round(at.x + lean * (y - dy - at.y));
      drawings[m.id] = {
        ...d,
        advance: 0,
        components: [{ glyph: accent.id, transform: [1, 0, 0, 1, -x, dy] }],
        anchors: [{ ...at, x: 0, y }],
      };
    }
    this.put({ ...glyph, category: 'mark', drawings: { ...glyph.drawings, ...drawings } });
    this.made.push(glyph.name);
    return this.project.glyphs[glyph.id]!;
  }
}

const isCapital = (letter: string): boolean => letter !== letter.toLowerCase();
