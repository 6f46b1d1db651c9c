import { Key } from 'selenium-webdriver';
import { buildStarter } from '../demo/starter';
import { projectFiles } from '../src/core/formats/project/projectFile';
import { until } from './browser';
import { sharedDemoBench } from './demoBench';

/** A folder of one's disk: opened, changed in one letter, written back; the browser's own file system stands in for the disk. */
const { opened, script, value } = sharedDemoBench();

const inFolder = (body: string, ...args: unknown[]) =>
  opened().browser.driver.executeAsyncScript<string>(
    `const done = arguments[arguments.length - 1];
    const [path, text] = arguments;
    (async () => {
      const root = await navigator.storage.getDirectory();
      const at = async (p, create) => {
        let folder = root;
        const parts = p.split('/');
        for (const part of parts.slice(0, -1)) folder = await folder.getDirectoryHandle(part, { create });
        return folder.getFileHandle(parts.at(-1), { create });
      };
      const write = async (p, t) => {
        const stream = await (await at(p, true)).createWritable();
        await stream.write(t);
        await stream.close();
      };
      const read = async (p) => (await (await at(p)).getFile()).text();
      ${body}
    })().then(done, (e) => done('failed: ' + e.message));`,
    ...args,
  );
const read = (path: string) => inFolder('return read(path);', path);
const write = (path: string, text: string) => inFolder('return write(path, text);', path, text);

/** A family in the form in which another program keeps it: tabs for indentation. */
const sources = (): Record<string, string> =>
  Object.fromEntries(
    [...projectFiles(buildStarter())].map(([path, bytes]) => [
      `Orde/sources/${path}`,
      new TextDecoder().decode(bytes).replace(/^( {2})+/gm, (spaces) => '\t'.repeat(spaces.length / 2)),
    ]),
  );

test('a folder is opened, one letter changed is one file written, and what another program wrote is not run over', async () => {
  const { t, browser, server } = opened();
  const { driver } = browser;
  const files = sources();
  await driver.get(server.url);
  for (const [path, text] of Object.entries(files)) await write(path, text);
  await script(
    `window.showDirectoryPicker = async () => (await navigator.storage.getDirectory()).getDirectoryHandle('Orde');`,
  );
  await t.press('Open a folder');
  await until('it open', async () => /\/case/.test(await driver.getCurrentUrl()), 60);
  const project = /\/p\/([^/]+)\//.exec(await driver.getCurrentUrl())![1];
  await driver.get(`${server.url}/p/${project}/fit?glyph=n`);
  await until('the sides', async () => (await value('Left')) !== '');
  const said = () => script<string>(`return document.querySelector('[data-sonner-toaster]')?.innerText ?? ''`);
  await t.chord(Key.CONTROL, 's');
  await until('the word', async () => /Orde is as the project has it; nothing was written/.test(await said()), 60);
  await t.fill('Advance', '600', true);
  await until('it set', async () => (await value('Advance')) === '600');
  await t.chord(Key.CONTROL, 's');
  await until('what was written', async () => /Into Orde: .*n\.glif/.test(await said()), 60);
  const master = Object.keys(files).filter((p) => p.endsWith('/glyphs/n.glif'));
  const now = await Promise.all(master.map(read));
  const changed = master.filter((path, i) => files[path] !== now[i]);
  expect(changed).toHaveLength(1);
  const [was, is] = [files[changed[0]!]!, now[master.indexOf(changed[0]!)]!].map((text) => text.split('\n'));
  expect(is!.filter((line) => !was!.includes(line))).toEqual([expect.stringMatching(/^\t<advance width="600"\/>$/)]);
  expect(await read('Orde/sources/project.designspace')).toBe(files['Orde/sources/project.designspace']);

  // Another program writes the same letter.
  await write(changed[0]!, `${files[changed[0]!]!}\n`);
  await t.fill('Advance', '610', true);
  await until('it set', async () => (await value('Advance')) === '610');
  await t.chord(Key.CONTROL, 's');
  await until('the refusal', async () => /by another program: .*n\.glif.* Nothing was written/.test(await said()), 60);
  expect(await read(changed[0]!)).toBe(`${files[changed[0]!]!}\n`);
  await t.press('Write over it');
  await until('what was written over', async () => /Into Orde: .*n\.glif/.test(await said()), 60);
  await until('it written', async () => (await read(changed[0]!)).includes('width="610"'));
});
