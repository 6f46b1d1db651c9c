import { buildStarter } from '../../../demo/starter';
import { addBackdrop, removeBackdrop, setBackdrop } from '../drawing/backdrops';
import { addContours, closeContour } from '../drawing/edits';
import { rectangle } from '../drawing/shapes';
import type { Outcome } from './edit';
import { setUnitsPerEm } from './edits';
import { setGlyphNames, setGlyphStatus } from './glyphEdits';
import { groupsByGlyph } from './kerningLookup';
import type { Picture, Project } from './model';
import { defaultMaster, glyphForCodePoint, glyphNamed, isBlank, usersOf } from './queries';

const done = (o: Outcome): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project;
};
const demo = buildStarter();
const id = (name: string, p: Project = demo) => glyphNamed(p, name)!.id;

test('names and code points are found again after every rename, and not before', () => {
  expect(glyphForCodePoint(demo, 0x61)!.name).toBe('a');
  const renamed = done(setGlyphNames(demo, { id: id('a'), name: 'a.plain', unicodes: [0x251] }));
  expect(glyphNamed(renamed, 'a')).toBeUndefined();
  expect(glyphForCodePoint(renamed, 0x61)).toBeUndefined();
  expect(glyphForCodePoint(renamed, 0x251)!.name).toBe('a.plain');
  // The older project answers as before, whichever was asked last.
  expect(glyphNamed(demo, 'a')!.unicodes).toEqual([0x61]);
  expect(glyphForCodePoint(renamed, 0x251)!.id).toBe(id('a'));
});

test('the default master lies at every axis default', () => {
  expect(defaultMaster(demo).id).toBe('m1');
  const axis = {
    tag: 'wght',
    name: 'Weight',
    minimum: 300,
    default: 400,
    maximum: 800,
    map: [],
    hidden: false,
    labels: {},
  };
  const masters = [300, 400].map((wght, i) => ({ ...demo.masters[0]!, id: `m${i + 1}`, place: { wght } }));
  expect(defaultMaster({ ...demo, axes: [axis], masters }).id).toBe('m2');
  expect(defaultMaster({ ...demo, axes: [{ ...axis, default: 500 }], masters }).id).toBe('m1');
});

test('users of a glyph: composites, groups, pairs, follow rules', () => {
  const n = glyphNamed(demo, 'n')!;
  const h = glyphNamed(demo, 'h')!;
  const p: Project = {
    ...demo,
    groups: [{ id: 'k1', side: 'second', name: 'stems', members: [n.id] }],
    masters: [{ ...demo.masters[0]!, kerning: { [`glyph:${h.id} glyph:${n.id}`]: 4 } }],
    glyphs: {
      ...demo.glyphs,
      [h.id]: {
        ...h,
        follows: { left: [{ glyph: n.id, side: 'left', offset: 0 }], right: [] },
        drawings: { m1: { ...h.drawings.m1!, components: [{ glyph: n.id, transform: [1, 0, 0, 1, 0, 0] }] } },
      },
    },
  };
  expect(usersOf(p, n.id)).toMatchObject({
    composites: [{ name: 'h' }],
    groups: ['stems'],
    pairs: 1,
    follows: [{ name: 'h' }],
  });
  expect(usersOf(p, h.id)).toMatchObject({ composites: [], groups: [], pairs: 1, follows: [] });
  expect(groupsByGlyph(p).second.get(n.id)?.name).toBe('stems');
  expect(groupsByGlyph(p).first.get(n.id)).toBeUndefined();
});

test('spaces need no outline', () => {
  expect(isBlank(glyphNamed(demo, 'space')!)).toBe(true);
  expect(isBlank({ ...glyphNamed(demo, 'a')!, unicodes: [0x2009] })).toBe(true);
  expect(isBlank(glyphNamed(demo, 'a')!)).toBe(false);
});

test('a picture goes with its last backdrop, not before', () => {
  const picture: Picture = { name: 'sheet.png', type: 'image/png', width: 10, height: 10, bytes: Uint8Array.of(1, 2) };
  const backdrop = (n: number) => ({
    id: `b${n}`,
    picture: 'sheet',
    transform: [1, 0, 0, -1, 0, 0] as const,
    strength: 0.5,
    locked: false,
    visible: true,
  });
  const at = (name: string) => ({ glyph: id(name), master: 'm1' });
  let p = done(addBackdrop(demo, { at: at('a'), key: 'sheet', picture, backdrop: backdrop(1) }));
  p = done(addBackdrop(p, { at: at('b'), key: 'sheet', picture, backdrop: backdrop(2) }));
  p = done(setBackdrop(p, { at: at('a'), id: 'b1', change: { strength: 0.2, locked: true } }));
  expect(p.glyphs[id('a')]!.drawings.m1!.backdrops[0]).toMatchObject({ strength: 0.2, locked: true });
  p = done(removeBackdrop(p, { at: at('a'), id: 'b1' }));
  expect(Object.keys(p.pictures)).toEqual(['sheet']);
  p = done(removeBackdrop(p, { at: at('b'), id: 'b2' }));
  expect(p.pictures).toEqual({});
});

test('open contours close, contours are pasted, the em and a status are set', () => {
  const at = { glyph: id('a'), master: 'm1' };
  const open = { ...rectangle(0, 0, 10, 10), closed: false };
  const pasted = done(addContours(demo, { at, contours: [open] }));
  const closed = done(closeContour(pasted, { at, index: 2 }));
  expect(closed.glyphs[at.glyph]!.drawings.m1!.contours[2]!.closed).toBe(true);
  expect(addContours(demo, { at, contours: [] })).toMatchObject({ ok: false });
  expect(done(setUnitsPerEm(demo, { unitsPerEm: 2048 })).unitsPerEm).toBe(2048);
  expect(setUnitsPerEm(demo, { unitsPerEm: 12.5 })).toMatchObject({ ok: false });
  expect(done(setGlyphStatus(demo, { id: at.glyph, status: 'done', note: 'lifted' })).glyphs[at.glyph]).toMatchObject({
    status: 'done',
    note: 'lifted',
  });
});
