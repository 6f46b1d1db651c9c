import fc from 'fast-check';
import { readyDemo } from '../../../../demo/ready';
import { openAny } from '../../formats/openFile';
import { readAvar, readFvar } from '../../opentype/fvar';
import { hmtx } from '../../opentype/hmtx';
import { name } from '../../opentype/name';
import { os2 } from '../../opentype/os2';
import { post } from '../../opentype/post';
import { readSfnt, type Sfnt, tableOf } from '../../opentype/sfnt';
import { readStat } from '../../opentype/stat';
import { readHvar, readMvar } from '../../opentype/variations';
import { toDesign } from '../../project/axes';
import type { Project } from '../../project/model';
import { toUser } from '../../project/places';
import { normalised } from '../../project/variationModel';
import { type CastFont, castFont } from '../font';

const demo = readyDemo();
/** Few glyphs are enough for what is said of the whole font. */
const FEW = new Set(['space', 'H', 'O', 'a', 'e', 'n', 'o', 'x']);
const small: Project = {
  ...demo,
  glyphs: Object.fromEntries(Object.entries(demo.glyphs).map(([id, g]) => [id, { ...g, cast: FEW.has(g.name) }])),
};
const cast = (project: Project): CastFont => {
  const font = castFont(project, { flavour: 'ttf', place: { master: 'm1' }, variable: true });
  if (!font.ok) throw new Error(font.reason);
  return font.value;
};
const still = (project: Project, master: string): Sfnt => {
  const font = castFont(project, { flavour: 'ttf', place: { master }, keepOverlaps: true });
  if (!font.ok) throw new Error(font.reason);
  return readSfnt(font.value.bytes);
};
type Axis = Project['axes'][number];
const withAxis = (tag: string, change: Partial<Axis>, of = small): Project => ({
  ...of,
  axes: of.axes.map((a) => (a.tag === tag ? { ...a, ...change } : a)),
});
const namesIn = (font: Sfnt) => name.read(tableOf(font, 'name'));
const english = (font: Sfnt, id: number) => namesIn(font).find((n) => n.nameID === id && n.languageID === 0x409)?.value;
/** The place of a master, -1 to 1 on each axis, as regions have it. */
const normalPlace = (project: Project, place: Readonly<Record<string, number>>) => {
  const at = normalised(project.axes, place);
  return project.axes.map((a) => at[a.tag] ?? 0);
};
/** Where a map of `avar` leads to. */
const bend = (map: readonly (readonly [number, number])[], v: number): number => {
  const i = Math.max(
    1,
    map.findIndex(([from]) => from >= v),
  );
  const [[a, b], [c, d]] = [map[i - 1]!, map[i]!];
  return b + ((v - a) / (c - a)) * (d - b);
};

test('advances and metrics that masters have of their own are met in each of them', () => {
  const zones = (m: Project['masters'][number], x: number) => ({
    ...m.zones,
    xHeight: { ...m.zones.xHeight!, position: m.zones.xHeight!.position + x },
    capHeight: { ...m.zones.capHeight!, position: m.zones.capHeight!.position - x },
  });
  const project: Project = {
    ...small,
    masters: small.masters.map((m, i) => ({
      ...m,
      zones: zones(m, i * 7),
      info: {
        ...m.info,
        postscriptUnderlinePosition: -80 - i * 5,
        postscriptUnderlineThickness: 40 + i * 4,
        openTypeOS2StrikeoutPosition: 300 + i * 3,
        openTypeOS2TypoAscender: 800 + i * 6,
      },
    })),
  };
  const font = readSfnt(cast(project).bytes);
  const main = { os2: os2.read(tableOf(font, 'OS/2')), post: post.read(tableOf(font, 'post')) };
  const [metric, advances] = [readMvar(tableOf(font, 'MVAR')), readHvar(tableOf(font, 'HVAR'))];
  const own = hmtx.read(tableOf(font, 'hmtx'), 9, 9);
  for (const m of project.masters) {
    const there = still(project, m.id);
    const place = normalPlace(project, m.place);
    const [o, p] = [os2.read(tableOf(there, 'OS/2')), post.read(tableOf(there, 'post'))];
    const rows: [string, number, number][] = [
      ['xhgt', main.os2.sxHeight!, o.sxHeight!],
      ['cpht', main.os2.sCapHeight!, o.sCapHeight!],
      ['hasc', main.os2.sTypoAscender!, o.sTypoAscender!],
      ['stro', main.os2.yStrikeoutPosition!, o.yStrikeoutPosition!],
      ['undo', main.post.underlinePosition, p.underlinePosition],
      ['unds', main.post.underlineThickness, p.underlineThickness],
    ];
    for (const [tag, base, wanted] of rows)
      expect([m.name, tag, Math.abs(base + metric.of(tag, place) - wanted) <= 0.5]).toEqual([m.name, tag, true]);
    hmtx.read(tableOf(there, 'hmtx'), 9, 9).forEach(({ advanceWidth }, i) => {
      const here = own[i]!.advanceWidth + advances.advance(i, place);
      expect([m.name, i, Math.abs(here - advanceWidth) <= 0.5]).toEqual([m.name, i, true]);
    });
  }
  // What all masters have alike is not said to vary.
  expect(metric.of('sbxs', normalPlace(project, project.masters[1]!.place))).toBe(0);
});

