import { contourBounds } from '../geometry/contour';
import { createProject } from '../project/create';
import type { Picture } from '../project/model';
import { defaultMaster, drawingOf, glyphNamed } from '../project/queries';
import { addContours } from './edits';
import { type LetterPicture, placeLettering, takeTracing } from './lettering';
import { rectangle } from './shapes';

const project = createProject({ family: 'Test', characters: [0x61, 0x62], created: 0 });
const master = defaultMaster(project).id;
const [a, b] = ['a', 'b'].map((n) => glyphNamed(project, n)!.id) as [string, string];
const picture: Picture = { name: 'a.png', type: 'image/png', width: 100, height: 120, bytes: Uint8Array.of(1) };
const letter = (glyph: string): LetterPicture => ({ glyph, picture, inkLeft: 10, inkRight: 90, baseline: 100 });

test('letters stand on the baseline at one scale, with room at both sides, and go to their glyphs in one step', () => {
  const done = placeLettering(project, {
    master,
    letters: [letter(a), letter(b)],
    unitsPerPixel: 5,
    sheet: 'the pen sheet',
  });
  if (!done.ok) throw new Error(done.reason);
  expect(done.sentence).toBe('Put the pen sheet behind 2 glyphs');
  for (const id of [a, b]) {
    const d = drawingOf(done.project.glyphs[id]!, master);
    expect(d.backdrops[0]!.transform).toEqual([5, 0, 0, -5, 60 - 50, 500]);
    expect(d.advance).toBe(400 + 120);
    expect(done.project.pictures[d.backdrops[0]!.picture]).toBe(picture);
  }
  expect(new Set(Object.keys(done.project.pictures)).size).toBe(2);
});

test('what is drawn already says where the letter lies, and its advance stays', () => {
  const drawn = addContours(project, { at: { glyph: a, master }, contours: [rectangle(200, 0, 300, 400)] });
  if (!drawn.ok) throw new Error(drawn.reason);
  const before = drawingOf(drawn.project.glyphs[a]!, master);
  const done = placeLettering(drawn.project, { master, letters: [letter(a)], unitsPerPixel: 2, sheet: 's' });
  if (!done.ok) throw new Error(done.reason);
  const d = drawingOf(done.project.glyphs[a]!, master);
  expect(d.advance).toBe(before.advance);
  expect(d.backdrops[0]!.transform[4]).toBe(200 - 20);
  expect(d.contours).toBe(before.contours);
});

test('outlines made for the place take the place of the contours', () => {
  // Ten pixels from the left to ninety, on the baseline, sixty high.
  const { baseline, picture } = letter(a);
  const low = picture.height - baseline;
  const outlines = [rectangle(10, low, 90, low + 60)];
  const done = placeLettering(project, {
    master,
    letters: [{ ...letter(a), outlines }],
    unitsPerPixel: 5,
    sheet: 'a sheet',
  });
  if (!done.ok) throw new Error(done.reason);
  expect(done.sentence).toBe('Traced 1 glyph from a sheet');
  expect(contourBounds(drawingOf(done.project.glyphs[a]!, master).contours[0]!)).toEqual({
    xMin: 60,
    xMax: 460,
    yMin: 0,
    yMax: 300,
  });
});

test('nothing to place, an unknown size and an empty tracing are refused; a tracing may be added to what is drawn', () => {
  expect(placeLettering(project, { master, letters: [], unitsPerPixel: 5, sheet: 's' })).toMatchObject({ ok: false });
  expect(
    placeLettering(project, { master, letters: [letter(a)], unitsPerPixel: Number.NaN, sheet: 's' }),
  ).toMatchObject({ ok: false });
  const at = { glyph: a, master };
  expect(takeTracing(project, { at, contours: [], keep: false })).toMatchObject({ ok: false });
  const once = takeTracing(project, { at, contours: [rectangle(0, 0, 9, 9)], keep: true });
  const twice = once.ok ? takeTracing(once.project, { at, contours: [rectangle(20, 0, 29, 9)], keep: true }) : once;
  expect(twice.ok && drawingOf(twice.project.glyphs[a]!, master).contours).toHaveLength(2);
});
