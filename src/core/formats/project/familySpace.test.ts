import { readyDemo } from '../../../../demo/ready';
import type { Glyph, Project } from '../../project/model';
import { glyphNamed } from '../../project/queries';
import { setHandover } from '../../variation/handovers';
import { addWaypoint, moveWaypoint, removeWaypoint } from '../../variation/waypointEdits';
import { projectFiles, projectFromFiles, readProjectFile, writeProjectFile } from './projectFile';

const done = (o: { ok: boolean; project?: Project; reason?: string }): Project => {
  if (!o.ok) throw new Error(o.reason);
  return o.project!;
};
const text = (bytes: Uint8Array | undefined) => new TextDecoder().decode(bytes);
const read = (files: ReadonlyMap<string, Uint8Array>): Project => {
  const opened = projectFromFiles(files, 'x.wendril');
  if (!opened.ok) throw new Error(opened.reason);
  return opened.value;
};
/** Of an anchor its role is told by its name. */
const plain = (w: Glyph['waypoints'][number]) => ({
  ...w,
  drawing: { ...w.drawing, anchors: w.drawing.anchors.map(({ name, x, y }) => ({ name, x, y })) },
});
const facts = (g: Glyph) => ({
  waypoints: g.waypoints.map(plain),
  handovers: g.handovers.map(({ glyph: _, ...h }) => h),
});

/** The demo with waypoints of two glyphs at one place, of one at another, and a handover. */
function family(): Project {
  const demo = readyDemo();
  const id = (name: string) => glyphNamed(demo, name)!.id;
  let project = demo;
  const { least, most } = { least: demo.masters[0]!.place, most: demo.masters.at(-1)!.place };
  const [tag] = [demo.axes[0]!.tag];
  const at = (share: number) => ({ [tag]: least[tag]! + (most[tag]! - least[tag]!) * share });
  for (const [glyph, share] of [
    ['a', 0.62],
    ['e', 0.62],
    ['s', 0.81],
  ] as const)
    project = done(addWaypoint(project, { glyph: id(glyph), place: at(share) }));
  return done(
    setHandover(project, {
      glyph: id('dollar'),
      handover: { axis: tag, from: at(0.7)[tag]!, to: most[tag]!, glyph: id('cent') },
    }),
  );
}

const layersOf = (space: string) => [...space.matchAll(/<source [^>]*layer="([^"]+)"/g)].map((m) => m[1]);

test('waypoints leave as layers that are sources, handovers as rules, and both come back', () => {
  const project = family();
  const files = projectFiles(project);
  const space = text(files.get('project.designspace'));
  expect(layersOf(space)).toHaveLength(2);
  expect(space).toMatch(/<sub name="dollar" with="cent"\/>/);
  // Nothing of them is told a second time, in words of our own.
  const glif = [...files.keys()].find((p) => /glyphs\/a\.glif$/.test(p))!;
  expect(text(files.get(glif))).not.toMatch(/waypoints|handovers/);
  const back = read(files);
  for (const name of ['a', 'e', 's', 'dollar', 'n'])
    expect([name, facts(glyphNamed(back, name)!)]).toEqual([name, facts(glyphNamed(project, name)!)]);
  const to = back.glyphs[glyphNamed(back, 'dollar')!.handovers[0]!.glyph];
  expect(to!.name).toBe('cent');
  // And once more, byte for byte.
  const again = projectFiles(back);
  expect([...again.keys()].sort()).toEqual([...files.keys()].sort());
  const third = projectFiles(read(again));
  for (const [path, bytes] of again) expect([path, text(third.get(path))]).toEqual([path, text(bytes)]);
  const packed = readProjectFile(writeProjectFile(project), 'x.wendril');
  expect(packed.ok && facts(glyphNamed(packed.value, 's')!)).toEqual(facts(glyphNamed(project, 's')!));
});

