import { readyDemo } from '../../demo/ready';
import { buildStarter } from '../../demo/starter';
import { sidesOf } from '../core/fitting/sides';
import { transformContour } from '../core/geometry/contour';
import { runEdit } from '../core/project/edit';
import type { Project } from '../core/project/model';
import { applySteps, patchBetween, stepsOf } from '../core/project/patch';
import { glyphNamed } from '../core/project/queries';
import type { AskedValues } from '../core/scripting/asked';
import { MOST_OUTPUT, Session } from '../core/scripting/session';
import { SHIPPED } from '../core/scripting/shipped/shipped';
import { runScript, startInterpreter, syntaxFault, USUAL_LIMITS } from './sandbox';

const demo = readyDemo();

async function ran(
  text: string,
  {
    on = demo,
    names = 'n o a',
    given = {},
    limits = USUAL_LIMITS,
    onlyAsk = false,
  }: { on?: Project; names?: string; given?: AskedValues; limits?: typeof USUAL_LIMITS; onlyAsk?: boolean } = {},
) {
  const chosen = names.split(' ').map((n) => glyphNamed(on, n)!.id);
  const session = new Session(on, { chosen, masters: on.masters.map((m) => m.id), given, onlyAsk });
  const ended = runScript(await startInterpreter(), text, session, limits);
  return { session, ended };
}
const told = ({ session }: { session: Session }) => session.outputs.flatMap((o) => (o.kind === 'text' ? [o.text] : []));

describe('what a script sees', () => {
  test('the font, its glyphs and drawings, as values of the standards', async () => {
    const run = await ran(`
      say(font.name, font.unitsPerEm, font.masters.length, chosen.map(String).join('+'));
      const n = font.glyph('n');
      say(n === font.glyph('n'), n.unicodes[0], n.character, font.glyph('a.sc').character);
      const d = n.drawing();
      say(d.left === d.box.xMin, d.advance - d.right === d.box.xMax, d.contours[0].points.length > 5, d.area > 0);
      say(font.glyph('aacute').parts, font.glyph('f_i').drawing().anchors[0].name);
      say(font.kern('A', 'V', masters[0]) < 0, font.has('ß'), font.has('nobody'), font.find('.sc').length > 100);
    `);
    expect(run.ended).toEqual({ ok: true });
    expect(told(run)).toEqual([
      'Velmarrow Sans 1000 6 n+o+a',
      'true 110 n a',
      'true true true true',
      '["a","acutecomb"] caret_1',
      'true true false true',
    ]);
    expect(run.session.project).toBe(demo);
  });

  test('what lies between masters, and what the check finds', async () => {
    const run = await ran(`
      const at = (w) => font.glyph('n').at({ wght: w, wdth: 100 }).advance;
      say(at(300) <= at(350), at(400) === font.glyph('n').drawing(font.masters.find((m) => m.name === 'Regular')).advance);
      const found = font.preflight();
      say(found.length > 0, found.every((f) => f.sentence.length > 5 && f.severity !== undefined));
    `);
    expect(told(run)).toEqual(['true true', 'true true']);
  });

  test('values that are asked for are given, held to their bounds, and named where they are of another kind', async () => {
    const text = `const v = ask({ by: { label: 'By', number: 5, least: 1, most: 9 }, which: { glyphs: 'a b' }, how: { choice: 'x', of: ['x', 'y'] }, really: { yes: false }, words: { text: 'w' } });
      say(v.by, v.which.map(String), v.how, v.really, v.words);`;
    expect(told(await ran(text))).toEqual(['5 ["a","b"] x false w']);
    expect(told(await ran(text, { given: { by: '7', which: 'ß, c', how: 'y', really: 'yes' } }))).toEqual([
      '7 ["germandbls","c"] y true w',
    ]);
    for (const [given, why] of [
      [{ by: 12 }, '“By” is 9 or less.'],
      [{ by: 'many' }, '“By” is a number.'],
      [{ how: 'z' }, '“how” is one of x, y.'],
      [{ other: 1 }, 'The script asks for by, which, how, really, words, not for other.'],
      [{ which: 'a nobody' }, 'There is no glyph “nobody”.'],
    ] as const)
      expect((await ran(text, { given })).ended).toMatchObject({ ok: false, reason: why });
    const { session, ended } = await ran(`${text} edits.setGalleyText({ text: 'x' });`, { onlyAsk: true });
    expect(ended).toEqual({ ok: true });
    expect(Object.keys(session.asked!)).toEqual(['by', 'which', 'how', 'really', 'words']);
    expect(session.edits).toBe(0);
  });
});

