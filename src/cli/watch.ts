import { existsSync, statSync, watch } from 'node:fs';
import { dirname } from 'node:path';
import { RefusalError } from '../core/base/result';
import { CliError } from './problem';

/** Changes so near each other are one: a program that saves writes many files. */
const REST = 150;

/**
 * Does some work once, and again whenever files of a source change, until the command is ended by hand. What goes wrong in
 * between is told, and the next change is waited for.
 */
export async function watching(source: string, work: () => Promise<void>): Promise<void> {
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
  watch(folder, { recursive: true }, () => {
    clearTimeout(wait);
    wait = setTimeout(() => void go(), REST);
  });
}
