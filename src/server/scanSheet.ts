import { parentPort, workerData } from 'node:worker_threads';
import { writePng } from '../../demo/sheets/png';
import { drawSheet, SHEETS } from '../../demo/sheets/sheets';
import type { ScanOrder } from './scanner';
import { withTone } from './tone';

/** Draws a sheet away from the server's own thread. */
const order = workerData as ScanOrder;
const sheet = SHEETS.find((s) => s.name === order.sheet)!;
const grey = drawSheet(sheet, order.dpi);
parentPort!.postMessage(writePng({ ...grey, pixels: withTone(grey.pixels, order.tone) }));
