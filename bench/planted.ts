import '../src/core/allEdits';
import { openInput } from '../src/cli/source';
import { kindOf } from '../src/core/preflight/kinds';
import { Preflight } from '../src/core/preflight/preflight';
import { glyphsInOrder } from '../src/core/project/queries';
import { OUTLINE_PLANTS, planted, randomOf } from '../src/core/testing/plantedFaults';
import { printTable } from './table';

/** So many faults are planted in each source. */
const PLANTS = 400;

/** Faults of outlines planted at random in sources: the share that is found; and what is found in them as they are, for 100 glyphs. */
export async function benchPlanted(sources: readonly string[]): Promise<void> {
  for (const source of sources) {
    const { project } = await openInput(source);
    const preflight = new Preflight();
    const found = preflight.check(project);
    const random = randomOf(20);
    const letters = glyphsInOrder(project).filter((g) => Object.values(g.drawings).some((d) => d.contours.length > 0));
    const missed = new Map<string, number>();
    let tried = 0;
    let seen = 0;
    for (let i = 0; i < PLANTS * 8 && tried < PLANTS; i++) {
      const { kind } = OUTLINE_PLANTS[i % OUTLINE_PLANTS.length]!;
      const glyph = letters[Math.floor(random() * letters.length)]!;
      const done = planted(project, glyph, kind, random);
      if (!done) continue;
      tried++;
      const count = (p: typeof project) => preflight.glyphFindings(p, glyph.id).filter((f) => f.kind === kind).length;
      if (count(done.project) > count(project)) seen++;
      else missed.set(kind, (missed.get(kind) ?? 0) + 1);
    }
    const per = (n: number) => `${((100 * n) / project.glyphOrder.length).toFixed(1)} for 100 glyphs`;
    const of = (severity: string) => found.filter((f) => kindOf(f.kind)?.severity === severity).length;
    printTable(source.split('/').pop()!, [
      {
        what: `${tried} faults of ${OUTLINE_PLANTS.length} kinds planted`,
        budget: 'all found',
        measured: `${((100 * seen) / tried).toFixed(1)} % found`,
        met: seen === tried,
      },
      ...[...missed].map(([kind, n]) => ({ what: `missed: ${kind}`, budget: 'none', measured: String(n), met: true })),
      {
        what: `found in its ${project.glyphOrder.length} glyphs as they are: errors`,
        budget: 'none',
        measured: per(of('error')),
        met: true,
      },
      { what: 'to look at', budget: 'none', measured: per(of('attention')), met: true },
      { what: 'notes', budget: 'none', measured: per(of('note')), met: true },
    ]);
  }
}
