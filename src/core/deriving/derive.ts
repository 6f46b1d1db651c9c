import { numberOfText } from '../base/fingerprint';
import { isRefused } from '../base/result';
import { composed, withAnchors } from '../composing/compose';
import { shifted } from '../drawing/edits';
import { contourBounds } from '../geometry/contour';
import { type Box, emptyBox, isEmptyBox, stretchBox } from '../geometry/curve';
import { tidy } from '../geometry/tidy';
import { emptyDrawing, newGlyph } from '../project/create';
import { withGlyph } from '../project/edit';
import type { Drawing, Glyph, MasterId, Project } from '../project/model';
import { drawingOf, glyphForCodePoint, glyphNamed, isEmptyDrawing } from '../project/queries';
import { derivedDrawing, Ground, heightIn } from './draw';
import { withGroupsLike } from './groups';
import { withCarets } from './ligatures';
import { type Item, isDrawn, needsOf, type SetFacts, type SetTerms, type Way } from './sets';
import { withFollowsLike } from './sides';
import { itemsOf } from './ways';

/** How a glyph of a set stands. */
export type ItemState =
  /** Drawn, by hand or otherwise than by its set. */
  | 'drawn'
  /** Made by its set, and as its set would make it now. */
  | 'made'
  /** Made by its set; what it comes from has changed since. */
  | 'changed'
  /** Made by its set, and corrected by hand since. */
  | 'corrected'
  /** Could be made. */
  | 'can'
  /** Lacks what it comes from. */
  | 'lacks'
  /** Left to be drawn by hand. */
  | 'hand';

export type Drawings = Readonly<Record<MasterId, Drawing>>;
export type Derived = Item & {
  readonly state: ItemState;
  readonly why?: string;
  /** What its set makes of it now; none where it lacks something, and for letters with marks. */
  readonly drawings?: Drawings;
};

/** The numbers of a set: those of the project, else the usual ones. */
export const termsOf = (project: Project, set: SetFacts): SetTerms => ({
  ...set.usual,
  ...project.settings.deriving?.terms?.[set.key],
});

/** The numbers of a glyph of a set: its own in place of those of the set. */
export const termsFor = (project: Project, set: SetFacts, name: string): SetTerms => ({
  ...termsOf(project, set),
  ...project.settings.deriving?.own?.[name],
});

/** The glyph of an item where there is one: by its character, else by its name. */
export const glyphOf = (project: Project, { name, unicodes }: Pick<Item, 'name' | 'unicodes'>): Glyph | undefined =>
  (unicodes[0] === undefined ? undefined : glyphForCodePoint(project, unicodes[0])) ?? glyphNamed(project, name);

/**
 * A number that tells two drawings of a glyph apart, of what is drawn. Sides count only where parts stand in a width:
 * what is scaled is fitted afterwards, and stays what its set made.
 */
export function printOf(project: Project, drawings: Drawings, { how }: Pick<Way, 'how'>): number {
  const text = JSON.stringify(
    project.masters.map((m) => {
      const d = drawings[m.id];
      if (!d) return 0;
      const x = how === 'scaled' ? Math.min(...d.contours.flatMap((c) => c.points.map((p) => p.x))) : 0;
      return [
        how === 'scaled' ? 0 : d.advance,
        d.contours.map((c) => c.points.map((p) => [tidy(p.x - x), p.y, p.type])),
        d.components.map((c) => [c.glyph, c.transform]),
      ];
    }),
  );
  return numberOfText(text);
}

/** Is there anything to see in a glyph, in some master? */
const hasInk = (project: Project, glyph: Glyph | undefined): glyph is Glyph =>
  glyph !== undefined && project.masters.some((m) => !isEmptyDrawing(drawingOf(glyph, m.id)));

/** What a way lacks, in words; undefined where all of it is drawn. */
function lacking(project: Project, way: Way): string | undefined {
  const lack = needsOf(way).filter((n) => !isDrawn(project, glyphNamed(project, n)));
  return lack.length === 0 ? undefined : notDrawn(project, lack);
}

const notDrawn = (project: Project, names: readonly string[]): string =>
  `${names.join(', ')} ${names.length === 1 ? 'is' : 'are'} not drawn${project.masters.length > 1 ? ' in every master' : ''} yet.`;

function drawingsFor(grounds: readonly Ground[], set: SetFacts, terms: SetTerms, way: Way): Drawings | string {
  const out: Record<MasterId, Drawing> = {};
  for (const ground of grounds) {
    const drawing = derivedDrawing(ground, set, terms, way);
    if (isRefused(drawing)) return drawing.reason;
    out[ground.master.id] = drawing;
  }
  return out;
}

