import { readyDemo } from '../../../demo/ready';
import '../allEdits';
import { movePoints } from '../drawing/edits';
import { sidesOf } from '../fitting/sides';
import { transformContour } from '../geometry/contour';
import { runEdit } from '../project/edit';
import type { Drawing, Glyph, Project } from '../project/model';
import { pairKey } from '../project/pairs';
import { glyphNamed } from '../project/queries';
import { withChanged } from '../testing/change';
import type { Finding } from './finding';
import { acceptFindings, judgeKinds, parted, unacceptFindings } from './judged';
import { KINDS, kindOf } from './kinds';
import { mendMany } from './mendEdits';
import { Preflight } from './preflight';

const whole = readyDemo();
/** Letters and figures, a few accents and marks, with their anchors, rules of sides and kerning. */
const demo = smaller(whole, /^([\u0000-\u007eàáèéðÐśŚıȷ]|\u0300|\u0301)$/u);
function smaller(project: Project, kept: RegExp): Project {
  const gone = project.glyphOrder.filter((g) => {
    const { name, unicodes } = project.glyphs[g]!;
    return name !== '.notdef' && !unicodes.some((c) => kept.test(String.fromCodePoint(c)));
  });
  const done = runEdit(project, 'removeGlyphs', { ids: gone, drawOut: true });
  if (!done.ok) throw new Error(done.reason);
  return { ...done.project, features: { ...project.features, sections: [] } };
}
const ids = demo.masters.map((m) => m.id);
const [light, regular] = ids as [string, string];
const preflight = new Preflight();
const all = preflight.check(demo);
const id = (name: string): string => glyphNamed(demo, name)!.id;

/** What is found of a kind that the demo as it is does not have. */
function fresh(project: Project, kind: string): Finding[] {
  const known = new Set(all.filter((f) => f.kind === kind).map((f) => `${f.glyph} ${f.masters.join()} ${f.reason}`));
  return preflight
    .check(project)
    .filter((f) => f.kind === kind && !known.has(`${f.glyph} ${f.masters.join()} ${f.reason}`));
}
const withGlyph = (name: string, change: (g: Glyph) => Partial<Glyph>, project = demo): Project => {
  const g = glyphNamed(project, name)!;
  return { ...project, glyphs: { ...project.glyphs, [g.id]: { ...g, ...change(g) } } };
};
const inAll = (name: string, change: (d: Drawing) => Partial<Drawing>): Project =>
  withGlyph(name, (g) => ({
    drawings: Object.fromEntries(Object.entries(g.drawings).map(([m, d]) => [m, { ...d, ...change(d) }])),
  }));
const withMaster = (
  index: number,
  change: (m: Project['masters'][number]) => Partial<Project['masters'][number]>,
): Project => ({
  ...demo,
  masters: demo.masters.map((m, i) => (i === index ? { ...m, ...change(m) } : m)),
});

/** Mends what was found by its first way, and gives the project. */
function mended(project: Project, [found]: readonly Finding[], way = 0): Project {
  const mend = found!.mends[way]!;
  const done = runEdit(project, mend.edit, mend.args);
  if (!done.ok) throw new Error(done.reason);
  return done.project;
}

/** Moves all points at a height up or down. */
const raised = (d: Drawing, y: number, by: number): Partial<Drawing> => ({
  contours: d.contours.map((c) => ({ ...c, points: c.points.map((p) => (p.y === y ? { ...p, y: p.y + by } : p)) })),
});

const bottomOf = (d: Drawing): number => Math.min(...d.contours.flatMap((c) => c.points.map((p) => p.y)));

