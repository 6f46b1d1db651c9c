import type { Language } from '../coverage/languages';
import type { Glyph, GlyphId, Project } from '../project/model';
import { drawingOf, glyphsInOrder, isEmptyDrawing } from '../project/queries';
import { designs } from '../variation/between';
import { characterFindings } from './characters';
import { featureFindings } from './features';
import type { Finding } from './finding';
import { advanceFindings, sideFindings } from './fitting';
import { heightFindings } from './heights';
import { amountsOf, isJudged } from './judged';
import { kerningFindings, touchingFindings } from './kerning';
import { kindOf, rankOf } from './kinds';
import { lineFindings } from './lines';
import { agreementFindings, betweenFindings, familyFindings } from './masters';
import { nameFindings } from './names';
import { type OutlineJudgement, outlineFindings, outlineJudgement } from './outlineFindings';
import { anchorFindings, partFindings } from './parts';

/** A part of the whole check: `of` is what it looks at, so that the same again needs no second look. */
type Part = {
  readonly name: string;
  readonly of: (project: Project) => readonly unknown[];
  readonly find: (project: Project, glyphs: readonly Glyph[]) => Finding[];
};

/** What findings are of a glyph by itself: known again while it, its parts and the judgement are the same. */
type GlyphKnown = { readonly of: readonly unknown[]; readonly findings: readonly Finding[] };

/**
 * Finds all that is wrong with a project, and after a change only looks again at what may have changed. Findings of one glyph are known by the
 * identity of the glyph and of what it is built of; those of the whole by the parts of the project that they read.
 */
export class Preflight {
  private judgement: OutlineJudgement | undefined;
  private judgedBy: readonly unknown[] = [];
  private readonly glyphs = new WeakMap<Glyph, GlyphKnown>();
  private readonly between = new WeakMap<Glyph, GlyphKnown>();
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
    for (const glyph of glyphs) {
      own.push(...this.ofGlyph(project, glyph, judgement));
      if (++done % 16 !== 0) continue;
      // What is found first is shown while the rest is looked for.
      if (!early && own.length > 0 && done >= 48) {
        early = true;
        yield { done, total, findings: shown() };
      } else yield { done, total };
    }
    yield { done, total, findings: shown() };
    for (const part of PARTS) {
      own.push(...this.ofPart(project, glyphs, part));
      yield { done: ++done, total };
    }
    const all = project.masters.length > 1 ? designs(project) : [];
    for (const glyph of glyphs) {
      own.push(...this.betweenMasters(project, glyph, all));
      if (++done % 16 === 0) yield { done, total };
    }
    yield { done: total, total, findings: shown() };
  }

  /** Findings of one glyph by itself, as it is now. */
  glyphFindings(project: Project, id: GlyphId): readonly Finding[] {
    const glyph = project.glyphs[id];
    if (!glyph) return [];
    const all = project.masters.length > 1 ? designs(project) : [];
    return this.judged(
      project,
      [...this.ofGlyph(project, glyph, this.judge(project)), ...this.betweenMasters(project, glyph, all)],
      false,
    );
  }

  private judge(project: Project): OutlineJudgement {
    const by = [project.settings.preflight?.kinds, project.settings.grid, project.unitsPerEm];
    if (!this.judgement || !same(by, this.judgedBy)) {
      this.judgement = outlineJudgement(project, (kind) => isJudged(project, kind), amountsOf(project));
      this.judgedBy = by;
    }
    return this.judgement;
  }

  private ofGlyph(project: Project, glyph: Glyph, judgement: OutlineJudgement): readonly Finding[] {
    const of = [judgement, project.masters, project.axes, ...builtOf(project, glyph)];
    const known = this.glyphs.get(glyph);
    if (known && same(known.of, of)) return known.findings;
    const amounts = amountsOf(project);
    const findings = [
      ...outlineFindings(project, glyph, judgement),
      ...partFindings(project, glyph, amounts),
      ...advanceFindings(project, glyph, amounts),
      ...agreementFindings(project, glyph),
    ];
    this.glyphs.set(glyph, { of, findings });
    return findings;
  }

  private betweenMasters(project: Project, glyph: Glyph, all: ReturnType<typeof designs>): readonly Finding[] {
    if (project.masters.length < 2) return [];
    const of = [project.masters, project.axes, project.instances, project.settings.preflight?.kinds];
    const known = this.between.get(glyph);
    if (known && same(known.of, of)) return known.findings;
    const findings = betweenFindings(project, glyph, all, amountsOf(project));
    this.between.set(glyph, { of, findings });
    return findings;
  }

  private ofPart(
    project: Project,
    glyphs: readonly Glyph[],
    part: Part & { needsLanguages?: boolean },
  ): readonly Finding[] {
    const of = [project.settings.preflight?.kinds, project.unitsPerEm, ...part.of(project)];
    const known = this.parts.get(part.name);
    if (known && same(known.of, of)) return known.findings;
    const findings =
      part.name === 'characters'
        ? characterFindings(project, glyphs, this.languages, amountsOf(project))
        : part.find(project, glyphs);
    this.parts.set(part.name, { of, findings });
    return findings;
  }

  /** What is judged in the project, habits told once, the worst first. */
  private judged(project: Project, findings: readonly Finding[], habits = true): readonly Finding[] {
    const on = findings.filter((f) => isJudged(project, f.kind));
    const one = mergedMasters(on);
    const told = habits ? withHabits(project, one) : one;
    return [...told].sort(
      (a, b) =>
        rankOf(a.kind) - rankOf(b.kind) ||
        b.bad - a.bad ||
        (project.glyphs[a.glyph ?? '']?.name ?? '').localeCompare(project.glyphs[b.glyph ?? '']?.name ?? '', 'en'),
    );
  }
}