describe('what a script changes', () => {
  test('goes through edits, in masters that are named, and undone gives the identical project', async () => {
    const run = await ran(`for (const g of chosen) for (const m of masters) g.drawing(m).left += 10;
      edits.setGalleyText({ text: 'changed' });
      font.glyph('o').drawing().contours = shapes.scaled(font.glyph('o').drawing().contours, 1, 0.5);`);
    expect(run.ended).toEqual({ ok: true });
    expect(run.session.edits).toBe(3 * 6 + 2);
    const patch = patchBetween(demo, run.session.project);
    expect(applySteps(demo, stepsOf(patch))).toEqual(run.session.project);
    expect(applySteps(run.session.project, stepsOf(patch, 'backwards'))).toEqual(demo);
    // The same script gives the same again: what is looked at before is what is done.
    const again = await ran(`for (const g of chosen) for (const m of masters) g.drawing(m).left += 10;
      edits.setGalleyText({ text: 'changed' });
      font.glyph('o').drawing().contours = shapes.scaled(font.glyph('o').drawing().contours, 1, 0.5);`);
    expect(again.session.project).toEqual(run.session.project);
  });

  test('edits that keep to one glyph come to the same as on the whole project, whatever is asked in between', async () => {
    const run = await ran(`
      for (let i = 0; i < 12; i++) {
        const d = chosen[i % chosen.length].drawing(masters[i % masters.length]);
        edits.movePoints({ at: d, points: ['0:0', '0:2'], dx: 3, dy: i });
        if (i % 3 === 0) edits.reverseContours({ at: d, contours: [0] });
        if (i % 4 === 0) d.left += 2;
        if (i % 5 === 0) d.contours = shapes.moved(d.contours, 1, 0);
        if (d.contours.length === 0) say('nothing');
      }`);
    expect(run.ended).toEqual({ ok: true });
    let whole: Project = demo;
    const edit = (name: string, args: unknown) => {
      const outcome = runEdit(whole, name, args);
      if (!outcome.ok) throw new Error(outcome.reason);
      whole = outcome.project;
    };
    const chosen = ['n', 'o', 'a'].map((n) => glyphNamed(demo, n)!.id);
    for (let i = 0; i < 12; i++) {
      const at = { glyph: chosen[i % 3]!, master: demo.masters[i % demo.masters.length]!.id };
      edit('movePoints', { at, points: ['0:0', '0:2'], dx: 3, dy: i });
      if (i % 3 === 0) edit('reverseContours', { at, contours: [0] });
      if (i % 4 === 0) {
        const sides = sidesOf(whole, whole.glyphs[at.glyph]!, at.master) as { left: number };
        edit('setSides', { at, left: sides.left + 2 });
      }
      if (i % 5 === 0) {
        const { contours } = whole.glyphs[at.glyph]!.drawings[at.master]!;
        edit('setContours', { at, contours: contours.map((c) => transformContour(c, [1, 0, 0, 1, 1, 0])) });
      }
    }
    for (const id of chosen) expect(run.session.project.glyphs[id]).toEqual(whole.glyphs[id]);
    expect(run.session.project).toEqual(whole);
  });

  test('what is refused throws the sentence of the interface, with the line', async () => {
    const run = await ran(`say('begins');\n\nedits.setSides({ at: chosen[0].drawing(), advance: 99999 });`);
    expect(run.ended).toEqual({
      ok: false,
      reason: 'The advance width would be 99999; it must be from 0 to 65535.',
      line: 3,
    });
    const caught = await ran(`try { edits.setGalleyText({ text: 5 }) } catch (e) { say(e.message) }`);
    expect(told(caught)[0]).toMatch(/^setGalleyText: text: /);
    expect((await ran(`edits.removeEverything({})`)).ended).toMatchObject({ ok: false });
  });
});

