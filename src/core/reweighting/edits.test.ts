import { readyDemo } from '../../../demo/ready';
import { editDrawing } from '../project/edit';
import type { Drawing, Project } from '../project/model';
import { drawingOf, glyphNamed, masterThere } from '../project/queries';
import { addReweighedMaster, reweightGlyphs, setStems, takeReweighed } from './edits';
import { countedPoints, MOST_POINTS, reweighedGlyphs } from './many';
import { heldLines, measuredStems, missedWidth, strokesOf } from './standard';

/** What taking reweighted drawings over means for the masters, and what is measured of them. */

const demo = readyDemo();
const n = glyphNamed(demo, 'n')!;
const [at, other] = ['m1', 'm3'];
const done = (outcome: ReturnType<typeof takeReweighed>): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const asked = {
  glyphs: [n.id],
  master: at!,
  from: { vertical: 84, horizontal: 73 },
  to: { vertical: 120, horizontal: 100 },
  width: 1,
  bearings: 'share' as const,
  rounds: 1,
};
const guide = (x: number) => ({ x, y: 0, angle: 90 });
const guided = (p: Project, master: string, x: number): Project =>
  done(
    editDrawing(p, { glyph: n.id, master }, 'Laid a guide', (d) => ({
      ...d,
      guides: [guide(x)],
      note: `of ${master}`,
    })),
  );

test('another master keeps its own guides and notes and gets the outline; in place guides go along', () => {
  const project = guided(guided(demo, at!, 300), other!, 40);
  const there = done(reweightGlyphs(project, { ...asked, into: other! }));
  const now = drawingOf(there.glyphs[n.id]!, other!);
  expect([now.guides, now.note]).toEqual([[guide(40)], 'of m3']);
  expect(now.contours).not.toEqual(drawingOf(project.glyphs[n.id]!, other!).contours);
  expect(drawingOf(there.glyphs[n.id]!, at!)).toBe(drawingOf(project.glyphs[n.id]!, at!));
  const here = done(reweightGlyphs(project, asked));
  const own = drawingOf(here.glyphs[n.id]!, at!);
  expect(own.contours).toEqual(now.contours);
  expect(own.note).toBe('of m1');
  expect(Math.abs(own.guides[0]!.x - 300)).toBeLessThan(30);
});

test('rounds may gain more than straights; a share of the width is that share', () => {
  const o = glyphNamed(demo, 'o')!.id;
  const made = (change: object) =>
    reweighedGlyphs(demo, { ...asked, glyphs: [o, n.id], own: {}, ...change }).made.map((m) => m.drawing);
  const left = (d: Drawing | undefined) => {
    const xs = d!.contours.map((c) => c.points.map((p) => p.x));
    return Math.min(...xs[1]!) - Math.min(...xs[0]!);
  };
  const plain = made({});
  const rounder = made({ rounds: 1.08 });
  expect(left(rounder[0]) - left(plain[0])).toBeGreaterThan(5);
  const wide = made({ width: 1.1 });
  expect(wide.map((d) => d.advance)).toEqual(
    [o, n.id].map((id) => Math.round(drawingOf(demo.glyphs[id]!, at!).advance * 1.1)),
  );
});

test('places on axes that there are stand where they say; a place that is taken, or a name, is refused', () => {
  const made = reweighedGlyphs(demo, { ...asked, own: {} }).made.map(({ glyph, drawing }) => ({ glyph, drawing }));
  const add = (name: string, place: Record<string, number>) =>
    addReweighedMaster(demo, { name, place, copy: at!, made });
  const black = done(add('Black', { wght: 900, wdth: 100 }));
  expect(black.axes.find((a) => a.tag === 'wght')!.maximum).toBe(900);
  expect(black.masters.at(-1)!.stems).toEqual([]);
  expect(black.masters.at(-1)!.kerning).toEqual(masterThere(demo, at!).kerning);
  expect(add('Regular', { wght: 900 }).ok).toBe(false);
  const taken = add('Again', { wght: 400, wdth: 100 });
  expect(taken.ok ? '' : taken.reason).toMatch(/stands at .* already/);
  expect(takeReweighed(demo, { master: at!, made: [] }).ok).toBe(false);
});

test('what has more points than letters have is left and told', () => {
  const points = Array.from({ length: MOST_POINTS + 1 }, (_, i) => ({
    x: Math.round(300 + 250 * Math.cos(i / 50)),
    y: Math.round(300 + 250 * Math.sin(i / 50)),
    type: 'line' as const,
  }));
  const huge = done(
    editDrawing(demo, { glyph: n.id, master: at! }, 'Many', (d) => ({ ...d, contours: [{ closed: true, points }] })),
  );
  expect(countedPoints(drawingOf(huge.glyphs[n.id]!, at!))).toBe(MOST_POINTS + 1);
  const { made, left } = reweighedGlyphs(huge, { ...asked, own: {} });
  expect(made).toEqual([]);
  expect(left).toEqual([{ glyph: n.id, reason: `It has more than ${MOST_POINTS} points: no letter of strokes.` }]);
});

test('a stroke that misses what letters share by a hair is a slip; one with a width of its own is not', () => {
  const widths = (p: Project) =>
    strokesOf(p, p.glyphs[n.id]!, at!)
      .filter((s) => s.kind === 'vertical')
      .map((s) => missedWidth(p, at!, s));
  expect(widths(demo).every((w) => w === undefined)).toBe(true);
  // The left edge of its first upright a unit, or far, to the left.
  const moved = (by: number) =>
    done(
      editDrawing(demo, { glyph: n.id, master: at! }, 'Moved an edge', (d) => {
        const least = Math.min(...d.contours.flatMap((c) => c.points.map((p) => p.x)));
        return {
          ...d,
          contours: d.contours.map((c) => ({
            ...c,
            points: c.points.map((p) => (p.x === least ? { ...p, x: p.x - by } : p)),
          })),
        };
      }),
    );
  expect(widths(moved(2))).toContain(84);
  expect(widths(moved(30)).every((w) => w === undefined)).toBe(true);
});

test('lines that hold are zones and what letters share, and only those that end a drawing', () => {
  const master = masterThere(demo, at!);
  const of = (name: string) => heldLines(demo, master, drawingOf(glyphNamed(demo, name)!, at!).contours);
  expect(of('H')).toEqual(expect.arrayContaining([0, 700]));
  // Inferiors end at a height of their own, which is no line of letters.
  const low = drawingOf(glyphNamed(demo, 'oneinferior')!, at!);
  expect(low.contours.length + low.components.length).toBeGreaterThan(0);
  expect(of('H').every((y) => y <= 0 || y >= master.zones.xHeight.position)).toBe(true);
});

test('measured stems are known again for the same glyphs and follow what is drawn', () => {
  const first = measuredStems(demo, at!);
  expect(measuredStems(demo, at!)).toBe(first);
  const heavy = measuredStems(demo, other!)!;
  expect(heavy.vertical).toBeGreaterThan(first!.vertical * 1.5);
  const kept = done(setStems(demo, { master: at!, vertical: 88 }));
  expect(masterThere(kept, at!).stems[0]).toEqual({ name: 'Vertical', value: 88, vertical: true });
  expect(setStems(kept, { master: at!, vertical: 88 }).ok).toBe(false);
});