const same = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((v, i) => v === b[i]);

/** The glyphs that a glyph is built of, and those that they are. */
function builtOf(project: Project, glyph: Glyph): Glyph[] {
  const out = new Set<Glyph>();
  const visit = (g: Glyph, depth: number) => {
    for (const d of Object.values(g.drawings))
      for (const c of d.components) {
        const part = project.glyphs[c.glyph];
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

/** What this share of the drawn glyphs has is how the family is drawn. */
const HABIT = { share: 1 / 4, glyphs: 15 };

/** Kinds that most glyphs have become one finding for the whole project. */
function withHabits(project: Project, findings: readonly Finding[]): Finding[] {
  const drawn = Object.values(project.glyphs).filter((g) =>
    project.masters.some((m) => !isEmptyDrawing(drawingOf(g, m.id))),
  ).length;
  const owners = new Map<string, Set<GlyphId>>();
  for (const f of findings) {
    if (!f.glyph || !kindOf(f.kind)?.habit) continue;
    const own = owners.get(f.kind) ?? new Set();
    own.add(f.glyph);
    owners.set(f.kind, own);
  }
  const habits = new Map([...owners].filter(([, own]) => own.size >= HABIT.glyphs && own.size > drawn * HABIT.share));
  if (habits.size === 0) return [...findings];
  return [
    ...findings.filter((f) => !habits.has(f.kind)),
    ...[...habits].map(
      ([kind, own]): Finding => ({
        kind,
        reason: `${own.size} of ${drawn} drawn glyphs have this: it is how the family is drawn, and told once.`,
        bad: own.size,
        masters: [],
        spots: [],
        others: [...own].slice(0, 400),
        mends: [],
      }),
    ),
  ];
}

/** What is looked at over the whole project, in the order in which it is shown. */
const PARTS: readonly Part[] = [
  { name: 'characters', of: (p) => [p.glyphs, p.glyphOrder, p.masters.length], find: () => [] },
  { name: 'names', of: (p) => [p.family, p.masters, p.instances, p.axes], find: (p) => nameFindings(p) },
  { name: 'family', of: (p) => [p.masters, p.instances, p.axes], find: (p) => familyFindings(p, amountsOf(p)) },
  { name: 'lines', of: (p) => [p.glyphs, p.masters], find: (p, g) => lineFindings(p, g, amountsOf(p)) },
  { name: 'heights', of: (p) => [p.glyphs, p.masters], find: (p, g) => heightFindings(p, g, amountsOf(p)) },
  { name: 'anchors', of: (p) => [p.glyphs, p.masters], find: (p, g) => anchorFindings(p, g, amountsOf(p)) },
  { name: 'sides', of: (p) => [p.glyphs, p.masters], find: (p, g) => sideFindings(p, g, amountsOf(p)) },
  { name: 'kerning', of: (p) => [p.masters, p.groups, p.glyphOrder], find: (p) => kerningFindings(p, amountsOf(p)) },
  { name: 'touching', of: (p) => [p.masters, p.groups, p.glyphs], find: (p) => touchingFindings(p, amountsOf(p)) },
  { name: 'features', of: (p) => [p.features, p.glyphs], find: (p) => featureFindings(p) },
];
