import { drawingPath } from '../src/core/project/pathData';
import { drawingOf, glyphForCodePoint, masterThere } from '../src/core/project/queries';
import { reweighedGlyphs } from '../src/core/reweighting/many';
import { stemsOf } from '../src/core/reweighting/standard';
import { readyDemo } from './ready';

const TEXT = ['Griffin Halt Żurawka', 'Rag&Qesk 35689 @ß'];

/** A page that shows the Light and the Heavy as they are drawn, and as Wendril makes them of the Regular, above one another. */
export function reweighProofPage(): string {
  const project = readyDemo();
  const regular = masterThere(project, 'm1');
  const from = stemsOf(project, regular)!;
  const rows: string[] = [];
  const size = 0.088;
  let y = 0;
  const line = (text: string, master: string, source: typeof project, fill: string, at: number) => {
    let x = 0;
    const paths = [...text].map((c) => {
      const glyph = glyphForCodePoint(source, c.codePointAt(0)!)!;
      const drawing = drawingOf(glyph, master);
      const path = `<path transform="translate(${x} 0)" d="${drawingPath(source, master, drawing)}"/>`;
      x += drawing.advance;
      return path;
    });
    rows.push(`<g fill="${fill}" transform="translate(${at} ${y}) scale(${size} ${-size})">${paths.join('')}</g>`);
  };
  const label = (text: string) => rows.push(`<text x="34" y="${y - 4}" font-size="13" fill="#6b6570">${text}</text>`);
  for (const id of ['m2', 'm3']) {
    const master = masterThere(project, id);
    const wide = (of: string) =>
      [...TEXT.join('')].reduce(
        (sum, c) => sum + drawingOf(glyphForCodePoint(project, c.codePointAt(0)!)!, of).advance,
        0,
      );
    const { made } = reweighedGlyphs(project, {
      glyphs: project.glyphOrder,
      master: 'm1',
      from,
      to: stemsOf(project, master)!,
      width: wide(id) / wide('m1'),
      bearings: 'share',
      rounds: 1,
      own: {},
    });
    const glyphs = { ...project.glyphs };
    for (const { glyph, drawing } of made)
      glyphs[glyph] = { ...glyphs[glyph]!, drawings: { ...glyphs[glyph]!.drawings, [id]: drawing } };
    const reweighed = { ...project, glyphs };
    for (const text of TEXT) {
      y += 96;
      label(text === TEXT[0] ? `${master.name}: drawn` : '');
      line(text, id, project, '#1E1B22', 250);
      y += 88;
      if (text === TEXT[0]) label('reweighted from the Regular');
      line(text, id, reweighed, '#12695B', 250);
    }
    y += 16;
  }
  return `<!doctype html><meta charset="utf-8"><body style="margin:0;background:#F7F4EE"><svg width="1280" height="800" viewBox="0 0 1280 800" font-family="sans-serif">${rows.join('')}</svg>`;
}
