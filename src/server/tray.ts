import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import { SHEETS } from '../../demo/sheets/sheets';
import type { ScannerParts, ScanOrder } from './scanner';

/** The sheets that lie in the stand-in scanner, drawn in a thread of their own. */
export const tray: ScannerParts = {
  sheets: SHEETS.map(({ name, title }) => ({ name, title })),
  scan: (order: ScanOrder) => {
    const worker = new Worker(join(dirname(fileURLToPath(import.meta.url)), 'scanSheet.mjs'), { workerData: order });
    const done = new Promise<Uint8Array>((resolve, reject) => {
      worker.once('message', (png: Uint8Array) => resolve(png));
      worker.once('error', reject);
      worker.once('exit', (code) => reject(new Error(`The scan ended with ${code}.`)));
    });
    return { done, stop: () => void worker.terminate() };
  },
  travel: ({ dpi }) => 600 + dpi * 4,
};
