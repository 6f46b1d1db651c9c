import { lstatSync, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve, sep } from 'node:path';
import { CliError } from './problem';

/** Files are written beside their places first and then renamed, so that a broken write leaves what was there. */

/** What is being written just now, beside its place. */
const halves = new Set<string>();

/** Takes away what is half written, when the work is broken off. */
export function leaveNothingHalf(): void {
  for (const path of halves) rmSync(path, { recursive: true, force: true });
  halves.clear();
}

function told<T>(to: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof CliError) throw error;
    throw new CliError(
      `${to} cannot be written (${(error as NodeJS.ErrnoException).code ?? (error as Error).message}).`,
    );
  }
}

/** Where a path of a source lies below a folder; refused where it would lead out of it, by its parts or by a link. */
export function inside(folder: string, path: string): string {
  const base = resolve(folder);
  const at = resolve(base, path);
  const below = relative(base, at);
  if (below === '' || below.startsWith('..') || resolve(below) === below)
    throw new CliError(`The source names “${path.slice(0, 80)}”, which lies outside ${folder}; nothing was written.`);
  let step = base;
  for (const part of below.split(sep)) {
    step = join(step, part);
    let link = false;
    try {
      link = lstatSync(step).isSymbolicLink();
    } catch {
      break;
    }
    if (link)
      throw new CliError(`${step} is a link to elsewhere; nothing was written. Remove it, or choose another place.`);
  }
  return at;
}

/** Writes one file. */
export function put(to: string, bytes: Uint8Array): void {
  told(to, () => {
    mkdirSync(dirname(to), { recursive: true });
    halves.add(`${to}.part`);
    writeFileSync(`${to}.part`, bytes);
    renameSync(`${to}.part`, to);
    halves.delete(`${to}.part`);
  });
}

/** Writes a folder anew: all of it, or what was there stays. */
export function putFolder(to: string, files: ReadonlyMap<string, Uint8Array>): void {
  const folder = to.replace(/[/\\]+$/, '');
  const part = `${folder}.part`;
  told(folder, () => {
    rmSync(part, { recursive: true, force: true });
    halves.add(part);
    try {
      for (const [path, bytes] of files) {
        const at = inside(part, path);
        mkdirSync(dirname(at), { recursive: true });
        writeFileSync(at, bytes);
      }
    } catch (error) {
      rmSync(part, { recursive: true, force: true });
      throw error;
    }
    rmSync(folder, { recursive: true, force: true });
    renameSync(part, folder);
    halves.delete(part);
  });
}

/** Writes files into a folder that may hold others: every place is checked and every file written before one is replaced. */
export function putAmong(folder: string, files: ReadonlyMap<string, Uint8Array>): void {
  told(folder, () => {
    const places = [...files].map(([path, bytes]) => ({ at: inside(folder, path), bytes }));
    const written: string[] = [];
    try {
      for (const { at, bytes } of places) {
        mkdirSync(dirname(at), { recursive: true });
        halves.add(`${at}.part`);
        writeFileSync(`${at}.part`, bytes);
        written.push(at);
      }
    } catch (error) {
      for (const at of written) rmSync(`${at}.part`, { force: true });
      throw error;
    }
    for (const at of written) {
      renameSync(`${at}.part`, at);
      halves.delete(`${at}.part`);
    }
  });
}
