import { mkdtempSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createApp } from './app';
import { identityOf, isRunning } from './running';

test('a second start of the same checkout finds the first; another checkout, and nobody, is not taken for it', async () => {
  const identity = identityOf('/somewhere/wendril');
  expect(identity).not.toContain('somewhere');
  expect(identityOf('/elsewhere')).not.toBe(identity);
  const server = createApp(mkdtempSync(join(tmpdir(), 'wendril-running-')), undefined, undefined, identity).listen(
    0,
    '127.0.0.1',
  );
  await new Promise((resolve) => server.once('listening', resolve));
  const { port } = server.address() as AddressInfo;
  expect(await isRunning(port, identity)).toBe(true);
  expect(await isRunning(port, identityOf('/elsewhere'))).toBe(false);
  await new Promise((resolve) => server.close(resolve));
  server.closeAllConnections();
  expect(await isRunning(port, identity)).toBe(false);
});
