import { readyDemo } from '../demo/ready';
import { composed, withAnchors } from '../src/core/composing/compose';
import { recipeCodes } from '../src/core/composing/view';
import { coverageOf } from '../src/core/coverage/coverage';
import { drawnCodes } from '../src/core/coverage/drawn';
import { loadLanguages } from '../src/core/coverage/languages';
import type { Glyph, Project } from '../src/core/project/model';
import { drawingOf, glyphForCodePoint } from '../src/core/project/queries';
import { median, milliseconds, printTable } from './table';

/** The demo in four masters, so many times that it has a number of glyphs, none with anchors. */
function without(glyphs: number): Project {
  const demo = readyDemo();
  const masters = demo.masters.slice(0, 4);
  const ids = demo.glyphOrder.filter((id) => drawingOf(demo.glyphs[id]!, 'm1').contours.length > 0);
  const made = Array.from({ length: glyphs }, (_, i): Glyph => {
    const g = demo.glyphs[ids[i % ids.length]!]!;
    const drawings = Object.fromEntries(masters.map((m) => [m.id, { ...drawingOf(g, m.id), anchors: [] }]));
    return { ...g, id: `b${i}`, name: `${g.name}.n${i}`, unicodes: i < ids.length ? g.unicodes : [0x61], drawings };
  });
  return {
    ...demo,
    masters,
    glyphOrder: made.map((g) => g.id),
    glyphs: Object.fromEntries(made.map((g) => [g.id, g])),
  };
}

const timed = (runs: number, work: () => void): number => {
  const times = Array.from({ length: runs }, () => {
    const t = performance.now();
    work();
    return performance.now() - t;
  });
  return median(times);
};

/** Anchors placed, letters put together, coverage told. */
export async function benchComposing(): Promise<void> {
  const large = without(1000);
  const place = timed(3, () => withAnchors(large, large.glyphOrder));
  const demo = readyDemo();
  const four: Project = { ...demo, masters: demo.masters.slice(0, 4) };
  const codes = recipeCodes('Latin')
    .filter((c) => composed(four, [c]).notPossible.length === 0)
    .slice(0, 400);
  const bare: Project = {
    ...four,
    glyphOrder: four.glyphOrder.filter((id) => !codes.some((c) => glyphForCodePoint(four, c)?.id === id)),
    glyphs: Object.fromEntries(
      Object.entries(four.glyphs).filter(([id]) => !codes.some((c) => glyphForCodePoint(four, c)?.id === id)),
    ),
  };
  const build = timed(5, () => composed(bare, codes));
  const languages = await loadLanguages();
  const have = drawnCodes(demo);
  const cover = timed(9, () => coverageOf(languages.all, (c) => have.has(c)));
  const row = (what: string, budget: number, took: number) => ({
    what,
    budget: milliseconds(budget),
    measured: milliseconds(took),
    met: took < budget,
  });
  printTable('Composing', [
    row('anchors for 1,000 glyphs in 4 masters', 300, place),
    row(`${codes.length} letters put together in 4 masters`, 300, build),
    row(`coverage of ${languages.all.length} languages`, 50, cover),
  ]);
}
