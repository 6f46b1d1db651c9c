import { createHash } from 'node:crypto';

/** What a server answers under `/running`, so that a second start of the same checkout knows it: nothing of the path is told. */
export const identityOf = (root: string): string =>
  `Wendril ${createHash('sha256').update(root).digest('hex').slice(0, 16)}`;

/** Does a server of this identity answer at a port of this machine? */
export async function isRunning(port: number, identity: string): Promise<boolean> {
  try {
    const response = await fetch(`http://127.0.0.1:${port}/running`, { signal: AbortSignal.timeout(1000) });
    return response.ok && (await response.text()) === identity;
  } catch {
    return false;
  }
}