test('where no metric differs there is no table for them', () => {
  const [first] = small.masters;
  const { zones, verticalMetrics, italicAngle } = first!;
  const alike = {
    ...small,
    masters: small.masters.map((m) => ({ ...m, zones, verticalMetrics, italicAngle, info: first!.info })),
  };
  expect(readSfnt(cast(alike).bytes).tables.has('MVAR')).toBe(false);
});

test('the map of an axis goes along: user values lead to where masters are drawn, whatever the map', () => {
  const steps = fc.uniqueArray(fc.integer({ min: 301, max: 799 }), { minLength: 0, maxLength: 4 });
  fc.assert(
    fc.property(steps, fc.array(fc.integer({ min: 1, max: 99 }), { minLength: 6, maxLength: 6 }), (users, shares) => {
      const at = [...new Set([300, 400, ...users, 800])].sort((a, b) => a - b);
      // Design values rise as user values do; the three named ones stand where masters are.
      const fixed = new Map([
        [300, 300],
        [400, 400],
        [800, 800],
      ]);
      let last = 300;
      const map = at.map((user, i): [number, number] => {
        const next = user < 400 ? 400 : 800;
        last = fixed.get(user) ?? last + ((next - last) * shares[i % 6]!) / 100;
        return [user, Math.round(last * 100) / 100];
      });
      const project = withAxis('wght', { map });
      const axis = project.axes[0]!;
      const font = readSfnt(cast(project).bytes);
      const said = font.tables.has('avar') ? readAvar(tableOf(font, 'avar'), 2)[0]! : [];
      const straight = map.every(([user, design]) => user === design);
      expect([map, said.length > 0]).toEqual([map, !straight]);
      for (const user of [300, 333, 400, 401, 555, 700, 800]) {
        const plain = user < 400 ? (user - 400) / 100 : (user - 400) / 400;
        const goal = normalised(project.axes, { wght: toDesign(axis, user) }).wght ?? 0;
        expect(Math.abs((straight ? plain : bend(said, plain)) - goal)).toBeLessThan(0.0008);
      }
    }),
    { numRuns: 12 },
  );
});

test('stops of an axis are its named places: ranges, links, what is left out of names, what an older family has', () => {
  const stops = [
    { name: 'Thin', value: 300, minimum: 300, maximum: 350, elidable: false, older: false },
    { name: 'Plain', value: 400, linked: 700, elidable: true, older: true },
    { name: 'Stout', value: 700, elidable: false, older: false },
  ];
  const font = readSfnt(cast(withAxis('wght', { stops })).bytes);
  const read = readStat(tableOf(font, 'STAT')).filter((s) => s.tag === 'wght');
  expect(read.map(({ tag: _, nameID, ...s }) => ({ name: english(font, nameID), ...s }))).toEqual(stops);
});

