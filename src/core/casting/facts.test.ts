import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import { buildStarter } from '../../../demo/starter';
import { head } from '../opentype/head';
import { hhea } from '../opentype/hhea';
import { readLayout } from '../opentype/layout/lists';
import { maxContext } from '../opentype/layout/maxContext';
import { os2 } from '../opentype/os2';
import { post } from '../opentype/post';
import { readSfnt, tableOf } from '../opentype/sfnt';
import type { Lib, Master, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { anyEdit } from '../testing/anyEdit';
import { CastCache } from './cache';
import { castFont } from './font';
import type { Flavour } from './plan';

/** Single facts of the tables that a reader of the font would notice, each held by itself. */

const demo = buildStarter();
const withMaster = (change: Partial<Master>, project: Project = demo): Project => ({
  ...project,
  masters: [{ ...project.masters[0]!, ...change }],
});
const withInfo = (info: Lib): Project => withMaster({ info: { ...demo.masters[0]!.info, ...info } });
const ready = readyDemo();
const cast = (project: Project, flavour: Flavour = 'ttf') => {
  const font = castFont(project, { flavour, place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  return readSfnt(font.value.bytes);
};
const read = (project: Project) => {
  const font = cast(project);
  return {
    font,
    os2: os2.read(tableOf(font, 'OS/2')),
    hhea: hhea.read(tableOf(font, 'hhea')),
    post: post.read(tableOf(font, 'post')),
    head: head.read(tableOf(font, 'head')),
  };
};

test('the caret leans as the letters do', () => {
  const { hhea: upright } = read(demo);
  expect([upright.caretSlopeRise, upright.caretSlopeRun]).toEqual([1, 0]);
  // A negative angle is one of letters that lean to the right.
  const { hhea: leaning, os2: facts } = read(withMaster({ italicAngle: -12 }));
  expect([leaning.caretSlopeRise, leaning.caretSlopeRun]).toEqual([
    1000,
    Math.round(Math.tan((12 * Math.PI) / 180) * 1000),
  ]);
  // Raised figures move with the slope, lowered ones against it.
  expect(facts.ySuperscriptXOffset).toBe(Math.round(Math.tan((12 * Math.PI) / 180) * 350));
  expect(facts.ySubscriptXOffset).toBe(Math.round(-Math.tan((12 * Math.PI) / 180) * 75));
  expect([facts.ySubscriptYOffset, facts.ySuperscriptYOffset]).toEqual([75, 350]);
});

test('a stated fact wins over the rule: subscript, panose, embedding, strikeout', () => {
  const { os2: facts } = read(
    withInfo({
      openTypeOS2SubscriptXOffset: -33,
      openTypeOS2Panose: [2, 11, 5, 3, 2, 2, 2, 2, 2, 4],
      openTypeOS2Type: [2, 8],
      openTypeOS2StrikeoutPosition: 301,
      postscriptUnderlineThickness: 44,
    }),
  );
  expect(facts.ySubscriptXOffset).toBe(-33);
  expect(facts.panose).toEqual([2, 11, 5, 3, 2, 2, 2, 2, 2, 4]);
  expect(facts.fsType).toBe(0b1_0000_0100);
  expect(facts.yStrikeoutPosition).toBe(301);
  expect(facts.yStrikeoutSize).toBe(44);
  expect(read(demo).os2).toMatchObject({ fsType: 0, panose: new Array(10).fill(0) });
});

test('extremes of both sides and the widest glyph are those of the drawings', () => {
  const { hhea: lines, font } = read(demo);
  const glyphs = Object.values(demo.glyphs).filter((g) => g.drawings.m1!.contours.length > 0);
  const boxes = glyphs.map((g) => {
    const points = g.drawings.m1!.contours.flatMap((c) => c.points).filter((p) => p.type !== 'off');
    const xs = points.map((p) => p.x);
    return { left: Math.min(...xs), right: Math.max(...xs), advance: g.drawings.m1!.advance };
  });
  // The demo's outlines have points at their extremes.
  expect(lines.minLeftSideBearing).toBe(Math.min(...boxes.map((b) => Math.floor(b.left))));
  expect(lines.minRightSideBearing).toBe(Math.min(...boxes.map((b) => b.advance - Math.ceil(b.right))));
  expect(lines.xMaxExtent).toBe(Math.max(...boxes.map((b) => Math.ceil(b.right))));
  expect(lines.advanceWidthMax).toBe(Math.max(...Object.values(demo.glyphs).map((g) => g.drawings.m1!.advance)));
  expect(font.tables.has('hmtx')).toBe(true);
});

test('one width for all says so; one that differs does not', () => {
  const even = (advance: (name: string) => number): Project => ({
    ...demo,
    glyphs: Object.fromEntries(
      Object.entries(demo.glyphs).map(([id, g]) => [
        id,
        { ...g, drawings: { m1: { ...g.drawings.m1!, advance: advance(g.name) } } },
      ]),
    ),
  });
  expect(read(even(() => 600)).post.isFixedPitch).toBe(1);
  expect(read(even((name) => (name === 'n' ? 601 : 600))).post.isFixedPitch).toBe(0);
});

test('scripts are those of the characters; the longest context is that of the features', () => {
  const kerned = (characters: readonly number[]): Project => {
    const glyphs = { ...demo.glyphs };
    const spare = demo.glyphOrder.slice(6, 6 + characters.length);
    for (const [i, code] of characters.entries()) glyphs[spare[i]!] = { ...glyphs[spare[i]!]!, unicodes: [code] };
    const n = glyphNamed(demo, 'n')!.id;
    return withMaster({ kerning: { [`glyph:${n} glyph:${n}`]: -20 } }, { ...demo, glyphs });
  };
  const all = [0x3b1, 0x430, 0x561, 0x5d0, 0x628, 0xe01, 0x10d0];
  const { font, os2: facts } = read(kerned(all));
  const layout = readLayout(tableOf(font, 'GPOS'), 'GPOS', 9);
  expect(layout.scripts.map((s) => s.tag)).toEqual([
    'DFLT',
    'arab',
    'armn',
    'cyrl',
    'geor',
    'grek',
    'hebr',
    'latn',
    'thai',
  ]);
  expect(layout.scripts.every((s) => s.usual?.features.length === 1)).toBe(true);
  expect(facts.usMaxContext).toBe(2);
  const longest = (text: string): number | undefined =>
    read({ ...demo, features: { ...demo.features, sections: [{ id: 's', title: 'Mine', options: {}, text }] } }).os2
      .usMaxContext;
  expect(longest('')).toBe(0);
  expect(longest('feature salt { sub a by b; } salt;')).toBe(1);
  expect(longest('feature kern { pos a b -10; } kern;')).toBe(2);
  expect(longest('feature liga { sub a b by c; sub a b d by e; } liga;')).toBe(3);
  // What stands before the glyph that a rule begins with is not counted.
  expect(longest("feature calt { sub n n a' b' c d e by f; } calt;")).toBe(5);
  expect(longest("feature calt { sub [n o] a' [c d] by f; sub a' [b n] [c d] [o e] by h; } calt;")).toBe(4);
  expect(longest("feature calt { rsub n a' b by f; } calt;")).toBe(2);
  expect(longest("feature kern { pos a' -10 b' c' d; } kern;")).toBe(4);
  expect(longest('feature salt useExtension { sub a by b; } salt;')).toBe(1);
});

test('rules whose parts lead to each other without end count for nothing', () => {
  // Every list has 16,000 parts, which all have the same 16,000 parts.
  const bytes = new Uint8Array(128_000);
  const view = new DataView(bytes.buffer);
  for (let at = 10; at < bytes.length; at += 2) view.setUint16(at, 16_000);
  view.setUint16(8, 10);
  // A lookup with contexts.
  view.setUint16(10 + 16_000, 5);
  expect(maxContext(new Map([['GSUB', bytes]]))).toBe(0);
});

test('the longest context of damaged rules is what can be read of them', () => {
  const font = cast(ready);
  const whole = maxContext(font.tables);
  expect(whole).toBe(3);
  for (const tag of ['GSUB', 'GPOS'])
    fc.assert(
      fc.property(
        fc.nat(tableOf(font, tag).length - 1),
        fc.integer({ min: 0, max: 255 }),
        fc.boolean(),
        (at, v, cut) => {
          const bytes = Uint8Array.from(tableOf(font, tag));
          bytes[at] = v;
          const damaged = maxContext(new Map([[tag, cut ? bytes.subarray(0, at) : bytes]]));
          expect(damaged).toBeGreaterThanOrEqual(0);
          expect(damaged).toBeLessThan(3 * 65536);
        },
      ),
      { numRuns: 60 },
    );
});

test('warm bytes equal cold bytes after any edits, in every master and outline kind', () => {
  const second = { ...demo.masters[0]!, id: 'm2', name: 'Heavy' };
  const [a, b, c] = ['a', 'n', 'o'].map((name) => glyphNamed(demo, name)!);
  const use = (glyph: string) => ({ glyph, transform: [1, 0, 0, 1, 30, 0] as const });
  const family: Project = {
    ...demo,
    masters: [demo.masters[0]!, second],
    glyphOrder: demo.glyphOrder.slice(0, 40),
    glyphs: Object.fromEntries(
      demo.glyphOrder.slice(0, 40).map((id) => {
        const g = demo.glyphs[id]!;
        const drawing = g.drawings.m1!;
        // a is made of n, which is made of o, so that what an outline depends on lies two levels below it.
        const components = id === a!.id ? [use(b!.id)] : id === b!.id ? [use(c!.id)] : [];
        return [id, { ...g, drawings: { m1: { ...drawing, components }, m2: { ...drawing, components } } }];
      }),
    ),
  };
  const bytes = (project: Project, flavour: Flavour, master: string, keepOverlaps: boolean, cache?: CastCache) => {
    const font = castFont(project, {
      flavour,
      place: { master },
      keepOverlaps,
      compact: false,
      ...(cache && { cache }),
    });
    return font.ok ? Buffer.from(font.value.bytes).toString('base64') : font.reason;
  };
  const edits = anyEdit(family, (name) => !/Lettering|Backdrop|Take|take|Text|Lines|Setting|Word|leave/.test(name));
  fc.assert(
    fc.property(fc.array(edits, { minLength: 1, maxLength: 8 }), (steps) => {
      const cache = new CastCache();
      let project = family;
      const hold = (flavour: Flavour, master: string, keep: boolean) =>
        expect(bytes(project, flavour, master, keep, cache)).toBe(bytes(project, flavour, master, keep));
      for (const step of [undefined, ...steps]) {
        const outcome = step?.run(project);
        if (outcome?.ok) project = outcome.project;
        for (const { id } of project.masters) hold('ttf', id, true);
        hold('otf', 'm1', false);
        hold('ttf', 'm2', false);
      }
    }),
    { numRuns: 6, seed: 5 },
  );
});

test('a base that changes in a sibling master changes the bytes that depend on it', () => {
  const n = glyphNamed(demo, 'n')!;
  const o = glyphNamed(demo, 'o')!;
  const second = { ...demo.masters[0]!, id: 'm2', name: 'Heavy' };
  const slanted = { glyph: o.id, transform: [1, 0.1, 0.2, 1, 0, 0] as const };
  const glyphs = Object.fromEntries(
    Object.values(demo.glyphs).map((g) => [g.id, { ...g, drawings: { m1: g.drawings.m1!, m2: g.drawings.m1! } }]),
  );
  const composite = { ...n.drawings.m1!, contours: n.drawings.m1!.contours, components: [slanted] };
  const before: Project = {
    ...demo,
    masters: [demo.masters[0]!, second],
    glyphs: { ...glyphs, [n.id]: { ...n, drawings: { m1: composite, m2: composite } } },
  };
  const bent = {
    ...o.drawings.m1!,
    contours: o.drawings.m1!.contours.map((c) => ({
      ...c,
      points: c.points.map((p, i) => (p.type === 'off' ? { ...p, x: p.x + (i % 2 === 0 ? 400 : -400) } : p)),
    })),
  };
  const after: Project = {
    ...before,
    glyphs: { ...before.glyphs, [o.id]: { ...before.glyphs[o.id]!, drawings: { m1: o.drawings.m1!, m2: bent } } },
  };
  const cache = new CastCache();
  const bytes = (project: Project, own?: CastCache) => {
    const font = castFont(project, {
      flavour: 'ttf',
      place: { master: 'm1' },
      keepOverlaps: true,
      ...(own && { cache: own }),
    });
    if (!font.ok) throw new Error(font.reason);
    return Buffer.from(font.value.bytes).toString('base64');
  };
  bytes(before, cache);
  expect(bytes(after)).not.toBe(bytes(before));
  expect(bytes(after, cache)).toBe(bytes(after));
});
