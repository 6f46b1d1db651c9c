import { sameItems } from '../base/sharing';
import type { Language } from '../coverage/languages';
import type { OutOfDate } from '../fitting/follows';
import type { Glyph, GlyphId, Master, MasterId, Project } from '../project/model';
import { drawingsOf, heightsOf } from '../project/outline';
import { drawingOf, glyphsInOrder, isEmptyDrawing } from '../project/queries';
import { designs } from '../variation/between';
import { Changes, partsOf } from './changes';
import { characterFindings } from './characters';
import { featureFindings } from './features';
import type { Finding } from './finding';
import { advanceFindings, figureFindings, followFindings, lateSides, sideFindings } from './fitting';
import { heightFindings } from './heights';
import { amountsOf, isJudged } from './judged';
import { kerningFindings } from './kerning';
import { kindOf, rankOf } from './kinds';
import { type EndsOf, lineFindings } from './lines';
import { agreementFindings, betweenFindings, familyFindings } from './masters';
import { nameFindings } from './names';
import { type OutlineJudgement, outlineFindings, outlineJudgement } from './outlineFindings';
import { anchorFindings, partFindings } from './parts';
import { Touching } from './touching';

/** What findings are of a glyph by itself: known again while it, its parts and the judgement are the same. */
type GlyphKnown = { readonly of: readonly unknown[]; readonly findings: readonly Finding[]; readonly ends: Ends };
type Ends = ReturnType<EndsOf>;

/**
 * Finds all that is wrong with a project, and after a change only looks again at what may have changed. Findings of one glyph are known by the
 * identity of the glyph and of what it is built of; those of the whole by the parts of the project that they read.
 */
export class Preflight {
  private judgement: OutlineJudgement | undefined;
  private judgedBy: readonly unknown[] = [];
  private readonly glyphs = new WeakMap<Glyph, GlyphKnown>();
  private readonly between = new WeakMap<Glyph, GlyphKnown>();
  private readonly touching = new Touching();
  private readonly changes = new Changes();
  private readonly late = new Map<MasterId, { of: readonly unknown[]; late: readonly OutOfDate[] }>();
  private space: readonly unknown[] = [];
  private ends: EndsKnown = { order: [], ends: [], cast: [] };
  private readonly parts = new Map<string, { of: readonly unknown[]; findings: readonly Finding[] }>();

  /** `languages`: those that are told when they lack a letter or two. */
  constructor(private readonly languages: readonly Language[] = []) {}

  /** Everything at once. */
  check(project: Project, progress: (done: number, total: number) => void = () => {}): readonly Finding[] {
    let out: readonly Finding[] = [];
    for (const step of this.steps(project)) {
      progress(step.done, step.total);
      out = step.findings ?? out;
    }
    return out;
  }

  /**
   * The check in steps, so that it can be shown as it goes and left off: each says how far it is; `findings` is given in the first step that shows
   * something and in the last, sorted, the worst first.
   */
  *steps(project: Project): Generator<{ done: number; total: number; findings?: readonly Finding[] }> {
    const glyphs = glyphsInOrder(project);
    const judgement = this.judge(project);
    const total = glyphs.length * 2 + PARTS.length;
    const own: Finding[] = [];
    const shown = () => this.judged(project, own);
    let done = 0;
    let early = false;
    this.forgetGone(project);
    const since = this.changes.since(project, [judgement, project.axes]);
    for (const glyph of glyphs) {
      const known = since?.has(glyph.id) === false ? this.glyphs.get(glyph) : undefined;
      own.push(...(known?.findings ?? this.ofGlyph(project, glyph, judgement)));
      if (++done % 16 !== 0) continue;
      // What is found first is shown while the rest is looked for.
      if (!early && this.parts.size === 0 && own.length > 0 && done >= 32) {
        early = true;
        yield { done, total, findings: shown() };
      } else yield { done, total };
    }
    this.changes.seen(project, [judgement, project.axes]);
    const space = betweenOf(project);
    if (this.parts.size === 0 || !sameItems(this.space, space)) {
      // What was known of the rest stands until that is looked at again; where little of it is, that takes but a moment.
      const before = [...this.parts.values()].flatMap((p) => p.findings);
      const between = glyphs.flatMap((g) => this.between.get(g)?.findings ?? []);
      yield { done, total, findings: this.judged(project, [...own, ...before, ...between]) };
    }
    this.space = space;
    for (const part of PARTS) {
      own.push(...this.ofPart(project, glyphs, part));
      yield { done: ++done, total };
    }
    // Worked out where a glyph is to be looked at anew only.
    let worked: ReturnType<typeof designs> | undefined;
    const all = () => {
      worked ??= designs(project);
      return worked;
    };
    for (const glyph of glyphs) {
      own.push(...this.betweenMasters(project, glyph, all, space));
      if (++done % 16 === 0) yield { done, total };
    }
    yield { done: total, total, findings: shown() };
  }