test('axes tell their names in languages, and open with them again; a language without a number is named', async () => {
  const labels = { de: 'Fette', 'pt-BR': 'Peso', fr: 'Graisse', en: 'Weight', tlh: 'ngI' };
  const project = withAxis('wdth', { hidden: true }, withAxis('wght', { labels }));
  const made = cast(project);
  const font = readSfnt(made.bytes);
  const [wght, wdth] = readFvar(tableOf(font, 'fvar')).axes;
  expect([english(font, wght!.nameID), wght!.hidden, wdth!.hidden]).toEqual(['Weight', false, true]);
  const spoken = namesIn(font).filter((n) => n.nameID === wght!.nameID);
  expect(spoken.map((n) => [n.languageID, n.value])).toEqual([
    [0x407, 'Fette'],
    [0x409, 'Weight'],
    [0x40c, 'Graisse'],
    [0x416, 'Peso'],
  ]);
  expect(made.notes.map((n) => n.reason).join(' ')).toMatch(
    /Names of axes are left out in languages that font files have no number for: tlh\./,
  );
  const back = await openAny(made.bytes, 'named.ttf', {});
  if (!back.ok) throw new Error(back.reason);
  expect(back.value.project.axes[0]!.labels).toEqual({ de: 'Fette', 'pt-BR': 'Peso', fr: 'Graisse' });
  expect(back.value.project.axes[1]!.hidden).toBe(true);
});

test('instances are named where the axes reach; those beyond are told, and every name in the font differs', () => {
  const beyond = { name: 'Black', place: { wght: 900, wdth: 100 } };
  const made = cast({ ...small, instances: [...small.instances, beyond] });
  const font = readSfnt(made.bytes);
  const { instances } = readFvar(tableOf(font, 'fvar'));
  expect(instances.map((i) => english(font, i.nameID))).toEqual(small.instances.map((i) => i.name));
  const wanted = small.instances.map((i) => small.axes.map((a) => toUser(a, i.place[a.tag]!)));
  expect(instances.map((i) => i.place)).toEqual(wanted);
  const postScript = instances.map((i) => english(font, i.postScriptNameID!)!);
  expect(new Set(postScript).size).toBe(small.instances.length);
  for (const n of postScript) expect(n).toMatch(/^VelmarrowSans-[A-Za-z0-9]+$/);
  expect(made.notes.map((n) => n.reason).join(' ')).toMatch(
    /1 instance beyond the ends of the axes cannot be named in the font: Black\./,
  );
});

test('without instances the masters are the named places', () => {
  const font = readSfnt(cast({ ...small, instances: [] }).bytes);
  const { instances } = readFvar(tableOf(font, 'fvar'));
  expect(instances.map((i) => english(font, i.nameID))).toEqual(small.masters.map((m) => m.name));
});

test('a family with one axis, and one whose default is an end of it', () => {
  const inner = (wdth: number) => (place: Readonly<Record<string, number>>) => (place.wdth ?? 100) === wdth;
  const one: Project = {
    ...small,
    axes: small.axes.filter((a) => a.tag === 'wght').map((a) => ({ ...a, minimum: 400 })),
    masters: small.masters
      .filter((m) => inner(100)(m.place) && m.place.wght !== 300)
      .map((m) => ({ ...m, place: { wght: m.place.wght! } })),
    instances: small.instances
      .filter((i) => inner(100)(i.place) && i.place.wght !== 300)
      .map((i) => ({ ...i, place: { wght: i.place.wght! } })),
  };
  const font = readSfnt(cast(one).bytes);
  const { axes, instances } = readFvar(tableOf(font, 'fvar'));
  expect(axes.map((a) => [a.tag, a.minimum, a.default, a.maximum])).toEqual([['wght', 400, 400, 800]]);
  expect(instances.map((i) => i.place[0])).toEqual([400, 500, 700, 800]);
  const advances = readHvar(tableOf(font, 'HVAR'));
  const own = hmtx.read(tableOf(font, 'hmtx'), 9, 9);
  const heavy = hmtx.read(tableOf(still(one, one.masters.find((m) => m.place.wght === 800)!.id), 'hmtx'), 9, 9);
  const far = own.map((m, i) => Math.abs(m.advanceWidth + advances.advance(i, [1]) - heavy[i]!.advanceWidth));
  expect(Math.max(...far)).toBeLessThanOrEqual(0.5);
});
