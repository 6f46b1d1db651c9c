import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createApp } from './app';
import { JAM, type ScanState } from './scanner';
import { withTone } from './tone';

let server: Server;
let url = '';
const scanned: string[] = [];
let time = 0;
beforeAll(async () => {
  const scanner = {
    sheets: [
      { name: 'pen', title: 'Pen' },
      { name: 'torn', title: 'Torn' },
    ],
    scan: ({ sheet, dpi }: { sheet: string; dpi: number }) => {
      scanned.push(`${sheet} ${dpi}`);
      const done =
        sheet === 'torn' ? Promise.reject(new Error('torn')) : Promise.resolve(Uint8Array.of(1, 2, dpi / 10));
      return { done, stop: () => {} };
    },
    travel: () => 60,
    clock: () => time,
  };
  server = createApp('/nowhere', scanner).listen(0);
  await new Promise((r) => server.once('listening', r));
  url = `http://localhost:${(server.address() as AddressInfo).port}/scanner`;
});
afterAll(() => {
  server.close();
});

const order = (body: unknown) =>
  fetch(`${url}/scans`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });
const state = async (id: string) => (await (await fetch(`${url}/scans/${id}`)).json()) as ScanState;
const settled = async (id: string) => {
  for (let i = 0; i < 100; i++) {
    const now = await state(id);
    if (now.state !== 'scanning') return now;
    expect(now.progress).toBeLessThan(1);
    time += 10;
    await new Promise((r) => setTimeout(r, 1));
  }
  throw new Error('never settled');
};
const PEN = { sheet: 'pen', dpi: 300, tone: 'grey' };

test('a sheet is scanned in its time and fetched; every fourth scan jams and the next goes through', async () => {
  expect(await (await fetch(`${url}/sheets`)).json()).toHaveLength(2);
  const ids: string[] = [];
  const ends: ScanState[] = [];
  for (let i = 0; i < 4; i++) {
    const response = await order(PEN);
    expect(response.status).toBe(201);
    const { id } = (await response.json()) as { id: string };
    ids.push(id);
    expect((await state(id)).state).toBe('scanning');
    expect((await fetch(`${url}/scans/${id}/picture`)).status).toBe(404);
    ends.push(await settled(id));
  }
  expect(ends.map((e) => e.state)).toEqual(['done', 'done', 'jammed', 'done']);
  expect(ends[2]).toEqual({ state: 'jammed', reason: JAM });
  const picture = await fetch(`${url}/scans/${ids[3]}/picture`);
  expect(picture.headers.get('content-type')).toBe('image/png');
  expect([...new Uint8Array(await picture.arrayBuffer())]).toEqual([1, 2, 30]);
  expect(scanned).toEqual(['pen 300', 'pen 300', 'pen 300']);
  expect((await fetch(`${url}/scans/${ids[3]}`, { method: 'DELETE' })).status).toBe(204);
  expect((await fetch(`${url}/scans/${ids[3]}`)).status).toBe(404);
});

test('what cannot be scanned is refused, and a sheet that fails counts as jammed', async () => {
  for (const body of [{ ...PEN, sheet: 'lost' }, { ...PEN, dpi: 7 }, { ...PEN, tone: 'loud' }, {}, 'not json {'])
    expect((await order(body)).status).toBe(400);
  const { id } = (await (await order({ ...PEN, sheet: 'torn' })).json()) as { id: string };
  expect((await settled(id)).state).toBe('jammed');
});

test('tones: grey as it is, strong parts ink from paper, line is black and white', () => {
  const greys = Uint8Array.of(20, 100, 139, 140, 230);
  expect([...withTone(greys, 'grey')]).toEqual([20, 100, 139, 140, 230]);
  expect([...withTone(greys, 'line')]).toEqual([0, 0, 0, 255, 255]);
  const strong = [...withTone(greys, 'strong')];
  expect(strong[0]).toBe(0);
  expect(strong[4]).toBe(255);
});