  /** Every finding of a kind, one by one also where it is a habit. */
  ofKind(project: Project, kind: string): readonly Finding[] {
    this.check(project);
    const glyphs = glyphsInOrder(project);
    const all = [
      ...glyphs.flatMap((g) => this.glyphs.get(g)?.findings ?? []),
      ...[...this.parts.values()].flatMap((p) => p.findings),
      ...glyphs.flatMap((g) => this.between.get(g)?.findings ?? []),
    ];
    return this.judged(
      project,
      all.filter((f) => f.kind === kind),
      false,
    );
  }

  /** Findings of one glyph by itself, as it is now; of one kind only, where that is all that is asked. */
  glyphFindings(project: Project, id: GlyphId, kind?: string): readonly Finding[] {
    const glyph = project.glyphs[id];
    if (!glyph) return [];
    const own = this.ofGlyph(project, glyph, this.judge(project));
    // What lies between masters takes its time.
    const wanted = kind === undefined || kindOf(kind)?.family === 'masters';
    const between = wanted ? this.betweenMasters(project, glyph, () => designs(project), betweenOf(project)) : [];
    const found = this.judged(project, [...own, ...between], false);
    return kind === undefined ? found : found.filter((f) => f.kind === kind);
  }

  private judge(project: Project): OutlineJudgement {
    const by = [project.settings.preflight?.kinds, project.settings.grid, project.unitsPerEm];
    if (!this.judgement || !sameItems(by, this.judgedBy)) {
      this.judgement = outlineJudgement(project, (kind) => isJudged(project, kind), amountsOf(project));
      this.judgedBy = by;
    }
    return this.judgement;
  }

  private ofGlyph(project: Project, glyph: Glyph, judgement: OutlineJudgement): readonly Finding[] {
    const of = [judgement, mastersGist(project), project.axes, ...builtOf(project, glyph)];
    const known = this.glyphs.get(glyph);
    if (known && sameItems(known.of, of)) return known.findings;
    const amounts = amountsOf(project);
    const findings = [
      ...outlineFindings(project, glyph, judgement),
      ...partFindings(project, glyph, amounts),
      ...advanceFindings(project, glyph, amounts),
      ...agreementFindings(project, glyph),
    ];
    const ends = project.masters.map((m) => heightsOf(drawingOf(glyph, m.id), drawingsOf(project, m.id)));
    this.glyphs.set(glyph, { of, findings, ends });
    return findings;
  }

  private betweenMasters(
    project: Project,
    glyph: Glyph,
    all: () => ReturnType<typeof designs>,
    of: readonly unknown[],
  ): readonly Finding[] {
    if (project.masters.length < 2) return [];
    const known = this.between.get(glyph);
    if (known && sameItems(known.of, of)) return known.findings;
    const findings = betweenFindings(project, glyph, all(), amountsOf(project));
    this.between.set(glyph, { of, findings, ends: [] });
    return findings;
  }

  private ofPart(project: Project, glyphs: readonly Glyph[], part: Part): readonly Finding[] {
    if ('inMaster' in part)
      return project.masters.flatMap((m, i) => {
        const of = [this.changes.of(m.id), mastersGist(project)[i]];
        return this.known(project, `${part.name} ${m.id}`, of, () => this.foundIn(project, glyphs, part.name, m));
      });
    const of: unknown[] = part.of(project);
    if ('ends' in part) of.push(this.endsOf(glyphs));
    return this.known(project, part.name, of, () => this.foundIn(project, glyphs, part.name));
  }

