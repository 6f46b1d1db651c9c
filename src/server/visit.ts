import { randomUUID } from 'node:crypto';
import express, { type Router } from 'express';
import { unzipSync } from 'fflate';
import { notLargerThan } from './guard';

/** The page of a visit, and the fonts that it loads, by file name. */
type Visit = Map<string, Uint8Array>;

/** Visits beyond this are forgotten, the oldest first. */
const MOST_VISITS = 6;
const MOST_BYTES = 96 * 1024 * 1024;
const MOST_FILES = 400;

const TYPES: Readonly<Record<string, string>> = {
  otf: 'font/otf',
  ttf: 'font/ttf',
  woff: 'font/woff',
  woff2: 'font/woff2',
};

/**
 * A stand-in for somebody’s site that uses the fonts: files are handed over as a zip, and are served from an address of their own. The
 * page has an origin of its own (`sandbox`) and a policy that knows only itself, so that fonts load as they would from any server.
 */
export function visitRoutes(): Router {
  const visits = new Map<string, Visit>();
  const router = express.Router();
  router.post(
    '/',
    notLargerThan(MOST_BYTES),
    express.raw({ type: 'application/zip', limit: MOST_BYTES }),
    (request, response) => {
      // Only the app’s own pages hand files over.
      const from = request.get('sec-fetch-site');
      if (from !== undefined && from !== 'same-origin') {
        response.status(403).type('text/plain').send('Files are handed over by the app only.');
        return;
      }
      const files = unpacked(request.body);
      if (!files?.has('index.html')) {
        response.status(400).type('text/plain').send('This is no zip with a page in it.');
        return;
      }
      const id = randomUUID();
      visits.set(id, files);
      for (const old of [...visits.keys()].slice(0, -MOST_VISITS)) visits.delete(old);
      response.status(201).json({ address: `/visit/${id}/` });
    },
  );
  router.get('/:id/{:name}', (request, response) => {
    const name = request.params.name ?? 'index.html';
    const bytes = visits.get(String(request.params.id))?.get(String(name));
    response.removeHeader('Cross-Origin-Opener-Policy');
    response.removeHeader('Cross-Origin-Embedder-Policy');
    response.setHeader('Cache-Control', 'no-store');
    if (!bytes) {
      response.status(404).type('text/plain').send('This page is gone; cast the fonts and open it again.');
      return;
    }
    // A font is loaded from another origin, as from a server for fonts.
    response.setHeader('Access-Control-Allow-Origin', '*');
    response.setHeader('Cross-Origin-Resource-Policy', 'cross-origin');
    response.setHeader(
      'Content-Security-Policy',
      "sandbox allow-scripts; default-src 'none'; script-src 'unsafe-inline'; style-src 'unsafe-inline'; font-src 'self'; base-uri 'none'; form-action 'none'",
    );
    const ending = String(name).split('.').pop() ?? '';
    response.type(name === 'index.html' ? 'text/html; charset=utf-8' : (TYPES[ending] ?? 'application/octet-stream'));
    response.send(Buffer.from(bytes));
  });
  return router;
}

/** The files of a zip, flat and within limits; undefined where it is none. */
function unpacked(body: unknown): Visit | undefined {
  if (!(body instanceof Uint8Array) || body.length === 0) return undefined;
  try {
    let bytes = 0;
    let count = 0;
    const files = unzipSync(new Uint8Array(body), {
      filter: ({ name, originalSize }) => {
        bytes += originalSize;
        count++;
        if (bytes > MOST_BYTES || count > MOST_FILES) throw new Error('too large');
        return !name.includes('/');
      },
    });
    return new Map(Object.entries(files));
  } catch {
    return undefined;
  }
}
