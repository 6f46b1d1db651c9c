import { request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createApp } from './app';
import { Slots } from './slots';

const started = async (open?: string) => {
  const app = createApp(
    '/nowhere',
    {
      sheets: [{ name: 'pen', title: 'Pen' }],
      scan: () => ({ done: new Promise(() => {}), stop: () => {} }),
      travel: () => 1,
    },
    open,
  );
  const server = app.listen(0, '127.0.0.1');
  await new Promise((r) => server.once('listening', r));
  return server;
};
/** What a server answers who calls it by a name, from a page of some origin. */
const asked = (server: Server, path: string, headers: Record<string, string>, method = 'GET', body?: string) =>
  new Promise<{ status: number; text: string }>((resolve, reject) => {
    const { port } = server.address() as AddressInfo;
    const call = request({ port, host: '127.0.0.1', path, method, headers }, (response) => {
      let text = '';
      response.on('data', (chunk) => {
        text += chunk;
      });
      response.on('end', () => resolve({ status: response.statusCode!, text }));
    });
    call.once('error', reject);
    call.setTimeout(4000, () => call.destroy(new Error('no answer')));
    call.end(body);
  });

let server: Server;
beforeAll(async () => {
  server = await started();
});
afterAll(() => {
  server.close();
  server.closeAllConnections();
});

test('who calls it by another name is not answered; by its own names and ports it is', async () => {
  for (const host of ['evil.example', 'localhost.evil.example', '192.168.0.7:5480'])
    expect([host, (await asked(server, '/scanner/sheets', { host })).status]).toEqual([host, 421]);
  for (const host of ['localhost:5480', '127.0.0.1', '[::1]:80', 'LOCALHOST'])
    expect([host, (await asked(server, '/scanner/sheets', { host })).status]).toEqual([host, 200]);
  const open = await started('0.0.0.0');
  expect((await asked(open, '/scanner/sheets', { host: 'studio.example' })).status).toBe(200);
  open.close();
  open.closeAllConnections();
  const named = await started('studio.example');
  expect((await asked(named, '/scanner/sheets', { host: 'studio.example:5480' })).status).toBe(200);
  expect((await asked(named, '/scanner/sheets', { host: 'other.example' })).status).toBe(421);
  named.close();
  named.closeAllConnections();
});

test('orders come from its own pages only', async () => {
  const order = JSON.stringify({ sheet: 'pen', dpi: 100, tone: 'grey' });
  const post = (origin: string | undefined) =>
    asked(
      server,
      '/scanner/scans',
      { host: 'localhost:1', 'content-type': 'application/json', ...(origin && { origin }) },
      'POST',
      order,
    );
  expect((await post('https://evil.example')).status).toBe(403);
  expect((await post('null')).status).toBe(403);
  expect((await post('http://localhost:1')).status).toBe(201);
  expect((await post(undefined)).status).toBe(201);
});

test('what is not understood gets one plain line without a path or a trace', async () => {
  const own = { host: 'localhost' };
  const zip = await asked(
    server,
    '/visit',
    { ...own, 'content-type': 'application/zip', 'content-length': '200000000' },
    'POST',
  );
  const bad = await asked(server, '/%E0%A4%A', own);
  for (const { status, text } of [zip, bad]) {
    expect([status >= 400 && status < 500, text.split('\n').length]).toEqual([true, 1]);
    expect(text).not.toMatch(/node_modules|\/work|Error/);
  }
});

test('at most two at a time; what waits and is stopped never begins; what runs is told to end', async () => {
  const slots = new Slots(2, 3);
  const began: number[] = [];
  const stopped: number[] = [];
  const ends: (() => void)[] = [];
  const run = (i: number) =>
    slots.run(() => {
      began.push(i);
      return {
        done: new Promise<number>((resolve) => {
          ends[i] = () => resolve(i);
        }),
        stop: () => {
          stopped.push(i);
          ends[i]!();
        },
      };
    });
  const runs = [0, 1, 2, 3, 4].map(run);
  expect([began, slots.isFull]).toEqual([[0, 1], true]);
  runs[2]!.stop();
  expect(slots.isFull).toBe(false);
  ends[0]!();
  expect(await runs[0]!.done).toBe(0);
  await new Promise((r) => setTimeout(r, 5));
  expect([began, await runs[2]!.done]).toEqual([[0, 1, 3], undefined]);
  runs[1]!.stop();
  expect([await runs[1]!.done, stopped]).toEqual([1, [1]]);
  await new Promise((r) => setTimeout(r, 5));
  expect(began).toEqual([0, 1, 3, 4]);
});