/** Each with a project that has the fault, the glyph it is of, and a near miss that has none. */
const PLANTED: readonly { kind: string; plant: () => Project; glyph?: string; miss?: () => Project; mends?: false }[] =
  [
    {
      kind: 'heights/line',
      plant: () => withChanged(demo, 'H', light, (d) => raised(d, 700, 2)),
      glyph: 'H',
      miss: () => withChanged(demo, 'H', light, (d) => raised(d, 700, 9)),
    },
    {
      kind: 'heights/overshoot',
      plant: () => withChanged(demo, 'O', light, (d) => raised(d, bottomOf(d), 2)),
      glyph: 'O',
      miss: () => withChanged(demo, 'O', light, (d) => raised(d, bottomOf(d), 8)),
    },
    {
      kind: 'heights/stem',
      plant: () =>
        withChanged(demo, 'h', regular, (d) => {
          const x = Math.min(
            ...d.contours[0]!.points.filter((p) => p.y === 0)
              .map((p) => p.x)
              .sort((a, b) => a - b)
              .slice(1, 2),
          );
          return {
            contours: d.contours.map((c) => ({
              ...c,
              points: c.points.map((p) => (p.x === x ? { ...p, x: p.x + 2 } : p)),
            })),
          };
        }),
      glyph: 'h',
    },
    {
      kind: 'parts/gone',
      plant: () =>
        inAll('eacute', (d) => ({ components: [...d.components, { glyph: 'nobody', transform: [1, 0, 0, 1, 0, 0] }] })),
      glyph: 'eacute',
    },
    {
      kind: 'parts/endless',
      plant: () =>
        inAll('e', (d) => ({ components: [...d.components, { glyph: id('eacute'), transform: [1, 0, 0, 1, 0, 0] }] })),
      glyph: 'e',
      mends: false,
    },
    {
      kind: 'parts/scaled',
      plant: () =>
        inAll('aacute', (d) => ({
          components: d.components.map((c, i) => (i === 0 ? { ...c, transform: [0.9, 0, 0, 0.9, 0, 0] as const } : c)),
        })),
      glyph: 'aacute',
      miss: () =>
        inAll('aacute', (d) => ({
          components: d.components.map((c, i) =>
            i === 0 ? { ...c, transform: [0.99, 0, 0, 0.99, 0, 0] as const } : c,
          ),
        })),
      mends: false,
    },
    {
      kind: 'parts/mirrored',
      plant: () =>
        inAll('aacute', (d) => ({
          components: d.components.map((c, i) => (i === 0 ? { ...c, transform: [-1, 0, 0, 1, 400, 0] as const } : c)),
        })),
      glyph: 'aacute',
      mends: false,
    },
    {
      kind: 'parts/recipe',
      plant: () =>
        withChanged(demo, 'aacute', light, (d) => ({
          components: d.components.map((c, i) =>
            i === 1 ? { ...c, transform: [1, 0, 0, 1, c.transform[4] + 20, c.transform[5]] as const } : c,
          ),
        })),
      glyph: 'aacute',
      miss: () =>
        withChanged(demo, 'aacute', light, (d) => ({
          components: d.components.map((c, i) =>
            i === 1 ? { ...c, transform: [1, 0, 0, 1, c.transform[4] + 2, c.transform[5]] as const } : c,
          ),
        })),
    },
    {
      kind: 'parts/anchorUseless',
      plant: () => inAll('n', (d) => ({ anchors: [...d.anchors, { name: 'elbow', x: 100, y: 200 }] })),
      mends: false,
    },
    {
      kind: 'parts/anchorMissing',
      plant: () => inAll('n', (d) => ({ anchors: d.anchors.filter((a) => a.name !== 'top') })),
      glyph: 'n',
    },
    {
      kind: 'parts/anchorFar',
      plant: () =>
        withChanged(demo, 'n', light, (d) => ({
          anchors: d.anchors.map((a) => (a.name === 'top' ? { ...a, y: a.y + 260 } : a)),
        })),
      glyph: 'n',
      miss: () =>
        withChanged(demo, 'n', light, (d) => ({
          anchors: d.anchors.map((a) => (a.name === 'top' ? { ...a, y: a.y + 30 } : a)),
        })),
    },
    { kind: 'parts/markWide', plant: () => inAll('acutecomb', () => ({ advance: 300 })), glyph: 'acutecomb' },
    {
      kind: 'fitting/advance',
      plant: () => withChanged(demo, 'n', light, () => ({ advance: 0 })),
      glyph: 'n',
      miss: () => withChanged(demo, 'acutecomb', light, () => ({ advance: 0 })),
      mends: false,
    },
    {
      kind: 'fitting/figures',
      plant: () => withChanged(demo, 'seven', light, (d) => ({ advance: d.advance + 4 })),
      glyph: 'seven',
    },
    {
      kind: 'fitting/composite',
      plant: () => inAll('aacute', (d) => ({ advance: d.advance + 12 })),
      glyph: 'aacute',
      miss: () => inAll('aacute', (d) => ({ advance: d.advance + 1 })),
    },
    {
      kind: 'kerning/contradiction',
      plant: () =>
        withMaster(0, (m) => {
          const first = demo.groups.find((g) => g.side === 'first' && g.members.length > 2)!;
          const second = demo.groups.find((g) => g.side === 'second' && g.members.length > 2)!;
          const [a, b] = [first.members[1]!, second.members[1]!];
          return {
            kerning: {
              ...m.kerning,
              [pairKey({ kind: 'glyph', id: a }, { kind: 'group', id: second.id })]: 130,
              [pairKey({ kind: 'group', id: first.id }, { kind: 'glyph', id: b })]: -170,
            },
          };
        }),
    },
    {
      kind: 'kerning/touching',
      plant: () =>
        withMaster(0, (m) => ({
          kerning: { ...m.kerning, [pairKey({ kind: 'glyph', id: id('H') }, { kind: 'glyph', id: id('H') })]: -300 },
        })),
      glyph: 'H',
      miss: () =>
        withMaster(0, (m) => ({
          kerning: { ...m.kerning, [pairKey({ kind: 'glyph', id: id('H') }, { kind: 'glyph', id: id('H') })]: -60 },
        })),
      mends: false,
    },
    {
      kind: 'kerning/inOneMaster',
      plant: () =>
        withMaster(0, (m) => ({
          kerning: { ...m.kerning, [pairKey({ kind: 'glyph', id: id('H') }, { kind: 'glyph', id: id('H') })]: 30 },
        })),
      glyph: 'H',
      miss: () =>
        withMaster(0, (m) => ({
          kerning: { ...m.kerning, [pairKey({ kind: 'glyph', id: id('H') }, { kind: 'glyph', id: id('H') })]: 6 },
        })),
      mends: false,
    },
    {
      kind: 'kerning/odd',
      plant: () => {
        const key = pairKey({ kind: 'glyph', id: id('H') }, { kind: 'glyph', id: id('H') });
        const row = [20, -90, 22];
        return {
          ...demo,
          masters: demo.masters.map((m, i) => ({ ...m, kerning: { ...m.kerning, [key]: row[i] ?? 20 } })),
        };
      },
      glyph: 'H',
    },
    {
      kind: 'masters/disagree',
      plant: () =>
        withChanged(demo, 'n', light, (d) => ({
          contours: d.contours.map((c, i) =>
            i === 0 ? { ...c, points: [...c.points, { x: 5, y: 5, type: 'line' as const }] } : c,
          ),
        })),
      glyph: 'n',
    },
    {
      kind: 'masters/missing',
      plant: () => withChanged(demo, 'n', light, () => ({ contours: [] })),
      glyph: 'n',
      mends: false,
    },
    {
      kind: 'masters/anchors',
      plant: () => withChanged(demo, 'n', light, (d) => ({ anchors: d.anchors.slice(1) })),
      glyph: 'n',
      mends: false,
    },
    {
      kind: 'masters/heights',
      plant: () => withMaster(1, (m) => ({ zones: { ...m.zones, xHeight: { ...m.zones.xHeight, position: 560 } } })),
      mends: false,
    },
    {
      kind: 'masters/instance',
      plant: () => ({
        ...demo,
        instances: [...demo.instances, { name: 'Beyond', place: { [demo.axes[0]!.tag]: 5000 } }],
      }),
      mends: false,
    },
    { kind: 'masters/kerning', plant: () => withMaster(3, () => ({ kerning: {} })), mends: false },
    {
      kind: 'masters/waypoint',
      plant: () => {
        const done = runEdit(demo, 'addWaypoint', { glyph: id('n'), place: halfway });
        if (!done.ok) throw new Error(done.reason);
        return done.project;
      },
      glyph: 'n',
    },
    {
      kind: 'characters/empty',
      plant: () => inAll('n', () => ({ contours: [], components: [] })),
      glyph: 'n',
      mends: false,
    },
    { kind: 'characters/twice', plant: () => withGlyph('o', () => ({ unicodes: [0x6f, 0x6e] })) },
    {
      kind: 'characters/notdef',
      plant: () => inAll('.notdef', () => ({ contours: [], components: [] })),
      glyph: '.notdef',
      mends: false,
    },
    { kind: 'characters/space', plant: () => inAll('space', () => ({ advance: 0 })), glyph: 'space', mends: false },
    { kind: 'characters/name', plant: () => withGlyph('n', () => ({ name: 'an n' })) },
    { kind: 'characters/otherName', plant: () => withGlyph('n', () => ({ unicodes: [0x20ac] })), mends: false },
    { kind: 'characters/production', plant: () => withGlyph('n', () => ({ productionName: 'o' })), mends: false },
    {
      kind: 'characters/case',
      plant: () => doneBy(runEdit(demo, 'removeGlyphs', { ids: [id('Sacute')] })),
      glyph: 'sacute',
    },
    { kind: 'names/family', plant: () => ({ ...demo, family: { ...demo.family, name: '' } }), mends: false },
    {
      kind: 'names/clash',
      plant: () => ({
        ...demo,
        instances: [...demo.instances, { ...demo.instances[0]!, place: demo.instances[1]!.place }],
      }),
      mends: false,
    },
    {
      kind: 'names/long',
      plant: () => ({ ...demo, family: { ...demo.family, name: 'Velmarrow Sans for very long lines of text' } }),
      mends: false,
    },
    { kind: 'names/class', plant: () => withMaster(2, (m) => ({ info: { ...m.info, openTypeOS2WeightClass: 200 } })) },
    { kind: 'names/italic', plant: () => withMaster(0, () => ({ italicAngle: -11 })), mends: false },
    { kind: 'names/vendor', plant: () => ({ ...demo, family: { ...demo.family, vendor: 'FIVE5' } }), mends: false },
    {
      kind: 'names/version',
      plant: () => ({ ...demo, family: { ...demo.family, versionMajor: 0, versionMinor: 0 } }),
      mends: false,
    },
    { kind: 'names/rights', plant: () => ({ ...demo, family: { ...demo.family, copyright: '' } }), mends: false },
    {
      kind: 'lines/clipped',
      plant: () => withMaster(0, (m) => ({ verticalMetrics: { ...m.verticalMetrics, winAscent: 600 } })),
    },
    {
      kind: 'lines/differ',
      plant: () => withMaster(1, (m) => ({ verticalMetrics: { ...m.verticalMetrics, hheaAscender: 1200 } })),
      mends: false,
    },
    {
      kind: 'lines/apart',
      plant: () => withMaster(0, (m) => ({ verticalMetrics: { ...m.verticalMetrics, hheaAscender: 1300 } })),
      mends: false,
    },
    {
      kind: 'lines/sum',
      plant: () => withMaster(0, (m) => ({ verticalMetrics: { ...m.verticalMetrics, hheaLineGap: 1500 } })),
      mends: false,
    },
    {
      kind: 'lines/sign',
      plant: () => withMaster(0, (m) => ({ zones: { ...m.zones, baseline: { ...m.zones.baseline, overshoot: 12 } } })),
    },
    {
      kind: 'lines/order',
      plant: () => withMaster(0, (m) => ({ zones: { ...m.zones, xHeight: { ...m.zones.xHeight, position: -20 } } })),
      mends: false,
    },
    {
      kind: 'features/error',
      plant: () => ({
        ...demo,
        features: {
          ...demo.features,
          sections: [
            ...demo.features.sections,
            { id: 'odd', title: 'Odd', options: {}, text: 'feature liga {\n  sub f nobody by x;\n} liga;' },
          ],
        },
      }),
      mends: false,
    },
    {
      kind: 'features/gone',
      plant: () => ({ ...demo, features: { ...demo.features, classes: { Some: ['nobody'] } } }),
      mends: false,
    },
  ];

