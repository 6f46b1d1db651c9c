import { existsSync, statSync } from 'node:fs';
import { dirname, resolve, sep } from 'node:path';
import { watch } from 'chokidar';
import { RefusalError } from '../core/base/result';
import { CliError } from './problem';

/** Changes so near each other are one: a program that saves writes many files. */
const REST = 150;

/**
 * Does some work once, and again whenever files of a source change, until the command is ended by hand. What goes wrong in
 * between is told, and the next change is waited for. What is written to `out` is no change of the source, wherever it lies.
 */
export async function watching(source: string, out: string, work: () => Promise<void>): Promise<void> {
  if (!existsSync(source)) throw new CliError(`There is no ${source}.`);
  await work();
  // A file is watched with its folder: programs write beside and rename, and a designspace has its sources there.
  const folder = statSync(source).isDirectory() ? source : dirname(source);
  let wait: NodeJS.Timeout | undefined;
  let working = false;
  let again = false;
  const go = async (): Promise<void> => {
    if (working) {
      again = true;
      return;
    }
    working = true;
    try {
      await work();
    } catch (error) {
      if (!(error instanceof RefusalError)) throw error;
      process.stderr.write(`wendril: ${error.message}\n`);
    }
    working = false;
    if (!again) return;
    again = false;
    await go();
  };
  const made = resolve(out);
  const ignored = (path: string) =>
    resolve(path) !== resolve(folder) && `${resolve(path)}${sep}`.startsWith(made + sep);
  watch(folder, { ignored, ignoreInitial: true }).on('all', () => {
    clearTimeout(wait);
    wait = setTimeout(() => void go(), REST);
  });
}
