import { buildStarter } from '../../../demo/starter';
import { readProjectFile, writeProjectFile } from '../formats/project/projectFile';
import { runEdit } from '../project/edit';
import '../allEdits';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { waypointId } from '../project/waypoints';
import { finding } from './finding';
import { acceptFindings, judgeKinds } from './judged';
import { placeInText, sarifOf, type Told, told } from './report';

const starter = buildStarter();
const [master] = starter.masters;
const n = glyphNamed(starter, 'n')!;
const one = told(
  starter,
  finding('outlines/open', 'A contour is open.', {
    glyph: n.id,
    masters: [master!.id],
    contour: 0,
    point: 3,
    spots: [{ x: 12, y: 34 }],
    mends: [{ edit: 'mendOutline', args: {}, title: 'Close it' }],
  }),
);

describe('a finding as it is told outside', () => {
  it('has names instead of ids and counts from one', () => {
    expect(one).toEqual({
      kind: 'outlines/open',
      level: 'error',
      title: 'Open contours',
      reason: 'A contour is open.',
      glyph: 'n',
      masters: [master!.name],
      contour: 1,
      point: 4,
      x: 12,
      y: 34,
      mends: ['Close it'],
    });
  });

  it('leaves out what it is not about', () => {
    expect(told(starter, finding('names/rights', 'There is no licence.'))).toEqual({
      kind: 'names/rights',
      level: 'note',
      title: 'Rights',
      reason: 'There is no licence.',
    });
  });

  it('names waypoints, other glyphs and sections', () => {
    const place = { wght: 500 };
    const project: Project = {
      ...starter,
      axes: [
        { tag: 'wght', name: 'Weight', minimum: 400, default: 400, maximum: 700, map: [], hidden: false, labels: {} },
      ],
      features: { ...starter.features, sections: [{ id: 's1', title: 'Ligatures', options: {}, text: '' }] },
    };
    const t = told(
      project,
      finding('features/question', 'No carets.', {
        masters: [waypointId(place)],
        others: [n.id, 'nobody'],
        section: 's1',
        line: 7,
      }),
    );
    expect(t.masters![0]).toMatch(/^Waypoint, /);
    expect([t.others, t.section, t.line]).toEqual([['n'], 'Ligatures', 7]);
  });
});

test('a place reads as one would say it; masters are named where it is not in all', () => {
  const t = (more: Partial<Told>): Told => ({ kind: 'k', level: 'note', title: '', reason: '', ...more });
  expect(placeInText(t({ glyph: 'n', masters: ['Light'], contour: 2, point: 5 }), 3)).toBe(
    'n in Light, contour 2, point 5',
  );
  expect(placeInText(t({ glyph: 'n', masters: ['Light', 'Bold'] }), 2)).toBe('n');
  expect(placeInText(t({ section: 'Own', line: 4 }), 1)).toBe('“Own”, line 4');
  expect(placeInText(t({ masters: ['Light'] }), 2)).toBe('in Light');
  expect(placeInText(t({}), 2)).toBe('');
});

test('the log has each kind once as a rule, results that point to it, and places', () => {
  const other: Told = {
    kind: 'features/error',
    level: 'error',
    title: '',
    reason: 'Not understood.',
    section: 'Own',
    line: 3,
  };
  const log = sarifOf(
    [
      { file: 'a b.wendril', findings: [one, one, other] },
      { file: 'sub\\c.ufo', findings: [one] },
    ],
    '9.9.9',
  ) as {
    runs: {
      tool: { driver: { version: string; rules: { id: string; defaultConfiguration: { level: string } }[] } };
      results: {
        ruleId: string;
        ruleIndex: number;
        message: { text: string };
        locations: {
          physicalLocation: { artifactLocation: { uri: string }; region?: { startLine: number } };
          logicalLocations?: { fullyQualifiedName: string }[];
        }[];
      }[];
    }[];
  };
  const { tool, results } = log.runs[0]!;
  expect(tool.driver.version).toBe('9.9.9');
  expect(tool.driver.rules.map((r) => r.id)).toEqual(['outlines/open', 'features/error']);
  expect(results).toHaveLength(4);
  for (const r of results) expect(tool.driver.rules[r.ruleIndex]!.id).toBe(r.ruleId);
  expect(results.map((r) => r.locations[0]!.physicalLocation.artifactLocation.uri)).toEqual([
    'a%20b.wendril',
    'a%20b.wendril',
    'a%20b.wendril',
    'sub/c.ufo',
  ]);
  expect(results[0]!.message.text).toBe('n: A contour is open.');
  expect(results[0]!.locations[0]!.logicalLocations![0]!.fullyQualifiedName).toBe(`${master!.name}/n/1/4`);
  expect(results[2]!.locations[0]!.physicalLocation.region).toEqual({ startLine: 3 });
});

test('what is accepted and how strictly is judged go out and come in with the project file', () => {
  const accepted = acceptFindings(starter, { kind: 'outlines/open', glyph: 'n', count: 2, reason: 'One stroke' });
  if (!accepted.ok) throw new Error(accepted.reason);
  const judged = judgeKinds(accepted.project, {
    kinds: { 'outlines/extreme': { on: false }, 'heights/line': { amount: 5 } },
  });
  if (!judged.ok) throw new Error(judged.reason);
  const read = readProjectFile(writeProjectFile(judged.project), 'kept.wendril');
  if (!read.ok) throw new Error(read.reason);
  expect(read.value.settings.preflight).toEqual(judged.project.settings.preflight);
  // What could not be kept would be refused when it is made.
  expect(runEdit(starter, 'acceptFindings', { kind: 'outlines/open', count: 0, reason: '' }).ok).toBe(false);
  expect(runEdit(starter, 'acceptFindings', { kind: 'outlines/none', count: 1, reason: '' }).ok).toBe(false);
  expect(runEdit(starter, 'acceptFindings', { kind: 'outlines/open', count: 1, reason: 'x'.repeat(401) }).ok).toBe(
    false,
  );
});