const halfway = Object.fromEntries(
  demo.axes.map((a) => {
    const values = demo.masters.map((m) => m.place[a.tag] ?? 0);
    return [a.tag, (Math.min(...values) + Math.max(...values)) / 2 + (a === demo.axes[0] ? 60 : 0)];
  }),
);

describe.each(PLANTED)('$kind', ({ kind, plant, glyph, miss, mends }) => {
  it('is found where it is planted, and mended where a machine can', () => {
    const project = plant();
    const found = fresh(project, kind).filter((f) => glyph === undefined || f.glyph === id(glyph));
    expect(found.length).toBeGreaterThan(0);
    expect(found[0]!.reason).toMatch(/[.:]|\d/);
    if (mends === false) return;
    const after = mended(project, found);
    expect(fresh(after, kind).filter((f) => f.glyph === found[0]!.glyph && f.reason === found[0]!.reason)).toEqual([]);
  });
  if (miss)
    it('leaves a near miss alone', () => {
      expect(
        fresh(miss(), kind)
          .filter((f) => f.glyph === id(glyph!))
          .map((f) => f.reason),
      ).toEqual([]);
    });
});

test('a side that follows another and was left behind is found and brought up to date', () => {
  const following = Object.values(demo.glyphs).find(
    (g) => g.follows.left.length > 0 && g.drawings[light]!.contours.length > 0,
  )!;
  const project = withChanged(demo, following.name, light, (d) => ({
    contours: d.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: p.x + 7 })) })),
  }));
  const found = fresh(project, 'fitting/follow').filter((f) => f.glyph === following.id);
  expect(found[0]?.reason).toMatch(/left side is/);
  expect(fresh(mended(project, found), 'fitting/follow').filter((f) => f.glyph === following.id)).toEqual([]);
});

