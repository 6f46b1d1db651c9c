// npm start: installs what is missing, builds, and serves the app with the demo project on one address.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { installIfMissing, root, runTool } from './install.mjs';

installIfMissing();
await import('./build-node.mjs');
runTool('vite/bin/vite.js', ['build', '--logLevel', 'error']);
const server = spawn(process.execPath, [join(root, 'build/server.mjs')], { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
