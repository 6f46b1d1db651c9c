import express, { type Router } from 'express';
import { z } from 'zod';
import { Slots } from './slots';

/** What can be asked of the scanner. */
export const scanOrder = z.object({
  sheet: z.string(),
  dpi: z.union([z.literal(100), z.literal(150), z.literal(300), z.literal(600)]),
  tone: z.enum(['grey', 'strong', 'line']),
});
export type ScanOrder = z.infer<typeof scanOrder>;

export type ScanState =
  | { state: 'scanning'; progress: number }
  | { state: 'done' }
  | { state: 'jammed'; reason: string };

/** What lies in the scanner's tray, and how a sheet is made into a PNG file. */
export type ScannerParts = {
  sheets: readonly { name: string; title: string }[];
  scan: (order: ScanOrder) => { done: Promise<Uint8Array>; stop: () => void };
  /** How long the carriage travels at least, in milliseconds. */
  travel: (order: ScanOrder) => number;
  /** The time in milliseconds; the machine's clock when left out. */
  clock?: () => number;
};

type Scan = {
  order: ScanOrder;
  from: number;
  picture?: Uint8Array | undefined;
  jams: boolean;
  failed?: boolean;
  stop?: () => void;
};

/** Finished scans that are kept until they are fetched. */
const MOST_KEPT = 4;
/** Sheets that are drawn at a time, and that wait for it: a large one takes hundreds of megabytes. */
const AT_ONCE = 2;
const MOST_WAITING = 4;
/** How far the carriage comes before a sheet jams. */
const JAMS_AT = 0.4;
export const JAM = 'The sheet slipped under the rollers and was pulled out. Lay it in again.';

/**
 * A stand-in for a flatbed scanner: sheets in its tray, a carriage that takes its time, every fourth scan a jam. Scans are made
 * by `POST scans`, followed by `GET scans/:id`, and fetched by `GET scans/:id/picture`.
 */
export function scannerRoutes({ sheets, scan, travel, clock = Date.now }: ScannerParts): Router {
  const router = express.Router();
  const scans = new Map<string, Scan>();
  const slots = new Slots(AT_ONCE, MOST_WAITING);
  const drop = (id: string) => {
    scans.get(id)?.stop?.();
    scans.delete(id);
  };
  let count = 0;
  const progressOf = (s: Scan) => Math.min(1, (clock() - s.from) / travel(s.order));
  const stateOf = (s: Scan): ScanState => {
    const progress = progressOf(s);
    if (s.failed || (s.jams && progress >= JAMS_AT)) return { state: 'jammed', reason: JAM };
    return s.picture && progress >= 1 ? { state: 'done' } : { state: 'scanning', progress: Math.min(progress, 0.97) };
  };
  router.get('/sheets', (_, response) => {
    response.json(sheets);
  });
  router.post('/scans', express.json({ limit: '2kb' }), (request, response) => {
    const order = scanOrder.safeParse(request.body);
    if (!order.success || !sheets.some((s) => s.name === order.data.sheet)) {
      response.status(400).json({ reason: 'The scanner has no such sheet or setting.' });
      return;
    }
    if (slots.isFull) {
      response.status(503).json({ reason: 'The scanner is busy; wait for a sheet to be done.' });
      return;
    }
    count++;
    const id = `scan-${count}`;
    const made: Scan = { order: order.data, from: clock(), jams: count % 4 === 3 };
    scans.set(id, made);
    for (const old of [...scans.keys()].slice(0, -MOST_KEPT)) drop(old);
    if (!made.jams) {
      const run = slots.run(() => scan(order.data));
      made.stop = run.stop;
      run.done.then(
        (picture) => {
          made.picture = picture;
        },
        () => {
          made.failed = true;
        },
      );
    }
    response.status(201).json({ id });
  });
  router.get('/scans/:id', (request, response) => {
    const found = scans.get(request.params.id);
    if (found) response.setHeader('Cache-Control', 'no-store').json(stateOf(found));
    else response.status(404).json({ reason: 'That scan is no longer there.' });
  });
  router.get('/scans/:id/picture', (request, response) => {
    const found = scans.get(request.params.id);
    if (!found?.picture || stateOf(found).state !== 'done')
      response.status(404).json({ reason: 'That scan is not finished.' });
    else response.setHeader('Cache-Control', 'no-store').type('image/png').send(Buffer.from(found.picture));
  });
  router.delete('/scans/:id', (request, response) => {
    drop(request.params.id);
    response.status(204).end();
  });
  router.use((_error: unknown, _request: express.Request, response: express.Response, _next: express.NextFunction) => {
    response.status(400).json({ reason: 'The scanner did not understand the order.' });
  });
  return router;
}