test('the demo has no error, and less than one finding for every seven glyphs', () => {
  const found = new Preflight().check(whole);
  expect(found.filter((f) => kindOf(f.kind)!.severity === 'error').map((f) => f.reason)).toEqual([]);
  expect(found.length).toBeLessThan(whole.glyphOrder.length / 7);
});

test('what is known again after edits is what a first look finds', () => {
  // Three of its masters, since all is looked at anew after every edit.
  const few = ids.slice(2, -1).reduce((p, master) => edited(p, 'removeMaster', { master }), demo);
  const first = new Preflight().check(few);
  const own = new Preflight();
  let now = few;
  own.check(now);
  const edits: ((p: Project) => Project)[] = [
    (p) => doneBy(movePoints(p, { at: { glyph: id('n'), master: light }, points: ['0:0'], dx: 1, dy: 0 })),
    (p) => withChanged(p, 'e', light, (d) => ({ contours: d.contours.map((c) => ({ ...c, closed: false })) })),
    (p) =>
      doneBy(
        runEdit(p, 'setPair', {
          master: regular,
          first: { kind: 'glyph', id: id('H') },
          second: { kind: 'glyph', id: id('I') },
          value: -400,
        }),
      ),
    (p) => withChanged(p, 'acutecomb', light, (d) => ({ anchors: d.anchors.map((a) => ({ ...a, x: a.x + 40 })) })),
    (p) =>
      doneBy(judgeKinds(p, { kinds: { 'outlines/nearlySmooth': { on: false }, 'outlines/extreme': { amount: 0.5 } } })),
    (p) => withGlyph('o', () => ({ unicodes: [0x6f, 0x6e] }), p),
    // Slips of sides and heights, in one master each; then what they are judged by.
    (p) => edited(p, 'setSides', { at: { glyph: id('l'), master: regular }, left: sideIn(p, 'l', regular) + 1 }),
    (p) => edited(p, 'movePoints', { at: { glyph: id('x'), master: light }, points: ['0:0'], dx: 0, dy: 1 }),
    (p) => edited(p, 'setZone', { master: light, zone: 'xHeight', change: { position: 520 } }),
    (p) => edited(p, 'setItalicAngle', { master: regular, angle: -4 }),
    (p) =>
      edited(p, 'setFollow', {
        glyph: id('m'),
        side: 'left',
        master: light,
        follow: { glyph: id('n'), side: 'left', offset: 3, everyMaster: true },
      }),
    (p) => edited(p, 'setSides', { at: { glyph: id('n'), master: light }, left: sideIn(p, 'n', light) + 7 }),
    (p) => edited(p, 'setGlyphNames', { id: id('t'), name: 'tee', unicodes: [0x74] }),
    (p) => withGlyph('s', () => ({ category: 'mark' }), p),
    (p) => edited(p, 'addComponent', { at: { glyph: id('c'), master: light }, glyph: id('acutecomb') }),
    (p) => withChanged(p, 'acutecomb', light, (d) => ({ advance: d.advance + 3 })),
    (p) =>
      withChanged(p, 'acutecomb', light, (d) => ({
        contours: d.contours.map((c) => transformContour(c, [1, 0, 0, 3, 0, 900])),
      })),
    (p) => edited(p, 'removeGlyphs', { ids: [id('q')], drawOut: true }),
    (p) => edited(p, 'removeMaster', { master: ids.at(-1)! }),
    () => few,
  ];
  for (const [i, edit] of edits.entries()) {
    now = edit(now);
    // One that is left off on the way is no help and no hindrance to the next.
    if (i % 3 === 0) {
      const steps = own.steps(now);
      for (let k = 0; k < i; k++) steps.next();
    }
    // Several edits at once are looked at as well as one.
    if (i % 4 !== 3) expect([i, own.check(now)]).toEqual([i, new Preflight().check(now)]);
  }
  expect(own.check(now)).toEqual(first);
});

