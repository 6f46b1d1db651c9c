import { readFileSync } from 'node:fs';
import { castFont } from '../src/core/casting/font';
import { outOfDate } from '../src/core/fitting/follows';
import { sidesOf } from '../src/core/fitting/sides';
import { readProjectFile, writeProjectFile } from '../src/core/formats/project/projectFile';
import { kerningOf } from '../src/core/project/kerningLookup';
import { drawingBounds, drawingsOf } from '../src/core/project/outline';
import { fellowOf, partnerMaster, toldToPartner, unlikePartner, withoutFellow } from '../src/core/project/partner';
import { glyphForCodePoint, glyphNamed, glyphsInOrder } from '../src/core/project/queries';
import { agrees } from '../src/core/variation/agreement';
import { buildItalic, ITALIC, ROMAN } from './italic';
import { readyDemo } from './ready';

const roman = readyDemo();
const italic = buildItalic(roman);
const glyph = (name: string) => glyphNamed(italic, name)!;

test('the committed italic is what the code makes, and the two know of each other', () => {
  const committed = readFileSync('public/demo/velmarrow-sans-italic.wendril');
  expect(Buffer.compare(committed, writeProjectFile(italic))).toBe(0);
  const opened = readProjectFile(committed, 'velmarrow-sans-italic.wendril');
  expect(opened.ok && opened.value.settings.partner).toEqual(ROMAN);
  expect(roman.settings.partner).toEqual(ITALIC);
});

test('it has the letters of the galley’s text, in masters that agree, with sides that follow along the slant', () => {
  for (const c of roman.texts.galley.replace(/\s/g, ''))
    expect([c, glyphForCodePoint(italic, c.codePointAt(0)!) !== undefined]).toEqual([c, true]);
  expect(glyphsInOrder(italic).filter((g) => !agrees(italic, g))).toEqual([]);
  expect(outOfDate(italic)).toEqual([]);
  // What was upright stands as it did, measured along the slant.
  const sides = (p: typeof roman, name: string) =>
    sidesOf(p, glyphNamed(p, name)!, 'm1') as { left: number; right: number };
  for (const name of ['n', 'H', 'l', 'i']) {
    expect(Math.abs(sides(italic, name).left - sides(roman, name).left)).toBeLessThan(6);
    expect(Math.abs(sides(italic, name).right - sides(roman, name).right)).toBeLessThan(6);
  }
});

test('a is in one storey and kerned as d, f comes down below the line', () => {
  for (const { id, zones } of italic.masters) {
    const source = drawingsOf(italic, id);
    const a = drawingBounds(glyph('a').drawings[id]!, source);
    expect(a.yMax).toBeLessThan(zones.xHeight.position + 2 * zones.xHeight.overshoot + 1);
    expect(glyph('a').drawings[id]!.contours).toHaveLength(glyph('d').drawings[id]!.contours.length);
    expect(drawingBounds(glyph('f').drawings[id]!, source).yMin).toBeCloseTo(zones.descender.position, 0);
  }
  const [master] = italic.masters;
  const kerned = (first: string, second: string) =>
    kerningOf(italic, master!, glyph(first).id, glyph(second).id)?.value ?? 0;
  for (const other of ['T', 'V', 'y', 'o']) {
    expect([other, kerned(other, 'a')]).toEqual([other, kerned(other, 'd')]);
    expect([other, kerned('a', other)]).toEqual([other, kerned('d', other)]);
  }
});

test('beside the roman: fellows by name, masters at one place, names and heights alike', () => {
  const told = toldToPartner(italic);
  expect(fellowOf(glyphNamed(roman, 'g')!, told)?.name).toBe('g');
  expect(withoutFellow(glyphsInOrder(italic), toldToPartner(roman))).toEqual([]);
  expect(withoutFellow(glyphsInOrder(roman), told).map((g) => g.name)).toContain('one.pnum');
  for (const m of roman.masters) {
    const theirs = partnerMaster(roman.axes, m.place, told);
    expect(theirs.place).toEqual(m.place);
    expect(theirs.name).toMatch(/Italic$/);
  }
  expect(unlikePartner(roman, told)).toEqual([]);
});

test('it casts in every master, linked as italics', () => {
  for (const { id } of italic.masters) {
    const font = castFont(italic, { flavour: 'otf', place: { master: id } });
    if (!font.ok) throw new Error(font.reason);
    expect(font.value.names.postScriptName).toMatch(/^VelmarrowSans-\w*Italic$/);
  }
});