  /** What was found in masters that are gone is not told any more. */
  private forgetGone(project: Project): void {
    const there = new Set<string>(
      PARTS.flatMap((p) => ('inMaster' in p ? project.masters.map((m) => `${p.name} ${m.id}`) : [p.name])),
    );
    for (const name of this.parts.keys()) if (!there.has(name)) this.parts.delete(name);
  }

  /** What was found before, while what it was found in is the same. */
  private known(
    project: Project,
    name: string,
    made: readonly unknown[],
    find: () => readonly Finding[],
  ): readonly Finding[] {
    const of = [project.settings.preflight?.kinds, project.unitsPerEm, ...made];
    const held = this.parts.get(name);
    if (held && sameItems(held.of, of)) return held.findings;
    const findings = find();
    this.parts.set(name, { of, findings });
    return findings;
  }

  /** How low and high glyphs reach: the same thing again while no glyph reaches otherwise. */
  private endsOf(glyphs: readonly Glyph[]): EndsKnown {
    const { order, ends, cast } = this.ends;
    const now = glyphs.map((g) => this.glyphs.get(g)?.ends ?? []);
    const alike =
      order.length === glyphs.length &&
      glyphs.every((g, i) => order[i] === g.id && cast[i] === g.cast && sameEnds(ends[i]!, now[i]!));
    if (!alike) this.ends = { order: glyphs.map((g) => g.id), ends: now, cast: glyphs.map((g) => g.cast) };
    return this.ends;
  }

  /** Sides of a master that are not what their rules say. */
  private outOfDateIn(project: Project, master: Master, version: (id: GlyphId) => object): readonly OutOfDate[] {
    const of = [this.changes.of(master.id), master];
    const held = this.late.get(master.id);
    if (held && sameItems(held.of, of)) return held.late;
    const late = lateSides(project, master, version);
    this.late.set(master.id, { of, late });
    return late;
  }

  private foundIn(
    project: Project,
    glyphs: readonly Glyph[],
    part: PartName,
    master = project.masters[0]!,
  ): readonly Finding[] {
    const amounts = amountsOf(project);
    const ends: EndsOf = (g) => this.glyphs.get(g)?.ends ?? [];
    // What is known of a glyph is another thing when it or a part of it has changed.
    const version = (id: GlyphId): object => this.glyphs.get(project.glyphs[id]!) ?? project.glyphs[id]!;
    switch (part) {
      case 'characters':
        return characterFindings(project, glyphs, this.languages, amounts);
      case 'names':
        return nameFindings(project);
      case 'family':
        return familyFindings(project, amounts);
      case 'lines':
        return lineFindings(project, glyphs, ends, amounts);
      case 'heights':
        return heightFindings(project, master, glyphs, amounts);
      case 'anchors':
        return anchorFindings(project, glyphs, ends, amounts);
      case 'follows':
        return followFindings(project, (m) => this.outOfDateIn(project, m, version));
      case 'figures':
        return figureFindings(project);
      case 'sides':
        return sideFindings(project, master, glyphs, amounts);
      case 'kerning':
        return kerningFindings(project, amounts);
      case 'touching':
        return this.touching.findings(project, amounts, version);
      case 'features':
        return featureFindings(project);
    }
  }

  /** What is judged in the project, habits told once, the worst first. */
  private judged(project: Project, findings: readonly Finding[], habits = true): readonly Finding[] {
    const on = findings.filter((f) => isJudged(project, f.kind));
    const one = mergedMasters(on);
    const told = habits ? withHabits(project, one) : one;
    const nameOf = (f: Finding) => (f.glyph === undefined ? '' : (project.glyphs[f.glyph]?.name ?? ''));
    const named = told.map((f) => ({ f, rank: rankOf(f.kind), name: nameOf(f) }));
    named.sort((a, b) => a.rank - b.rank || b.f.bad - a.f.bad || (a.name < b.name ? -1 : a.name > b.name ? 1 : 0));
    return named.map(({ f }) => f);
  }
}

type EndsKnown = {
  readonly order: readonly GlyphId[];
  readonly ends: readonly Ends[];
  readonly cast: readonly boolean[];
};

const sameEnds = (a: Ends, b: Ends): boolean =>
  a === b || (a.length === b.length && a.every((e, i) => e === b[i] || (e?.[0] === b[i]?.[0] && e?.[1] === b[i]?.[1])));