const edited = (p: Project, name: string, args: unknown): Project => doneBy(runEdit(p, name, args));
function sideIn(p: Project, name: string, master: string): number {
  const sides = sidesOf(p, glyphNamed(p, name)!, master);
  if (!('left' in sides)) throw new Error(`${name} is not drawn.`);
  return sides.left;
}

const doneBy = (outcome: ReturnType<typeof runEdit>): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};

test('what is accepted is counted and left out, until there is one more; it can be brought back', () => {
  const open = (p: Project, name: string) =>
    withChanged(p, name, light, (d) => ({
      contours: d.contours.map((c, i) => (i === 0 ? { ...c, closed: false } : c)),
    }));
  const faulty = open(open(demo, 'O'), 'o');
  const kind = 'outlines/open';
  const parts = (p: Project) => {
    const { standing, accepted } = parted(p, preflight.check(p));
    const of = (list: readonly Finding[]) =>
      list
        .filter((f) => f.kind === kind)
        .map((f) => p.glyphs[f.glyph!]!.name)
        .sort();
    return { standing: of(standing), accepted: of(accepted) };
  };
  expect(parts(faulty)).toEqual({ standing: ['O', 'o'], accepted: [] });
  const one = doneBy(acceptFindings(faulty, { kind, glyph: 'o', count: 1, reason: 'Drawn with one stroke.' }));
  expect(parts(one)).toEqual({ standing: ['O'], accepted: ['o'] });
  // One more of the kind brings all of the glyph back.
  const more = withChanged(one, 'o', light, (d) => ({ contours: d.contours.map((c) => ({ ...c, closed: false })) }));
  expect(parts(more).standing).toEqual(['O', 'o', 'o']);
  const both = doneBy(acceptFindings(one, { kind, count: 2, reason: '' }));
  expect(parts(both)).toEqual({ standing: [], accepted: ['O', 'o'] });
  expect(parts(doneBy(unacceptFindings(both, { kind })))).toEqual({ standing: ['O', 'o'], accepted: [] });
  expect(unacceptFindings(faulty, { kind }).ok).toBe(false);
  // A new name takes it along, and who goes takes it away.
  const renamed = doneBy(runEdit(one, 'setGlyphNames', { id: id('o'), name: 'roundo', unicodes: [0x6f] }));
  expect(renamed.settings.preflight?.accepted?.[0]?.glyph).toBe('roundo');
  const gone = doneBy(runEdit(one, 'removeGlyphs', { ids: [id('o')], drawOut: true }));
  expect(gone.settings.preflight?.accepted).toEqual([]);
});

