import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createApp } from './app';

const dist = mkdtempSync(join(tmpdir(), 'wendril-dist-'));
let server: Server;
let url = '';

beforeAll(async () => {
  mkdirSync(join(dist, 'assets'));
  mkdirSync(join(dist, 'demo'));
  writeFileSync(join(dist, 'index.html'), '<!doctype html><title>Wendril</title>');
  writeFileSync(join(dist, 'assets/harfbuzz-abc.wasm'), Uint8Array.of(0, 97, 115, 109));
  writeFileSync(join(dist, 'assets/files.worker-abc.js'), '1');
  writeFileSync(join(dist, 'assets/index-abc.js'), '1');
  writeFileSync(join(dist, 'demo/velmarrow-sans.wendril'), 'PK');
  server = createApp(dist).listen(0);
  await new Promise((r) => server.once('listening', r));
  url = `http://localhost:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.close();
});

const get = (path: string) => fetch(url + path);

test('every stage’s address is the one page, asked for anew each time', async () => {
  for (const path of ['/', '/p/velmarrow/draw?glyph=n', '/p/x/cast', '/names']) {
    const response = await get(path);
    expect(response.status).toBe(200);
    expect(await response.text()).toContain('<title>Wendril</title>');
    expect(response.headers.get('cache-control')).toBe('no-cache');
  }
});

test('WebAssembly, scripts and the demo have their types; hashed files are kept', async () => {
  const wasm = await get('/assets/harfbuzz-abc.wasm');
  expect(wasm.headers.get('content-type')).toBe('application/wasm');
  expect(wasm.headers.get('cache-control')).toMatch(/immutable/);
  expect((await get('/assets/index-abc.js')).headers.get('content-type')).toMatch(/javascript/);
  expect((await get('/demo/velmarrow-sans.wendril')).headers.get('content-type')).toBe('application/zip');
});

test('pages are isolated; strings become code in the one worker that needs it and nowhere else', async () => {
  const policy = async (path: string) => (await get(path)).headers.get('content-security-policy') ?? '';
  const page = await get('/');
  expect(page.headers.get('cross-origin-opener-policy')).toBe('same-origin');
  expect(page.headers.get('cross-origin-embedder-policy')).toBe('require-corp');
  expect(await policy('/')).not.toContain("'unsafe-eval'");
  expect(await policy('/assets/index-abc.js')).not.toContain("'unsafe-eval'");
  expect(await policy('/assets/files.worker-abc.js')).toContain("'unsafe-eval'");
});

test('anything else is not found, and nothing outside is served', async () => {
  for (const path of ['/etc/passwd', '/assets/none.js', '/assets/..%2f..%2fpackage.json', '/api'])
    expect((await get(path)).status).toBeGreaterThanOrEqual(400);
});
