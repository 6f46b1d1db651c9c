import { readyDemo } from '../../../demo/ready';
import { projectFromFont } from '../formats/font/projectFromFont';
import { signedArea } from '../geometry/contour';
import { readSfnt, writeSfnt } from '../opentype/sfnt';
import { writeStat } from '../opentype/stat';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { shapedByHarfBuzz } from '../testing/shaping';
import { setHandover } from '../variation/handovers';
import { castFont } from './font';

/** Fonts that vary and were made elsewhere: what of them is kept when they are cast again. */
const CAST = new Set(['a', 'o', 'registered', 'dollar', 'cent', 'space']);
const whole = readyDemo();
const demo: Project = {
  ...whole,
  features: { ...whole.features, sections: [] },
  glyphs: Object.fromEntries(Object.entries(whole.glyphs).map(([k, g]) => [k, { ...g, cast: CAST.has(g.name) }])),
};
const cast = (project: Project, variable = true) => {
  const font = castFont(project, {
    flavour: 'ttf',
    place: { master: project.masters[0]!.id },
    variable,
    keepOverlaps: true,
  });
  if (!font.ok) throw new Error(font.reason);
  return font.value;
};
const varying = (project: Project): Project => ({
  ...project,
  masters: [...project.masters].sort((a) => (a.id === 'm1' ? -1 : 1)),
});
const read = (bytes: Uint8Array) => {
  const found = projectFromFont(bytes, 'Foreign.ttf');
  if (!found.ok) throw new Error(found.reason);
  return found.value;
};

test('a contour that runs against its fellows is turned in all masters or in none', () => {
  // Of o the inner contour becomes the larger one in the light masters, so that the sum of areas changes its sign.
  const o = glyphNamed(demo, 'o')!;
  const drawings = Object.fromEntries(
    Object.entries(o.drawings).map(([m, d]) => {
      const light = m === 'm2' || m === 'm4';
      const scaled = d.contours.map((c, i) => ({
        ...c,
        points: c.points.map((p) => ({ ...p, x: Math.round(250 + (p.x - 250) * (i === (light ? 1 : 0) ? 1.6 : 0.7)) })),
      }));
      return [m, { ...d, contours: scaled }];
    }),
  );
  const odd = varying({ ...demo, glyphs: { ...demo.glyphs, [o.id]: { ...o, drawings } } });
  const font = cast(odd);
  const again = read(font.bytes).project;
  const back = glyphNamed(again, 'o')!;
  // Which way each contour runs, held against the project: the same in all masters, or points would cross over between them.
  const turned = again.masters.map((m) => {
    const own = odd.masters.find((x) =>
      Object.entries(x.place).every(([t, v]) => Math.abs((m.place[t] ?? v) - v) < 1),
    )!;
    const areas = (g: Project['glyphs'][string], id: string) => g.drawings[id]!.contours.map(signedArea);
    const wanted = areas(odd.glyphs[o.id]!, own.id);
    return areas(back, m.id).map((area, i) => Math.sign(area) === Math.sign(wanted[i]!));
  });
  expect(new Set(turned.flat()).size).toBe(1);
});

test('substitutions that change with the axes stay in a font that varies over the same axes', () => {
  const handed = setHandover(varying(demo), {
    glyph: glyphNamed(demo, 'dollar')!.id,
    handover: { axis: 'wght', from: 600, to: 800, glyph: glyphNamed(demo, 'cent')!.id },
  });
  if (!handed.ok) throw new Error(handed.reason);
  const opened = read(cast(handed.project).bytes);
  expect(opened.notes).toEqual(
    expect.arrayContaining([expect.stringMatching(/change with the axes stay in the font that varies/)]),
  );
  const again = cast(opened.project);
  const names = again.glyphIds.map((id) => opened.project.glyphs[id]?.name ?? '.notdef');
  const set = (bytes: Uint8Array, wght?: number) =>
    names[
      shapedByHarfBuzz([{ bytes, texts: ['$'], ...(wght !== undefined && { axes: { wght, wdth: 100 } }) }])[0]![0]![0]!
        .gid
    ];
  expect([set(again.bytes), set(again.bytes, 700)]).toEqual(['dollar', 'cent']);
  // A font of one place has no axes to ask for; of other axes nothing is guessed, and it is said.
  expect(set(cast(opened.project, false).bytes)).toBe('dollar');
  const other = {
    ...opened.project,
    axes: opened.project.axes.map((a) => (a.tag === 'wdth' ? { ...a, minimum: 60 } : a)),
  };
  const moved = cast(other);
  expect(moved.notes.map((n) => n.reason)).toEqual(
    expect.arrayContaining([expect.stringMatching(/the axes are others now/)]),
  );
  expect(set(moved.bytes, 700)).toBe('dollar');
});

test('names of styles that are not taken in are told', () => {
  const font = readSfnt(cast(varying(demo)).bytes);
  const stat = writeStat({
    axes: ['wght', 'wdth', 'ital'].map((tag, i) => ({ tag, nameID: 256, ordering: i })),
    values: [
      { nameID: 1, flags: 0, places: [{ axis: 2, numbers: [0] }] },
      {
        nameID: 2,
        flags: 0,
        places: [
          { axis: 0, numbers: [400] },
          { axis: 1, numbers: [100] },
        ],
      },
    ],
    elidedFallbackNameID: 2,
  });
  const bytes = writeSfnt(font.version, new Map([...font.tables, ['STAT', stat]]));
  expect(read(bytes).notes).toEqual(
    expect.arrayContaining([
      'Names of styles for what does not vary here, or for several axes at once, were left aside: Velmarrow Sans, Regular.',
    ]),
  );
});