test('how strictly a kind is judged is the project’s, within bounds', () => {
  const slight = withChanged(demo, 'H', light, (d) => raised(d, 700, 5));
  expect(fresh(slight, 'heights/line').filter((f) => f.glyph === id('H'))).toEqual([]);
  const strict = doneBy(judgeKinds(slight, { kinds: { 'heights/line': { amount: 6 } } }));
  expect(preflight.check(strict).some((f) => f.kind === 'heights/line' && f.glyph === id('H'))).toBe(true);
  const off = doneBy(judgeKinds(strict, { kinds: { 'heights/line': { on: false } } }));
  expect(preflight.check(off).some((f) => f.kind === 'heights/line')).toBe(false);
  expect(judgeKinds(demo, { kinds: { 'heights/line': { amount: 900 } } }).ok).toBe(false);
  expect(judgeKinds(demo, { kinds: { 'heights/nothing': { on: true } } }).ok).toBe(false);
  expect(doneBy(judgeKinds(off, { kinds: { 'heights/line': null } })).settings.preflight?.kinds).toEqual({});
});

test('all of a kind are mended at once, each glyph as often as it has it; what cannot be is named', () => {
  let faulty = demo;
  for (const name of ['n', 'm', 'H'])
    faulty = withGlyph(
      name,
      (g) => ({
        drawings: Object.fromEntries(
          Object.entries(g.drawings).map(([m, d]) => [
            m,
            {
              ...d,
              contours: [
                ...d.contours,
                { closed: true, points: [{ x: 9, y: 9, type: 'line' as const }] },
                { closed: true, points: [{ x: 19, y: 9, type: 'line' as const }] },
              ],
            },
          ]),
        ),
      }),
      faulty,
    );
  const kind = 'outlines/stray';
  const of = (p: Project, g?: string) =>
    (g ? preflight.glyphFindings(p, g) : preflight.check(p)).filter((f) => f.kind === kind);
  const found = of(faulty);
  expect(found).toHaveLength(6);
  const done = mendMany(faulty, found, (p, _, g) => of(p, g));
  expect([done.mended, done.left.length, of(done.project).length]).toEqual([6, 0, 0]);
  for (const name of ['n', 'm', 'H'])
    for (const m of ids) expect(done.project.glyphs[id(name)]!.drawings[m]).toEqual(demo.glyphs[id(name)]!.drawings[m]);
});

