import { spawnSync } from 'node:child_process';
import { call } from './call';

/** What a call of the command left: its code, and what it wrote. */
export type Called = { code: number | null; out: string; err: string };

/** WebAssembly packages for WOFF2 and shaping come as modules that cannot be loaded within a test, and threads are started from what was built. */
const needsProcess = (args: readonly string[]): boolean =>
  args[0] === 'shape' ||
  args[0] === 'trace' ||
  args.some((a) => a.includes('woff2')) ||
  (args[0] === 'cast' && !args.includes('--format'));

/** Calls the command in this process, which gets warm, where that can be done; else in one of its own. */
export async function wendril(...args: string[]): Promise<Called> {
  if (needsProcess(args)) return wendrilProcess(args);
  const { stdout, stderr } = process;
  const told = { out: '', err: '' };
  const kept = [stdout.write, stderr.write] as const;
  const into = (key: 'out' | 'err') =>
    ((text: string | Uint8Array) => {
      told[key] += typeof text === 'string' ? text : new TextDecoder().decode(text);
      return true;
    }) as typeof stdout.write;
  stdout.write = into('out');
  stderr.write = into('err');
  process.exitCode = 0;
  try {
    await call(args);
    return { code: Number(process.exitCode), ...told };
  } finally {
    [stdout.write, stderr.write] = kept;
    process.exitCode = 0;
  }
}

/** Calls the command as a shell does, from what was built. */
export function wendrilProcess(args: readonly string[], env: Record<string, string> = {}): Called {
  const run = spawnSync(process.execPath, ['bin/wendril.mjs', ...args], {
    encoding: 'utf8',
    env: { ...process.env, ...env },
  });
  return { code: run.status, out: run.stdout, err: run.stderr };
}