test('text is set with what the run was given for it; a font is reported as a file', async () => {
  const fonts: number[] = [];
  const run = async (text: string) => {
    const session = new Session(
      demo,
      { chosen: [], masters: ['m1'], given: {} },
      () => {},
      (font) => {
        fonts.push(font.length);
        return { shape: (t) => ({ glyphs: [...t].map((_, i) => ({ gid: 1, x: i * 9, y: 0, advance: 9 })) }) };
      },
    );
    return { ended: runScript(await startInterpreter(), text, session), session };
  };
  const set = await run(
    "const m = masters[0]; say(font.shape('ab', m)[1].x, font.shape('ab', m)[0].glyph); edits.setGalleyText({ text: 'x' }); font.shape('ab', m);",
  );
  expect(told(set)).toEqual(['9 space']);
  // Cast once, and anew after an edit.
  expect(fonts).toHaveLength(2);
  expect((await ran("font.shape('a', masters[0])")).ended).toMatchObject({
    reason: 'There is nothing here that sets text.',
  });
  const cast = await run("say(font.cast(masters[0], 'otf'))");
  expect(cast.session.outputs[0]).toMatchObject({ kind: 'file', name: expect.stringMatching(/\.otf$/) });
});

describe('the border', () => {
  const short = { seconds: 0.4, megabytes: 32 };
  test.each([
    ['a loop without end', 'while (true) {}', /ran longer than 0.4 seconds/],
    ['one that catches what ends it', 'for (;;) { try { for (;;) {} } catch (e) {} }', /ran longer than 0.4 seconds/],
    ['calls without end', 'const f = (n) => f(n + 1) + 1; f(0)', /calls itself too many times/],
    ['memory without end', 'let s = "x"; for (;;) s += s;', /megabytes of memory|string too long/],
    ['reports without end', 'for (;;) say("x".repeat(20000))', /at most 2,000,000 characters/],
    ['a script that cannot be read', 'let = ;', /cannot be read/],
    ['something that there is not', 'fetch("http://localhost")', /names what there is not: 'fetch'/],
    ['something that is no error', 'throw 5', /threw 5/],
  ])('%s is refused in words', async (_, text, why) => {
    const { ended } = await ran(text, {
      limits: /without end$/.test(_) && !/loop|catches/.test(_) ? { seconds: 10, megabytes: 32 } : short,
    });
    expect(ended).toMatchObject({ ok: false, reason: expect.stringMatching(why) });
  });

  test('nothing of the page, of Node or of the clock is there', async () => {
    const run =
      await ran(`say(['process', 'require', 'window', 'document', 'fetch', 'XMLHttpRequest', 'WebSocket', 'indexedDB', 'localStorage', 'Worker', 'importScripts', 'setTimeout', 'Date', 'performance', '__answer'].filter((n) => typeof globalThis[n] !== 'undefined').join());
      say(Math.random(), random() !== Math.random());
      try { import('x').catch(() => say('no import')) } catch (e) { say('no import at all') }`);
    expect(told(run)[0]).toBe('');
    // The same numbers in every run.
    expect(told(await ran('say(Math.random())'))[0]).toBe(told(run)[1]!.split(' ')[0]);
  });

  test('prototypes that a script spoils are its own; what it forges is refused', async () => {
    const spoiled =
      await ran(`Object.prototype.$g = '__proto__'; Array.prototype.map = () => 5; JSON.parse = null; JSON.stringify = null;
      try { font.glyph('n') } catch (e) {}`);
    expect(({} as Record<string, unknown>).$g).toBeUndefined();
    expect(spoiled.session.project).toBe(demo);
    const forged =
      await ran(`try { edits.setSides({ at: { glyph: '__proto__', master: 'constructor' }, advance: 5 }) } catch (e) { say(e.message) }
      try { show([{ toJSON: () => ({ $g: '__proto__' }) }]) } catch (e) { say(e.message) }
      try { Object.prototype.toJSON = () => 5; font.has('a') } catch (e) { delete Object.prototype.toJSON; say(e.message) }`);
    expect(told(forged)).toHaveLength(3);
    for (const sentence of told(forged)) expect(sentence).toMatch(/no longer|no call|There is no|could not/);
    expect(forged.session.project).toBe(demo);
  });

  test('random texts end in a sentence or in nothing, and never in a fault of ours', async () => {
    const words = [
      'font',
      '.glyph(',
      "'n'",
      ')',
      '.drawing(',
      'masters[0]',
      'edits.',
      'setSides(',
      '{at:',
      'null',
      '}',
      '[',
      ']',
      ';',
      'for(;;)',
      'x=>x',
      '=',
      '1e9',
      'chosen',
      '.contours',
      'shapes.unite(',
      'undefined',
      'say(',
      'ask(',
      '-1',
    ];
    let seed = 7;
    const next = () => (seed = (seed * 16807) % 2147483647);
    for (let i = 0; i < 60; i++) {
      const text = Array.from({ length: 3 + (next() % 12) }, () => words[next() % words.length]).join(' ');
      const { ended } = await ran(text, { limits: { seconds: 0.2, megabytes: 32 } });
      if (!ended.ok) expect(ended.reason.length).toBeGreaterThan(5);
    }
  }, 60_000);

  test('a text is read before it is run', async () => {
    expect(syntaxFault(await startInterpreter(), 'const a = 1;\nconst a = 2;')).toMatchObject({ line: 2 });
    expect(syntaxFault(await startInterpreter(), 'say(1)')).toBeUndefined();
    expect(MOST_OUTPUT).toBeGreaterThan(100_000);
  });
});

