import { listed } from '../base/text';
import { unevenFigures } from '../fitting/figures';
import { outOfDate } from '../fitting/follows';
import type { Project } from '../project/model';
import { instanceAt } from '../variation/instance';

/** A side may be off its rule by so much between masters: each number there is rounded for itself. */
const ROUNDING = 1;

const known = new WeakMap<Project, ReadonlySet<string>>();

/** Sides that are off what they follow in some master, worked out once for a project. */
function staleOf(project: Project): ReadonlySet<string> {
  const stale = known.get(project) ?? new Set(outOfDate(project).map((f) => `${f.glyph} ${f.side}`));
  known.set(project, stale);
  return stale;
}

/**
 * What holds in every master and not at an instance, a sentence each: figures of one width, sides that follow others. Where a master
 * breaks it already, that is told where the master is.
 */
export function spacingFaults(project: Project, index: number): string[] {
  const instance = project.instances[index];
  if (!instance || project.masters.length < 2) return [];
  const made = instanceAt(project, instance.place, instance.name).project;
  const [own] = made.masters;
  const out: string[] = [];
  const name = (id: string) => made.glyphs[id]?.name ?? id;
  const uneven = unevenFigures(made, own!.id);
  if (uneven && project.masters.every((m) => !unevenFigures(project, m.id)))
    out.push(
      `In ${instance.name} figures are not all ${Math.round(uneven.width)} wide: ${listed(uneven.odd.map(name), 10)}.`,
    );
  const stale = staleOf(project);
  const off = outOfDate(made, [own!.id]).filter(
    (f) => Math.abs(f.now - f.wanted) > ROUNDING && !stale.has(`${f.glyph} ${f.side}`),
  );
  if (off.length > 0)
    out.push(
      `In ${instance.name} sides are off what they follow: ${listed([...new Set(off.map((f) => name(f.glyph)))], 10)}.`,
    );
  return out;
}