test('a waypoint that is moved, changed or taken away is so in its layer, and nothing else is', () => {
  const files = projectFiles(read(projectFiles(family())));
  const project = read(files);
  const changedIn = (next: Project) => {
    const now = projectFiles(next);
    const paths = new Set([...files.keys(), ...now.keys()]);
    return [...paths].filter((p) => text(files.get(p)) !== text(now.get(p))).sort();
  };
  const s = glyphNamed(project, 's')!;
  const e = glyphNamed(project, 'e')!;
  const waypoint = s.waypoints[0]!;
  const wider = { ...waypoint, drawing: { ...waypoint.drawing, advance: waypoint.drawing.advance + 7 } };
  const one = changedIn({ ...project, glyphs: { ...project.glyphs, [s.id]: { ...s, waypoints: [wider] } } });
  expect(one).toHaveLength(1);
  expect(one[0]).toMatch(/\/glyphs\.waypoints[^/]*\/s\.glif$/);
  const gone = changedIn(done(removeWaypoint(project, { glyph: e.id, place: e.waypoints[0]!.place })));
  expect(gone.map((p) => p.slice(p.lastIndexOf('/') + 1))).toEqual(['contents.plist', 'e.glif']);
  const tag = project.axes[0]!.tag;
  const moved = done(
    moveWaypoint(project, { glyph: s.id, from: waypoint.place, to: { [tag]: waypoint.place[tag]! + 10 } }),
  );
  expect(facts(glyphNamed(read(projectFiles(moved)), 's')!)).toEqual(facts(glyphNamed(moved, 's')!));
  expect(layersOf(text(projectFiles(moved).get('project.designspace')))).toHaveLength(2);
});

test('a drawing of a layer that cannot be read is told, the rest opens, and its file stays as it is', () => {
  const files = new Map(projectFiles(family()));
  const path = [...files.keys()].find((p) => /\/glyphs\.waypoints[^/]*\/a\.glif$/.test(p))!;
  files.set(path, new TextEncoder().encode(text(files.get(path)).replace(/<point x="[^"]*"/, '<point x="2000000"')));
  const told: string[] = [];
  const opened = projectFromFiles(files, 'x.wendril', { tell: (t) => told.push(t) });
  if (!opened.ok) throw new Error(opened.reason);
  const fault = expect.stringMatching(/a\.glif, line \d+: x="2000000" of <point> is not a number that fits\.$/);
  expect(told).toEqual([fault]);
  const a = glyphNamed(opened.value, 'a')!;
  expect([a.waypoints, a.note]).toEqual([[], fault]);
  expect(glyphNamed(opened.value, 'e')!.waypoints).toHaveLength(1);
  expect(projectFiles(opened.value)).toEqual(files);
  // Another glyph of the layer is changed: this one's file is left alone.
  const e = glyphNamed(opened.value, 'e')!;
  const changed = projectFiles(done(removeWaypoint(opened.value, { glyph: e.id, place: e.waypoints[0]!.place })));
  expect(text(changed.get(path))).toBe(text(files.get(path)));
  expect(text(changed.get(path.replace('a.glif', 'contents.plist')))).toContain('a.glif');
});

test('rules with several conditions stay as they are while others are changed', () => {
  const files = new Map(projectFiles(family()));
  const space = text(files.get('project.designspace'));
  const axis = /<axis tag="[^"]*" name="([^"]*)"/.exec(space)![1]!;
  const both = `<rule name="corner"><conditionset><condition name="${axis}" minimum="1"/><condition name="Other" maximum="2"/></conditionset><sub name="a" with="e"/></rule>`;
  const chain = `<rule name="chain"><conditionset><condition name="${axis}" minimum="1"/></conditionset><sub name="x" with="dollar"/></rule>`;
  files.set(
    'project.designspace',
    new TextEncoder().encode(space.replace('<rules>', `<rules processing="last">${both}${chain}`)),
  );
  const project = read(files);
  expect(glyphNamed(project, 'a')!.handovers).toEqual([]);
  expect(glyphNamed(project, 'x')!.handovers).toEqual([]);
  expect(text(projectFiles(project).get('project.designspace'))).toBe(text(files.get('project.designspace')));
  const named = { ...project, axes: project.axes.map((a) => ({ ...a, hidden: true })) };
  const flat = text(projectFiles(named).get('project.designspace')).replace(/\s*\n\s*/g, '');
  expect(flat).toContain('<rules processing="last">');
  expect(flat).toContain(both);
  expect(flat).toContain(chain);
  expect(flat).toContain('<sub name="dollar" with="cent"/>');
});

test('a glyph renamed takes its waypoints and handovers along', () => {
  const project = read(projectFiles(family()));
  const s = glyphNamed(project, 's')!;
  const cent = glyphNamed(project, 'cent')!;
  const renamed = {
    ...project,
    glyphs: { ...project.glyphs, [s.id]: { ...s, name: 's.new' }, [cent.id]: { ...cent, name: 'cent.new' } },
  };
  const back = read(projectFiles(renamed));
  expect(glyphNamed(back, 's.new')!.waypoints).toEqual(s.waypoints);
  expect(back.glyphs[glyphNamed(back, 'dollar')!.handovers[0]!.glyph]!.name).toBe('cent.new');
});