test('what most glyphs do is how the family is drawn: told once', () => {
  const fractional: Project = {
    ...demo,
    glyphs: Object.fromEntries(
      Object.entries(demo.glyphs).map(([k, g]) => [
        k,
        {
          ...g,
          drawings: Object.fromEntries(
            Object.entries(g.drawings).map(([m, d]) => [
              m,
              {
                ...d,
                contours: d.contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: p.x + 0.25 })) })),
              },
            ]),
          ),
        },
      ]),
    ),
  };
  const found = new Preflight().check(fractional).filter((f) => f.kind === 'outlines/offGrid');
  expect(found).toHaveLength(1);
  expect(found[0]!.reason).toMatch(/how the family is drawn/);
});

test('a family that is only begun is told so once, not letter by letter', () => {
  const begun: Project = {
    ...demo,
    glyphs: Object.fromEntries(
      Object.entries(demo.glyphs).map(([k, g]) => [
        k,
        g.name === 'n'
          ? g
          : {
              ...g,
              drawings: Object.fromEntries(
                Object.entries(g.drawings).map(([m, d]) => [m, { ...d, contours: [], components: [] }]),
              ),
            },
      ]),
    ),
  };
  const found = new Preflight().check(begun).filter((f) => f.kind === 'characters/empty');
  expect(found).toHaveLength(1);
  expect(found[0]!.reason).toMatch(/^\d+ characters are encoded and not drawn yet\.$/);
  expect(found[0]!.others!.length).toBeGreaterThan(50);
});

test('each kind says what it is, why it matters, and has sensible bounds', () => {
  expect(new Set(KINDS.map((k) => k.kind)).size).toBe(KINDS.length);
  for (const k of KINDS) {
    expect(k.kind.startsWith(`${k.family}/`)).toBe(true);
    expect(k.title).toMatch(/^[A-Z.]/);
    expect(k.why).toMatch(/\.$/);
    if (k.amount) expect(k.amount.usual >= k.amount.least && k.amount.usual <= k.amount.most).toBe(true);
  }
});