/** What of a project counts for what lies between masters, beside the glyphs. */
const betweenOf = (p: Project): readonly unknown[] => [
  mastersGist(p),
  p.axes,
  p.instances,
  p.settings.preflight?.kinds,
];

/** The glyphs that a glyph is built of, and those that they are. */
function builtOf(project: Project, glyph: Glyph): readonly Glyph[] {
  if (partsOf(glyph).length === 0) return [];
  const out = new Set<Glyph>();
  const visit = (g: Glyph, depth: number) => {
    for (const id of partsOf(g)) {
      const part = project.glyphs[id];
      if (!part || out.has(part) || depth > 16) continue;
      out.add(part);
      visit(part, depth + 1);
    }
  };
  visit(glyph, 0);
  return [...out];
}

/** Findings that stand in several masters of a glyph as one, with one mend for all of them; the worst speaks. */
function mergedMasters(findings: readonly Finding[]): Finding[] {
  const out: Finding[] = [];
  const held = new Map<string, { at: number; all: Finding[] }>();
  for (const f of findings) {
    if (!kindOf(f.kind)?.perMaster) {
      out.push(f);
      continue;
    }
    const [mend] = f.mends;
    const key = `${f.kind} ${f.glyph ?? ''} ${f.contour ?? ''} ${f.point ?? ''} ${f.section ?? ''} ${mend?.edit ?? ''} ${sideOf(mend)}`;
    const own = held.get(key);
    if (own) own.all.push(f);
    else {
      held.set(key, { at: out.length, all: [f] });
      out.push(f);
    }
  }
  for (const { at, all } of held.values()) {
    if (all.length === 1) continue;
    const worst = all.reduce((a, b) => (b.bad > a.bad ? b : a));
    const masters = [...new Set([...worst.masters, ...all.flatMap((f) => f.masters)])];
    const mends = all.flatMap((f) => f.mends.slice(0, 1));
    out[at] = {
      ...worst,
      masters,
      mends:
        mends.length === all.length
          ? [
              {
                edit: 'mendTogether',
                args: { edits: mends.map(({ edit, args }) => ({ edit, args })) },
                title: `${worst.mends[0]!.title}, and so in ${all.length - 1} more master${all.length > 2 ? 's' : ''}`,
              },
            ]
          : worst.mends,
    };
  }
  return out;
}

/** Which side or axis a mend is about: the left is not the right one’s fellow. */
const sideOf = (mend: Finding['mends'][number] | undefined): string => {
  const args = (mend?.args ?? {}) as Record<string, unknown>;
  return ['left', 'right', 'axis', 'fact', 'name', 'zone']
    .map((k) => (k in args ? `${k}${k === 'left' || k === 'right' ? '' : args[k]}` : ''))
    .join('');
};

const drawnKnown = new WeakMap<Gist, { masters: number; count: number }>();

/** How many glyphs are drawn in some master. */
function drawnIn(project: Project): number {
  const of = gist(project);
  const known = drawnKnown.get(of);
  if (known?.masters === project.masters.length) return known.count;
  const count = Object.values(project.glyphs).filter((g) =>
    project.masters.some((m) => !isEmptyDrawing(drawingOf(g, m.id))),
  ).length;
  drawnKnown.set(of, { masters: project.masters.length, count });
  return count;
}

/** What this share of the drawn glyphs has is how the family is drawn. */
const HABIT = { share: 1 / 4, glyphs: 15 };

/** Kinds that most glyphs have become one finding for the whole project. */
function withHabits(project: Project, findings: readonly Finding[]): Finding[] {
  const owners = new Map<string, Set<GlyphId>>();
  for (const f of findings) {
    if (!f.glyph || !kindOf(f.kind)?.habit) continue;
    const own = owners.get(f.kind) ?? new Set();
    own.add(f.glyph);
    owners.set(f.kind, own);
  }
  if (![...owners.values()].some((own) => own.size >= HABIT.glyphs)) return [...findings];
  const drawn = drawnIn(project);
  const habits = new Map([...owners].filter(([, own]) => own.size >= HABIT.glyphs && own.size > drawn * HABIT.share));
  if (habits.size === 0) return [...findings];
  return [
    ...findings.filter((f) => !habits.has(f.kind)),
    ...[...habits].map(
      ([kind, own]): Finding => ({
        kind,
        reason:
          kindOf(kind)?.habitSays?.(own.size) ??
          `${own.size} of ${drawn} drawn glyphs have this: it is how the family is drawn, and told once.`,
        bad: own.size,
        masters: [],
        spots: [],
        others: [...own],
        mends: [],
        mendable: findings.filter((f) => f.kind === kind && f.mends.length > 0).length,
      }),
    ),
  ];
}

