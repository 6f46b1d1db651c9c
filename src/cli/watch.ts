import { existsSync, type Stats, statSync } from 'node:fs';
import { basename, dirname, resolve, sep } from 'node:path';
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
  let wait: NodeJS.Timeout | undefined;
  // What changes while the fonts are made for the first time counts as well.
  let working = true;
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
  const later = (): void => {
    clearTimeout(wait);
    wait = setTimeout(() => void go(), REST);
  };
  let place = placeOf(source);
  const look = () =>
    watch(...watched(source, resolve(out)))
      .on('all', later)
      .on('raw', () => {
        // A folder that was put in place of the one before is another one, of the same name.
        const now = placeOf(source);
        if (now === undefined || now === place) return;
        place = now;
        void looking.close();
        looking = look().once('ready', later);
      });
  let looking = look();
  await new Promise<void>((ready) => {
    looking.once('ready', () => ready());
  });
  try {
    await work();
  } catch (error) {
    await looking.close();
    throw error;
  }
  working = false;
  if (again) await go();
}

/** What tells a file or folder from another of the same name; undefined while there is none. */
const placeOf = (path: string): number | undefined => {
  const stats = statSync(path, { throwIfNoEntry: false });
  return stats?.isDirectory() ? stats.ino : stats && 0;
};

/** Files that sources are made of; what else lies beside them changes nothing. */
const PARTS = /\.(designspace|glif|plist|fea|txt|json|png)$/i;

/**
 * What is looked at: the folder of a source with that alone, since programs write beside and rename; of a designspace with the folders below, where
 * its sources are. What is hidden, and where fonts are written to, is left out.
 */
function watched(source: string, out: string): Parameters<typeof watch> {
  const own = resolve(source);
  const folder = dirname(own);
  const within = (path: string, of: string) => `${path}${sep}`.startsWith(of + sep);
  const left = (path: string, stats?: Stats): boolean => {
    if (path === folder) return false;
    if (within(path, out) || /^(\.|node_modules$)/.test(basename(path))) return true;
    if (!own.endsWith('.designspace')) return !within(path, own);
    return stats?.isFile() === true && !PARTS.test(path);
  };
  return [folder, { ignoreInitial: true, ignored: (path, stats) => left(resolve(path), stats) }];
}
