import { buildStarter } from '../../../demo/starter';
import type { Master, Project } from './model';
import {
  fellowOf,
  likePartner,
  partnerMaster,
  partnerPlace,
  setPartner,
  toldToPartner,
  unlikePartner,
  withoutFellow,
} from './partner';
import { glyphNamed, glyphsInOrder } from './queries';

const axis = (tag: string, minimum: number, usual: number, maximum: number, map: [number, number][] = []) => ({
  tag,
  name: tag,
  minimum,
  default: usual,
  maximum,
  map,
  hidden: false,
  labels: {},
});
const starter = buildStarter();
const master = (id: string, place: Record<string, number>, change: Partial<Master> = {}): Master => ({
  ...starter.masters[0]!,
  id,
  name: id,
  place,
  ...change,
});
/** A roman on weight, in design units that are its user units, and on width. */
const roman: Project = {
  ...starter,
  axes: [axis('wght', 300, 400, 800), axis('wdth', 75, 100, 100)],
  masters: [master('light', { wght: 300 }), master('regular', { wght: 400 }), master('heavy', { wght: 800 })],
};
/** Its italic, on weight in stems, with an axis of slant. */
const italic: Project = {
  ...starter,
  axes: [
    axis('wght', 300, 400, 700, [
      [300, 40],
      [400, 80],
      [700, 150],
    ]),
    axis('slnt', -9, -9, 0),
  ],
  masters: [
    master('italic', { wght: 80, slnt: -9 }, { italicAngle: -9 }),
    master('bold italic', { wght: 150, slnt: -9 }, { italicAngle: -9 }),
  ],
};
const told = toldToPartner(italic);

test('a place is the same for a reader: by user values, on axes that both have, within their ends', () => {
  expect(partnerPlace(roman.axes, { wght: 350, wdth: 80 }, told)).toEqual({ wght: 60, slnt: -9 });
  expect(partnerPlace(roman.axes, { wght: 800 }, told)).toEqual({ wght: 150, slnt: -9 });
  expect(partnerPlace(italic.axes, { wght: 115 }, toldToPartner(roman))).toEqual({ wght: 550, wdth: 100 });
  expect(partnerMaster(roman.axes, { wght: 300 }, told).id).toBe('italic');
  expect(partnerMaster(roman.axes, { wght: 640 }, told).id).toBe('bold italic');
});

test('fellows are found by name, else by character; what has none is told both ways', () => {
  const n = glyphNamed(starter, 'n')!;
  expect(fellowOf(n, told)?.id).toBe(n.id);
  expect(fellowOf({ name: 'enn', unicodes: n.unicodes }, told)?.id).toBe(n.id);
  expect(fellowOf({ name: 'n.alt', unicodes: [] }, told)).toBeUndefined();
  const fewer = { glyphs: told.glyphs.filter((g) => g.name !== 'n') };
  expect(withoutFellow(glyphsInOrder(roman), fewer).map((g) => g.name)).toEqual(['n']);
  expect(withoutFellow(fewer.glyphs, toldToPartner(roman))).toEqual([]);
});

test('what is told of a project has no drawings and no kerning in it', () => {
  const { masters, glyphs } = toldToPartner({
    ...roman,
    masters: roman.masters.map((m) => ({ ...m, kerning: { 'glyph:a glyph:b': 3 } })),
  });
  expect(masters.every((m) => Object.keys(m.kerning).length === 0)).toBe(true);
  expect(Object.keys(glyphs[0]!).sort()).toEqual(['id', 'name', 'unicodes']);
});

test('names and heights are taken over where they are not alike, for masters at one place', () => {
  const zones = starter.masters[0]!.zones;
  const taller: Project = {
    ...italic,
    family: { ...italic.family, designer: 'Ines Orde', versionMinor: 7 },
    masters: italic.masters.map((m) => ({
      ...m,
      zones: { ...zones, ascender: { ...zones.ascender, position: 760 } },
      verticalMetrics: { hheaAscender: 990 },
    })),
  };
  const other = toldToPartner(taller);
  expect(unlikePartner(roman, other)).toEqual(['designer', 'version', 'ascender, line heights of regular']);
  const taken = likePartner(roman, other);
  if (!taken.ok) throw new Error(taken.reason);
  const regular = taken.project.masters.find((m) => m.id === 'regular')!;
  expect(regular.zones.ascender.position).toBe(760);
  expect(regular.verticalMetrics).toEqual({ hheaAscender: 990 });
  expect(taken.project.family).toMatchObject({ designer: 'Ines Orde', versionMinor: 7, name: roman.family.name });
  expect(taken.project.masters.find((m) => m.id === 'light')).toBe(roman.masters[0]);
  expect(taken.project.glyphs).toBe(roman.glyphs);
  expect(unlikePartner(taken.project, other)).toEqual([]);
});

test('a partner is said, said otherwise, and taken back', () => {
  const bound = setPartner(roman, { partner: { id: 'x1', name: 'Orde Italic' } });
  if (!bound.ok) throw new Error(bound.reason);
  expect(bound.project.settings.partner).toEqual({ id: 'x1', name: 'Orde Italic' });
  expect(setPartner(bound.project, { partner: { id: 'x1', name: 'Orde Italic' } }).ok).toBe(false);
  const parted = setPartner(bound.project, {});
  if (!parted.ok) throw new Error(parted.reason);
  expect(parted.sentence).toBe('Orde Italic is no partner any more');
  expect('partner' in parted.project.settings).toBe(false);
});