let newestMasters: Project['masters'] = [];
const mastersBut = new WeakMap<Project['masters'], Project['masters']>();

/** Masters but for their kerning: the same list again while nothing else of them has changed. */
function mastersGist({ masters }: Project): Project['masters'] {
  const known = mastersBut.get(masters);
  if (known) return known;
  const alike = (a: Master, b: Master): boolean =>
    a === b || (Object.keys({ ...a, ...b }) as (keyof Master)[]).every((k) => k === 'kerning' || a[k] === b[k]);
  const held = newestMasters;
  newestMasters = held.length === masters.length && held.every((m, i) => alike(m, masters[i]!)) ? held : masters;
  mastersBut.set(masters, newestMasters);
  return newestMasters;
}

type Gist = { readonly glyphs: Project['glyphs']; readonly order: Project['glyphOrder'] };
let newestGist: Gist | undefined;
const gists = new WeakMap<Project['glyphs'], Gist>();

/**
 * What of all glyphs counts for characters and rules: the same thing again while names, characters, widths, anchors and whether anything is
 * drawn are the same, however outlines change.
 */
function gist(project: Project): Gist {
  const { glyphs, glyphOrder: order } = project;
  const known = gists.get(glyphs);
  if (known?.order === order) return known;
  const found = gistOf(glyphs, order);
  gists.set(glyphs, found);
  return found;
}

function gistOf(glyphs: Project['glyphs'], order: Project['glyphOrder']): Gist {
  const held = newestGist;
  if (held?.glyphs === glyphs && held.order === order) return held;
  const alike = (a: Glyph | undefined, b: Glyph | undefined): boolean =>
    a === b ||
    (a !== undefined &&
      b !== undefined &&
      a.name === b.name &&
      a.unicodes === b.unicodes &&
      a.category === b.category &&
      a.cast === b.cast &&
      a.productionName === b.productionName &&
      Object.keys(a.drawings).length === Object.keys(b.drawings).length &&
      Object.entries(a.drawings).every(([m, d]) => {
        const o = b.drawings[m];
        return (
          o === d ||
          (o !== undefined &&
            o.advance === d.advance &&
            o.anchors === d.anchors &&
            (o.contours.length === 0) === (d.contours.length === 0) &&
            isEmptyDrawing(o) === isEmptyDrawing(d))
        );
      }));
  if (held?.order === order && order.every((id) => alike(held.glyphs[id], glyphs[id]))) return held;
  newestGist = { glyphs, order };
  return newestGist;
}

/** What is looked at over the whole project, in the order in which it is shown, and what of the project each looks at. */
const PARTS = [
  { name: 'characters', of: (p: Project) => [gist(p), p.masters.length] },
  { name: 'names', of: (p: Project) => [p.family, mastersGist(p), p.instances, p.axes] },
  { name: 'family', of: (p: Project) => [p.masters, p.instances, p.axes] },
  { name: 'lines', of: (p: Project) => [gist(p), mastersGist(p)], ends: true },
  { name: 'heights', inMaster: true },
  { name: 'anchors', of: (p: Project) => [gist(p), mastersGist(p)], ends: true },
  { name: 'figures', of: (p: Project) => [gist(p), p.masters.length] },
  { name: 'follows', of: (p: Project) => [p.glyphs, mastersGist(p)] },
  { name: 'sides', inMaster: true },
  { name: 'kerning', of: (p: Project) => [p.masters, p.groups, p.glyphOrder] },
  { name: 'touching', of: (p: Project) => [p.masters, p.groups, p.glyphs] },
  { name: 'features', of: (p: Project) => [p.features, gist(p)] },
] as const;
type Part = (typeof PARTS)[number];
type PartName = Part['name'];