/** Glyphs of a set, each with how it stands and what it would look like. */
export function derivedSet(
  project: Project,
  set: SetFacts,
  progress: (done: number, total: number) => void = () => {},
): Derived[] {
  const grounds = project.masters.map((m) => new Ground(project, m));
  const prints = new Map(
    project.settings.deriving?.made?.flatMap((m) => (m.set === set.key ? [[m.glyph, m.print] as const] : [])),
  );
  const items = itemsOf(project, set);
  const all = items.map((item, i): Derived => {
    if (i % 4 === 0) progress(i, items.length);
    const glyph = glyphOf(project, item);
    const drawn = hasInk(project, glyph);
    const print = glyph && prints.get(glyph.id);
    if (item.byHand) return { ...item, state: drawn ? 'drawn' : 'hand' };
    const why = lacking(project, item.way);
    if (drawn && (print === undefined || item.way.how === 'marked')) return { ...item, state: 'drawn' };
    if (drawn && print !== printOf(project, glyph.drawings, item.way)) return { ...item, state: 'corrected' };
    if (why !== undefined) return drawn ? { ...item, state: 'made' } : { ...item, state: 'lacks', why };
    if (item.way.how === 'marked') return { ...item, state: 'can' };
    const drawings = drawingsFor(grounds, set, termsFor(project, set, item.name), item.way);
    if (typeof drawings === 'string') return { ...item, state: drawn ? 'made' : 'lacks', why: drawings };
    if (drawn) return { ...item, state: print === printOf(project, drawings, item.way) ? 'made' : 'changed', drawings };
    return { ...item, state: 'can', drawings };
  });
  // What only lacks glyphs that can be made with it can be made too.
  const coming = new Set(all.flatMap((i) => (i.state === 'can' ? [i.name] : [])));
  return all.map((item): Derived => {
    if (item.state !== 'lacks') return item;
    const lack = needsOf(item.way).filter((n) => !isDrawn(project, glyphNamed(project, n)));
    if (lack.length === 0) return item;
    const first = lack.filter((n) => !coming.has(n));
    // What comes with it is not what it lacks.
    if (first.length > 0) return { ...item, why: notDrawn(project, first) };
    const { why: _, ...rest } = item;
    return { ...rest, state: 'can' };
  });
}

/** A project with all glyphs of a set made that can be, letters with marks too: for pictures of what lacks only its fellows. */
export function drafted(project: Project, set: SetFacts, items: readonly Derived[]): Project {
  const ready = items.filter((i) => i.state === 'can' && i.drawings);
  let current = project;
  for (const item of ready) current = withDrawings(current, set, item, item.drawings!);
  const bases = ready.flatMap((i) => glyphNamed(current, i.name)?.id ?? []);
  if (bases.length > 0) current = withAnchors(current, bases).project;
  const waiting = items.filter((i) => i.state === 'can' && !i.drawings);
  const grounds = current.masters.map((m) => new Ground(current, m));
  for (const item of waiting) {
    if (item.way.how === 'marked' || lacking(current, item.way) !== undefined) continue;
    const drawings = drawingsFor(grounds, set, termsFor(project, set, item.name), item.way);
    if (typeof drawings !== 'string') current = withDrawings(current, set, item, drawings);
  }
  return withMarked(current, waiting).project;
}

/** What making a set came to. */
export type MadeSet = {
  readonly project: Project;
  readonly made: readonly string[];
  readonly updated: readonly string[];
  readonly left: readonly { readonly name: string; readonly why: string }[];
};

/**
 * Makes the glyphs of a set that can be made, or those of them that are named, in every master; those made before follow what
 * they come from. What is drawn or was corrected by hand stays. Letters with marks are put together after what carries them;
 * what is made joins groups like those of what it comes from.
 */
export function madeSet(
  project: Project,
  set: SetFacts,
  names?: readonly string[],
  progress: (done: number, total: number) => void = () => {},
): MadeSet {
  const wanted = names && new Set(names);
  const made: string[] = [];
  const updated: string[] = [];
  let current = project;
  const from = new Map<string, string>();
  // What builds on others of its set comes after them: nothing new is made by the last pass.
  for (let pass = 0; pass < 4; pass++) {
    const items = derivedSet(current, set, pass === 0 ? progress : undefined).filter(
      (i) => !wanted || wanted.has(i.name),
    );
    const ready = items.filter((i) => i.drawings && (i.state === 'can' || i.state === 'changed'));
    const marked = items.filter((i) => i.state === 'can' && i.way.how === 'marked');
    if (ready.length === 0 && marked.length === 0) break;
    for (const item of ready) {
      current = withDrawings(current, set, item, item.drawings!);
      (item.state === 'can' ? made : updated).push(item.name);
      if ('of' in item.way && typeof item.way.of === 'string' && item.way.how !== 'framed')
        from.set(item.name, item.way.of);
    }
    const bases = ready.flatMap((i) => glyphNamed(current, i.name)?.id ?? []);
    if (set.key === 'smallCaps' && bases.length > 0) current = withAnchors(withZone(current, set), bases).project;
    if (ready.length > 0) continue;
    const put = withMarked(current, marked);
    current = put.project;
    made.push(...put.built);
    break;
  }
  const left = derivedSet(current, set)
    .filter((i) => i.state === 'lacks' && (!wanted || wanted.has(i.name)))
    .map((i) => ({ name: i.name, why: i.why ?? '' }));
  if (set.key === 'ligatures') current = withCarets(current, made);
  const fresh = new Set(made);
  const spaced = withFollowsLike(current, new Map([...from].filter(([name]) => fresh.has(name))));
  return { project: withGroupsLike(spaced, from, set.key), made, updated, left };
}

