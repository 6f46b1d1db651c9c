import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { strToU8, zipSync } from 'fflate';
import { createApp } from './app';

let server: Server;
let url: string;
beforeAll(async () => {
  server = createApp('dist').listen(0);
  await new Promise((resolve) => server.once('listening', resolve));
  url = `http://localhost:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

const post = (body: Uint8Array, headers: Record<string, string> = {}) =>
  fetch(`${url}/visit`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/zip', ...headers },
    body: body.slice(),
  });
const zip = (files: Record<string, string>) =>
  zipSync(Object.fromEntries(Object.entries(files).map(([k, v]) => [k, strToU8(v)])), { level: 0 });

test('a page and its fonts are served from an address of their own, apart from the app', async () => {
  const made = await post(zip({ 'index.html': '<p>Here</p>', 'A B.woff2': 'font' }));
  expect(made.status).toBe(201);
  const { address } = (await made.json()) as { address: string };
  expect(address).toMatch(/^\/visit\/[\w-]{36}\/$/);
  const page = await fetch(url + address);
  expect(await page.text()).toBe('<p>Here</p>');
  expect(page.headers.get('content-type')).toMatch(/^text\/html/);
  expect(page.headers.get('content-security-policy')).toMatch(/^sandbox allow-scripts; default-src 'none'/);
  expect(page.headers.get('cross-origin-embedder-policy')).toBeNull();
  const font = await fetch(`${url}${address}A%20B.woff2`);
  expect([font.headers.get('content-type'), font.headers.get('access-control-allow-origin')]).toEqual([
    'font/woff2',
    '*',
  ]);
  expect(await font.text()).toBe('font');
  expect((await fetch(`${url}${address}other.woff2`)).status).toBe(404);
});

test('what is no page, comes from elsewhere, or is long gone is refused', async () => {
  expect((await post(strToU8('no zip'))).status).toBe(400);
  expect((await post(zip({ 'font.woff2': 'x' }))).status).toBe(400);
  expect((await post(zip({ 'deep/index.html': 'x' }))).status).toBe(400);
  expect((await post(zip({ 'index.html': 'x' }), { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  expect((await fetch(`${url}/visit/nothing/`)).status).toBe(404);
  const addresses: string[] = [];
  for (let i = 0; i < 8; i++) {
    const made = await post(zip({ 'index.html': String(i) }));
    addresses.push(((await made.json()) as { address: string }).address);
  }
  expect((await fetch(url + addresses[0])).status).toBe(404);
  expect(await (await fetch(url + addresses[7])).text()).toBe('7');
});