describe('scripts that come with Wendril', () => {
  const starter = buildStarter();
  test.each(SHIPPED.map((s) => [s.title, s] as const))(
    '%s runs on the demo, on its first day, and on nothing',
    async (_, script) => {
      expect(script.does.length).toBeGreaterThan(20);
      for (const on of [demo, starter]) {
        const { ended, session } = await ran(script.text, {
          on,
          names: on === demo ? 'n o a H O A zero a.sc' : 'n o a H O A zero',
        });
        expect([script.title, ended]).toEqual([script.title, { ok: true }]);
        expect(session.outputs.length).toBeGreaterThan(0);
        expect((await ran(script.text, { on, onlyAsk: true })).ended).toEqual({ ok: true });
      }
    },
    60_000,
  );

  test('each does what it says', async () => {
    const of = (key: string) => SHIPPED.find((s) => s.key === key)!.text;
    const lines = (await ran(of('controlStrings'), { names: 'a.sc n' })).session.project.texts.words;
    expect(lines[0]).toContain('/a.sc ');
    expect(lines[1]).toMatch(/^H.*O.*H$/);
    const rounded = (await ran(of('roundSides'), { given: { step: 5 }, names: 'n o s' })).session;
    const left = await ran(
      'say(chosen.every((g) => g.followed.includes("left") || masters.every((m) => g.drawing(m).left % 5 === 0)))',
      { on: rounded.project, names: 'n o s' },
    );
    expect(told(left)).toEqual(['true']);
    const rules = (await ran(of('rulesFromTable'), { given: { lines: 'f i -> f_i\nx y -> nobody' } })).session;
    expect(rules.project.features.sections.at(-1)!.text).toContain('sub f i by f_i;');
    expect(rules.outputs.some((o) => o.kind === 'finding' && /nobody/.test(o.sentence))).toBe(true);
    const forms = (await ran(of('alternatesOfParts'), { names: 'n' })).session.project;
    expect(glyphNamed(forms, 'n.ss04')!.drawings.m3!.components).toHaveLength(1);
    const wordy = await ran(of('wordFinder'), { names: [...'abcdefghijklmnopqrstuvwxyz'].join(' ') });
    expect(told(wordy)[1]).toBe('Every chosen small letter stands in a word.');
    expect((await ran(of('stemsOfMasters'), { names: 'n h H I' })).session.outputs.map((o) => o.kind)).toEqual([
      'chart',
      'table',
    ]);
  }, 60_000);
});