/** One glyph made of others that is in no list of a set. */
export function madeItem(project: Project, set: SetFacts, item: Item): Project | string {
  const glyph = glyphOf(project, item);
  if (hasInk(project, glyph)) return `${item.name} is drawn already.`;
  const lack = lacking(project, item.way);
  if (lack !== undefined) return lack;
  const grounds = project.masters.map((m) => new Ground(project, m));
  const drawings = drawingsFor(grounds, set, termsFor(project, set, item.name), item.way);
  if (typeof drawings === 'string') return drawings;
  const next = withDrawings(project, set, item, drawings);
  return set.key === 'ligatures' ? withCarets(next, [item.name]) : next;
}

/** A glyph of a set with its drawings, new or filled, and noted as made by its set. */
function withDrawings(project: Project, set: SetFacts, item: Item, drawings: Drawings): Project {
  const known = glyphOf(project, item);
  const glyph =
    known ?? newGlyph(`g${project.nextId}`, item.name, [...item.unicodes], project.masters, project.unitsPerEm / 2);
  const kept = Object.fromEntries(
    Object.entries(drawings).map(([id, d]) => {
      const was = glyph.drawings[id] ?? emptyDrawing(0);
      const { advance, contours, components, anchors } = item.way.how === 'scaled' ? atSidesOf(was, d) : d;
      return [id, { ...was, advance, contours, components, anchors }];
    }),
  );
  const next = withGlyph(project, { ...glyph, drawings: { ...glyph.drawings, ...kept } });
  const deriving = project.settings.deriving ?? {};
  const others = (deriving.made ?? []).filter((m) => m.glyph !== glyph.id);
  const note = { glyph: glyph.id, set: set.key, print: printOf(project, kept, item.way) };
  return {
    ...next,
    settings: { ...next.settings, deriving: { ...deriving, made: [...others, note] } },
    ...(!known && { nextId: project.nextId + 1, glyphOrder: [...project.glyphOrder, glyph.id] }),
  };
}

/** A new outline at the sides that the glyph has: they are set in fitting once it is made. */
function atSidesOf(was: Drawing, made: Drawing): Drawing {
  const [old, now] = [boundsOf(was), boundsOf(made)];
  if (isEmptyBox(old) || isEmptyBox(now)) return made;
  const by = tidy(old.xMin - now.xMin);
  return {
    ...shifted(made, by),
    advance: Math.max(0, tidy(was.advance + (now.xMax - now.xMin) - (old.xMax - old.xMin))),
  };
}

function boundsOf({ contours }: Drawing): Box {
  const box = emptyBox();
  for (const { xMin, xMax, yMin, yMax } of contours.map(contourBounds)) {
    stretchBox(box, xMin, yMin);
    stretchBox(box, xMax, yMax);
  }
  return box;
}

/** Glyphs of a set noted as they stand: what moved them was no correction. */
export function noted(project: Project, set: SetFacts, names: readonly string[]): Project {
  const prints = new Map(
    itemsOf(project, set).flatMap((i) => {
      const glyph = names.includes(i.name) ? glyphOf(project, i) : undefined;
      return glyph ? [[glyph.id, printOf(project, glyph.drawings, i.way)] as const] : [];
    }),
  );
  const made = (project.settings.deriving?.made ?? []).map((m) => {
    const print = m.set === set.key ? prints.get(m.glyph) : undefined;
    return print === undefined ? m : { ...m, print };
  });
  return { ...project, settings: { ...project.settings, deriving: { ...project.settings.deriving, made } } };
}

/** Letters with marks by recipes of the project's own: a changed letter or mark then reaches them as it does others. */
function withMarked(project: Project, items: readonly Derived[]): { project: Project; built: readonly string[] } {
  const own = items.flatMap(({ name, way }) =>
    way.how === 'marked' && isDrawn(project, glyphNamed(project, way.base))
      ? [{ glyph: name, base: way.base, parts: [...way.marks] }]
      : [],
  );
  const names = new Set(own.map((r) => r.glyph));
  const recipes = [...(project.settings.recipes ?? []).filter((r) => !names.has(r.glyph)), ...own];
  const { project: next, built } = composed({ ...project, settings: { ...project.settings, recipes } }, [...names]);
  // Recipes of what could not be built are of no use.
  const done = new Set(built);
  const kept = recipes.filter((r) => !names.has(r.glyph) || done.has(r.glyph));
  return { project: { ...next, settings: { ...next.settings, recipes: kept } }, built };
}

const ZONE = 'small capitals';

/** The height of small capitals as a zone of every master, where it has none of that name. */
function withZone(project: Project, set: SetFacts): Project {
  const terms = termsOf(project, set);
  return {
    ...project,
    masters: project.masters.map((m) => {
      if (m.zones.own.some((z) => z.name === ZONE)) return m;
      const position = Math.round(heightIn(new Ground(project, m), set, terms));
      const zone = { name: ZONE, position, overshoot: m.zones.xHeight.overshoot };
      return { ...m, zones: { ...m.zones, own: [...m.zones.own, zone] } };
    }),
  };
}
