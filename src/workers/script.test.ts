import { readyDemo } from '../../demo/ready';
import { buildStarter } from '../../demo/starter';
import { setSides } from '../core/fitting/sides';
import type { Project } from '../core/project/model';
import { applySteps, patchBetween, stepsOf } from '../core/project/patch';
import { drawingOf, glyphNamed } from '../core/project/queries';
import type { ScriptTerms } from '../core/scripting/session';
import { startInterpreter } from '../sandbox/sandbox';
import { type ScriptRan, scriptServiceWith } from './script';

const demo = readyDemo();
const ids = (p: Project, names: string) => names.split(' ').map((n) => glyphNamed(p, n)!.id);
const terms = (p: Project, names = 'n o', given: ScriptTerms['given'] = {}): ScriptTerms => ({
  chosen: ids(p, names),
  masters: p.masters.map((m) => m.id),
  given,
});

function serviceOn(p: Project) {
  const service = scriptServiceWith(() => startInterpreter());
  service.load(p);
  return service;
}
const asked = (
  p: Project,
  text: string,
  more: Partial<{ names: string; given: ScriptTerms['given']; seconds: number }> = {},
) => ({
  name: 'Wider',
  text,
  terms: terms(p, more.names, more.given),
  seconds: more.seconds ?? 10,
});
const came = (ran: Awaited<ReturnType<ReturnType<typeof serviceOn>['run']>>): ScriptRan => {
  if (!ran.ok) throw new Error(ran.reason);
  return ran.value;
};

test('a run gives the steps to what it makes, named by what changes; the document stays', async () => {
  const service = serviceOn(demo);
  const text = 'for (const g of chosen) for (const m of masters) g.drawing(m).advance += 10; say("done");';
  const ran = came(await service.run(asked(demo, text)));
  const after = applySteps(demo, ran.steps);
  for (const m of demo.masters)
    expect(drawingOf(glyphNamed(after, 'n')!, m.id).advance).toBe(drawingOf(glyphNamed(demo, 'n')!, m.id).advance + 10);
  expect(ran.outputs).toEqual([{ kind: 'text', text: 'done' }]);
  expect(ran.edits).toBe(12);
  expect(ran.sentence).toBe(`Script “Wider”: ${ran.changed.length} glyphs changed`);
  // Accented letters follow their base; nothing else is touched.
  expect(ran.changed).toEqual(expect.arrayContaining(ids(demo, 'n o ntilde odieresis')));
  expect([ran.added, ran.removed, ran.others]).toEqual([[], [], []]);
  // The same again, from the same document.
  expect(came(await service.run(asked(demo, text))).steps).toEqual(ran.steps);
});

test('it follows the document', async () => {
  const service = serviceOn(demo);
  const wider = setSides(demo, { at: { glyph: ids(demo, 'n')[0]!, master: 'm1' }, advance: 777 });
  if (!wider.ok) throw new Error(wider.reason);
  service.update(stepsOf(patchBetween(demo, wider.project)));
  const ran = came(
    await service.run(
      asked(demo, "say(font.glyph('n').drawing(font.masters.find((m) => m.name === 'Regular')).advance)"),
    ),
  );
  expect(ran.outputs).toEqual([{ kind: 'text', text: '777' }]);
  expect([ran.steps, ran.sentence]).toEqual([[], 'Script “Wider”']);
});

test('what is added, removed and changed beside glyphs is told', async () => {
  const starter = buildStarter();
  const ran = came(
    await serviceOn(starter).run(
      asked(
        starter,
        "edits.addGlyphs({ requests: [{ name: 'fresh', unicodes: [] }] }); edits.removeGlyphs({ ids: [font.glyph('z')] }); edits.setGalleyText({ text: 'other' });",
      ),
    ),
  );
  expect(ran.removed).toEqual(ids(starter, 'z'));
  expect(ran.added).toHaveLength(1);
  expect(ran.others).toContain('texts');
  expect(ran.sentence).toMatch(/^Script “Wider”: 1 added, 1 removed/);
});

test('what fails is told with its line and what was reported until then, and no steps', async () => {
  const ran = await serviceOn(demo).run(
    asked(demo, "say('begins');\nfont.glyph('n').drawing().advance = 1;\nfont.glyph('nobody');"),
  );
  expect(ran).toMatchObject({
    ok: false,
    reason: 'There is no glyph “nobody”.',
    line: 3,
    outputs: [{ kind: 'text', text: 'begins' }],
  });
  expect(ran).not.toHaveProperty('value');
  const endless = await serviceOn(demo).run(asked(demo, 'for (;;) {}', { seconds: 0.3 }));
  expect(endless).toMatchObject({ ok: false, reason: 'The script ran longer than 0.3 seconds and was stopped.' });
});

test('what it asks for and what cannot be read are told without running it', async () => {
  const service = serviceOn(demo);
  const text = 'const { by } = ask({ by: { number: 3 } }); for (;;) {}';
  expect(await service.askedBy(text, terms(demo))).toEqual({ by: { number: 3 } });
  expect(await service.askedBy('say(1)', terms(demo))).toEqual({});
  expect(await service.askedBy('nothing.at.all()', terms(demo))).toEqual({});
  expect(await service.faultIn(text)).toBeUndefined();
  expect(await service.faultIn('let = 1')).toMatchObject({ ok: false, line: 1 });
  // Edits of every stage are known here, whichever the page has loaded.
  expect(service.words().some((w) => w.of === 'edits' && w.name === 'deriveSet')).toBe(true);
  expect(service.declarations()).toContain('deriveSet(args: { set: string; names?: string[] }): string;');
});

test('before the document has come nothing runs', async () => {
  await expect(scriptServiceWith(() => startInterpreter()).run(asked(demo, 'say(1)'))).rejects.toThrow(/not come yet/);
});

test('progress is told on the way', async () => {
  const heard: number[] = [];
  await serviceOn(demo).run(
    asked(demo, 'for (let i = 0; i < 4; i++) { progress(i, 4); let x = 0; for (let k = 0; k < 1500000; k++) x += k; }'),
    (done, total) => heard.push(done / total),
  );
  expect(heard.length).toBeGreaterThan(1);
  expect([...heard].sort((a, b) => a - b)).toEqual(heard);
}, 30_000);
