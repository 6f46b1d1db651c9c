import { existsSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createApp } from './app';
import { identityOf, isRunning } from './running';
import { tray } from './tray';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const PREFERRED = 5480;
/** This machine alone, unless another address is asked for. */
const HOST = process.env.HOST || undefined;
const ADDRESS = HOST ?? '127.0.0.1';
/** Connections that are still open so long after the end was asked for are cut, in milliseconds. */
const GRACE = 2000;

/** The port asked for, else the preferred one, else any that is free. */
async function choosePort(): Promise<number> {
  const asked = process.env.PORT;
  if (asked !== undefined && asked !== '') {
    const port = Number(asked);
    if (!Number.isInteger(port) || port < 0 || port > 65535) {
      process.stderr.write(`PORT=${asked} is not a port number.\n`);
      process.exit(1);
    }
    return port;
  }
  const free = (port: number) =>
    new Promise<boolean>((resolve) => {
      const probe = createServer()
        .once('error', () => resolve(false))
        .once('listening', () => probe.close(() => resolve(true)));
      probe.listen(port, ADDRESS);
    });
  return (await free(PREFERRED)) ? PREFERRED : 0;
}

if (!existsSync(join(root, 'dist/index.html'))) {
  process.stderr.write('The app is not built; run npm start.\n');
  process.exit(1);
}
const identity = identityOf(root);
if (!process.env.PORT && (await isRunning(PREFERRED, identity))) {
  process.stdout.write(`Wendril is running already, at http://localhost:${PREFERRED}\n`);
  process.exit(0);
}
const server = createApp(join(root, 'dist'), tray, HOST, identity).listen(await choosePort(), ADDRESS);
server.headersTimeout = 20_000;
server.requestTimeout = 120_000;
server.once('listening', () => {
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : PREFERRED;
  process.stdout.write(
    `Wendril is at http://${HOST ? (HOST.includes(':') ? `[${HOST}]` : HOST) : 'localhost'}:${port}\n`,
  );
});
server.once('error', (error: NodeJS.ErrnoException) => {
  process.stderr.write(
    error.code === 'EADDRINUSE'
      ? `Port ${process.env.PORT} is taken; choose another with PORT=…\n`
      : `The server could not start (${error.code}).\n`,
  );
  process.exit(1);
});
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => {
    server.close(() => process.exit(0));
    setTimeout(() => server.closeAllConnections(), GRACE).unref();
  });
