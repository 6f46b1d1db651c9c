import type { Glyph, GlyphId, Project } from '../../project/model';
import { designEnds } from '../../project/places';
import type { Designspace, DesignspaceRule } from './designspace';

type Rules = Pick<Designspace, 'axes' | 'rules'>;

/**
 * Rules of a designspace that are handovers: every set has one condition, on an axis of the file, and no glyph stands in that is replaced
 * itself. Any other rule is left to the file as it is.
 */
export function partedRules({ axes, rules }: Rules): { plain: DesignspaceRule[]; others: DesignspaceRule[] } {
  const replaced = new Set(rules.flatMap((r) => r.subs.map(([from]) => from)));
  const isPlain = (r: DesignspaceRule) =>
    r.sets.length > 0 &&
    r.sets.every((set) => set.length === 1 && stretchOf(axes, set[0]!) !== undefined) &&
    r.subs.every(([from, to]) => from !== to && !replaced.has(to));
  return { plain: rules.filter(isPlain), others: rules.filter((r) => !isPlain(r)) };
}

/** The handovers that rules come to, by glyph; those between glyphs that are not there come to none. */
export function handoversOf(
  space: Rules,
  ids: ReadonlyMap<string, GlyphId>,
): Map<GlyphId, Glyph['handovers'][number][]> {
  const out = new Map<GlyphId, Glyph['handovers'][number][]>();
  for (const { sets, subs } of partedRules(space).plain)
    for (const [from, to] of subs) {
      const [id, glyph] = [ids.get(from), ids.get(to)];
      if (id === undefined || glyph === undefined) continue;
      const own = sets.map((set) => ({ ...stretchOf(space.axes, set[0]!)!, glyph }));
      out.set(id, [...(out.get(id) ?? []), ...own]);
    }
  return out;
}

function stretchOf(
  axes: Designspace['axes'],
  { axis: name, minimum, maximum }: DesignspaceRule['sets'][number][number],
): { axis: string; from: number; to: number } | undefined {
  const axis = axes.find((a) => a.name === name);
  if (!axis) return undefined;
  const { least, most } = designEnds(axis);
  const [from, to] = [minimum ?? Math.min(least, most), maximum ?? Math.max(least, most)];
  return from <= to ? { axis: axis.tag, from, to } : undefined;
}

/** The rules that say a project’s handovers, those of one stretch together; a rule of the file that says the same keeps its name. */
export function rulesOfHandovers(project: Project, known: readonly DesignspaceRule[]): DesignspaceRule[] {
  const rules = new Map<string, DesignspaceRule>();
  for (const id of project.glyphOrder) {
    const glyph = project.glyphs[id]!;
    for (const h of glyph.handovers) {
      const axis = project.axes.find((a) => a.tag === h.axis);
      const to = project.glyphs[h.glyph];
      if (!axis || !to) continue;
      const key = `${axis.tag} ${h.from} ${h.to}`;
      const rule = rules.get(key) ?? {
        name: named(known, axis.name, h) ?? `${axis.name} ${h.from} to ${h.to}`,
        sets: [[conditionOf(axis, h)]],
        subs: [],
      };
      rule.subs.push([glyph.name, to.name]);
      rules.set(key, rule);
    }
  }
  return [...rules.values()];
}

/** A condition; an end that is the axis’s own is left out, as the format has it, but for both at once. */
function conditionOf(
  axis: Project['axes'][number],
  { from, to }: { from: number; to: number },
): DesignspaceRule['sets'][number][number] {
  const { least, most } = designEnds(axis);
  const [low, high] = [Math.min(least, most), Math.max(least, most)];
  if (from <= low && to >= high) return { axis: axis.name, minimum: from, maximum: to };
  return { axis: axis.name, ...(from > low && { minimum: from }), ...(to < high && { maximum: to }) };
}

const named = (known: readonly DesignspaceRule[], axis: string, { from, to }: { from: number; to: number }) =>
  known.find((r) => {
    const only = r.sets.length === 1 && r.sets[0]!.length === 1 ? r.sets[0]![0]! : undefined;
    return only?.axis === axis && (only.minimum ?? from) === from && (only.maximum ?? to) === to && r.name !== '';
  })?.name;
