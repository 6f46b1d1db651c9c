import { readyDemo } from '../../../demo/ready';
import '../allEdits';
import { setPair } from '../kerning/edits';
import { runEdit } from '../project/edit';
import type { Drawing, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { withChanged } from '../testing/change';
import type { Finding } from './finding';
import { amountsOf } from './judged';
import { offAnchors } from './parts';
import { Preflight } from './preflight';
import { Touching } from './touching';

/** Findings that only show beside others: pairs, composites, anchors, names, languages. */
const demo = readyDemo();
const preflight = new Preflight();
preflight.check(demo);
const [light] = demo.masters;
const id = (name: string) => glyphNamed(demo, name)!.id;
const glyphSide = (name: string) => ({ kind: 'glyph' as const, id: id(name) });
const of = (p: Project, kind: string): readonly Finding[] => preflight.check(p).filter((f) => f.kind === kind);
function done(p: Project, edit: string, args: unknown): Project {
  const outcome = runEdit(p, edit, args);
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
}
const inAll = (p: Project, name: string, change: (d: Drawing) => Partial<Drawing>): Project =>
  p.masters.reduce((now, m) => withChanged(now, name, m.id, change), p);

describe('pairs that touch', () => {
  const kerned = (value: number, p = demo): Project => {
    const outcome = setPair(p, { master: light!.id, first: glyphSide('H'), second: glyphSide('I'), value });
    if (!outcome.ok) throw new Error(outcome.reason);
    return outcome.project;
  };
  const found = (p: Project, touching = new Touching()) =>
    touching.findings(p, amountsOf(p)).filter((f) => f.glyph === id('H') && f.others?.[0] === id('I'));

  it('are told with how far they overlap', () => {
    const white = glyphNamed(demo, 'H')!.drawings[light!.id]!;
    const right = white.advance - Math.max(...white.contours.flatMap((c) => c.points.map((p) => p.x)));
    const i = glyphNamed(demo, 'I')!.drawings[light!.id]!;
    const left = Math.min(...i.contours.flatMap((c) => c.points.map((p) => p.x)));
    const [touching] = found(kerned(-(right + left) - 10));
    expect(touching!.bad).toBeCloseTo(10, 5);
    expect(touching!.masters).toEqual([light!.id]);
    expect(found(kerned(-(right + left) + 4))).toEqual([]);
    expect(found(kerned(60))).toEqual([]);
  });

  it('are found after any change as if they were looked at for the first time', () => {
    const touching = new Touching();
    const same = (p: Project) =>
      expect(touching.findings(p, amountsOf(p))).toEqual(new Touching().findings(p, amountsOf(p)));
    const project = kerned(-260);
    same(project);
    expect(found(project, touching)).toHaveLength(1);
    const wider = withChanged(project, 'H', light!.id, (d) => ({ advance: d.advance + 400 }));
    same(wider);
    expect(found(wider, touching)).toEqual([]);
    same(kerned(-120, project));
    // Groups: their values, who is in them, and who speaks for them.
    const [group] = project.groups.filter((g) => g.side === 'first' && g.members.includes(id('A')));
    const inGroup = (value: number, p: Project) =>
      done(p, 'setPair', { master: light!.id, first: { kind: 'group', id: group!.id }, second: glyphSide('I'), value });
    const tight = inGroup(-300, project);
    same(tight);
    const speakerGone = {
      ...tight,
      groups: tight.groups.map((g) => (g === group ? { ...g, members: g.members.filter((m) => m !== id('A')) } : g)),
    };
    same(speakerGone);
    const gone = done(tight, 'removeGlyphs', { ids: [id('I')] });
    same(gone);
    same(tight);
    const { [id('I')]: _, ...others } = tight.glyphs;
    same({ ...tight, glyphs: others, glyphOrder: tight.glyphOrder.filter((g) => g !== id('I')) });
  });

  it('that overlap without kerning do so on purpose', () => {
    const joined = inAll(demo, 'H', (d) => ({ advance: d.advance - 320 }));
    expect(found(kerned(-10, joined))).toEqual([]);
  });
});

describe('composites and their anchors', () => {
  const composite = ['eacute', 'ntilde', 'Aring', 'ccedilla'];

  it.each(composite)('the marks of %s stand where anchors say, and are put back there', (name) => {
    expect(offAnchors(demo, light!, glyphNamed(demo, name)!)?.by ?? 0).toBeLessThan(3);
    const moved = inAll(demo, name, (d) => ({
      components: d.components.map((c, i) =>
        i === 1 ? { ...c, transform: [1, 0, 0, 1, c.transform[4] - 15, c.transform[5] + 22] as const } : c,
      ),
    }));
    const off = offAnchors(moved, light!, glyphNamed(moved, name)!);
    expect(off!.by).toBeCloseTo(Math.hypot(15, 22), 0);
    const back = done(moved, 'placeByAnchors', { glyph: id(name) });
    for (const m of demo.masters) expect(offAnchors(back, m, glyphNamed(back, name)!)!.by).toBeLessThan(0.01);
    expect(runEdit(back, 'placeByAnchors', { glyph: id(name) }).ok).toBe(false);
  });

  it('a mark that several anchors could take, or that is scaled, was placed by hand', () => {
    const two = inAll(
      inAll(demo, 'e', (d) => ({ anchors: [...d.anchors, { name: 'second', x: 10, y: 10 }] })),
      'acutecomb',
      (d) => ({
        anchors: [...d.anchors, { name: '_second', x: 0, y: 0 }],
      }),
    );
    // Which was meant is said by the component, or not known.
    expect(offAnchors(two, light!, glyphNamed(two, 'eacute')!)?.by).toBeLessThan(3);
    const unsaid = inAll(two, 'eacute', (d) => ({ components: d.components.map(({ anchor: _, ...c }) => c) }));
    expect(offAnchors(unsaid, light!, glyphNamed(unsaid, 'eacute')!)).toBeUndefined();
    const scaled = inAll(demo, 'eacute', (d) => ({
      components: d.components.map((c) => ({
        ...c,
        transform: [0.9, 0, 0, 0.9, c.transform[4], c.transform[5]] as const,
      })),
    }));
    expect(offAnchors(scaled, light!, glyphNamed(scaled, 'eacute')!)).toBeUndefined();
  });

  it('a change of the mark is seen in every composite that has it', () => {
    const before = of(demo, 'parts/recipe').length;
    const moved = inAll(demo, 'acutecomb', (d) => ({
      anchors: d.anchors.map((a) => (a.name === '_top' ? { ...a, x: a.x + 30 } : a)),
    }));
    const found = of(moved, 'parts/recipe');
    expect(found.length).toBeGreaterThan(before);
    // So many have it that it is told once, or each by itself.
    const names = found.flatMap((f) => [f.glyph, ...(f.others ?? [])]).map((g) => moved.glyphs[g ?? '']?.name);
    expect(names).toEqual(expect.arrayContaining(['aacute', 'eacute']));
  });

  it('the advance of a base is taken over in every master; a raised comma beside its letter needs its room', () => {
    const wide = inAll(demo, 'eacute', (d) => ({ advance: d.advance + 24 }));
    const [found] = of(wide, 'fitting/composite').filter((f) => f.glyph === id('eacute'));
    expect([found!.bad, found!.masters.length]).toEqual([24, demo.masters.length]);
    const after = done(wide, found!.mends[0]!.edit, found!.mends[0]!.args);
    for (const m of demo.masters)
      expect(glyphNamed(after, 'eacute')!.drawings[m.id]!.advance).toBe(
        glyphNamed(after, 'e')!.drawings[m.id]!.advance,
      );
    expect(of(demo, 'fitting/composite').some((f) => f.glyph === id('dcaron'))).toBe(false);
  });
});

describe('names and characters', () => {
  it('instances are judged by the master that is nearest, where there are any', () => {
    const slanted: Project = { ...demo, masters: demo.masters.map((m) => ({ ...m, italicAngle: -10 })) };
    expect(of(slanted, 'names/italic')).toHaveLength(demo.instances.length);
    const named: Project = {
      ...slanted,
      instances: slanted.instances.map((i) => ({ ...i, name: `${i.name} Italic` })),
    };
    expect(of(named, 'names/italic')).toEqual([]);
    const leaning: Project = {
      ...slanted,
      axes: [
        ...slanted.axes,
        { tag: 'slnt', name: 'Slant', minimum: -10, default: 0, maximum: 0, map: [], hidden: false, labels: {} },
      ],
    };
    expect(of(leaning, 'names/italic')).toEqual([]);
  });

  it('a code point that two glyphs claim is left to the first', () => {
    const o = glyphNamed(demo, 'o')!;
    const twice: Project = { ...demo, glyphs: { ...demo.glyphs, [o.id]: { ...o, unicodes: [0x6f, 0x78] } } };
    const [found] = of(twice, 'characters/twice');
    expect(found!.reason).toMatch(/U\+0078 belongs to/);
    const after = done(twice, found!.mends[0]!.edit, found!.mends[0]!.args);
    expect(of(after, 'characters/twice')).toEqual([]);
  });

  it('spaces: both of one width, none drawn in, each by one press', () => {
    const hard = Object.values(demo.glyphs).find((g) => g.unicodes.includes(0xa0))!;
    if (hard.unicodes.length === 1) {
      const wide = inAll(demo, hard.name, (d) => ({ advance: d.advance + 50 }));
      const found = of(wide, 'characters/space');
      expect(found).toHaveLength(demo.masters.length);
      const after = found.reduce((p, f) => done(p, f.mends[0]!.edit, f.mends[0]!.args), wide);
      expect(of(after, 'characters/space')).toEqual([]);
    }
    const without: Project = {
      ...demo,
      glyphs: { ...demo.glyphs, [hard.id]: { ...hard, unicodes: hard.unicodes.filter((c) => c !== 0xa0) } },
    };
    const [lacks] = of(without, 'characters/space').filter((f) => /no no-break space/.test(f.reason));
    const after = done(without, lacks!.mends[0]!.edit, lacks!.mends[0]!.args);
    expect(of(after, 'characters/space')).toEqual([]);
  });

  it('languages are told by most readers, and their letters added by one press', () => {
    const languages = [
      { code: 'xx', name: 'Few', letters: [...'abcdefghijklmnopqrstuvwxyz', 'ẹ'], readers: 1000 },
      { code: 'yy', name: 'Many', letters: [...'abcdefghijklmnopqrstuvwxyz', 'ọ'], readers: 9_000_000 },
      { code: 'zz', name: 'Far', letters: [...'abcdefghijklmnopqrstuvwxyz', ...'ҋҍҏӂӄ'], readers: 90_000_000 },
      { code: 'ww', name: 'Whole', letters: [...'abcdefghijklmnopqrstuvwxyz'], readers: 5_000_000 },
    ].map((l) => ({ ...l, own: '', script: 'Latn', auxiliary: [], punctuation: [], quotes: '', territories: [] }));
    const found = new Preflight(languages).check(demo).filter((f) => f.kind === 'characters/language');
    expect(found.map((f) => f.reason)).toEqual(['Many: ọ Ọ would make it whole.', 'Few: ẹ Ẹ would make it whole.']);
    const after = done(demo, found[0]!.mends[0]!.edit, found[0]!.mends[0]!.args);
    expect(Object.values(after.glyphs).some((g) => g.unicodes.includes(0x1ecd))).toBe(true);
  });
});
