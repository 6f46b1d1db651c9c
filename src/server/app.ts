import { join } from 'node:path';
import express, { type Express } from 'express';
import { ownHostsOnly, plainErrors } from './guard';
import { type ScannerParts, scannerRoutes } from './scanner';
import { visitRoutes } from './visit';

/** Serves the built app, and the scanner when it is given one; to its own machine, or where `open` is given to who calls it so too. `identity` is what it answers to a second start. Hashed assets are kept for good, everything else is asked for again. */
export function createApp(dist: string, scanner?: ScannerParts, open?: string, identity = 'Wendril'): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(ownHostsOnly(open));
  app.use((request, response, next) => {
    response.setHeader('Cross-Origin-Opener-Policy', 'same-origin');
    response.setHeader('Cross-Origin-Embedder-Policy', 'require-corp');
    response.setHeader('X-Content-Type-Options', 'nosniff');
    response.setHeader('Referrer-Policy', 'no-referrer');
    response.setHeader('Cross-Origin-Resource-Policy', 'same-origin');
    response.setHeader('Permissions-Policy', 'camera=(), geolocation=(), microphone=()');
    // The WOFF2 encoder's glue code makes functions from strings; it runs in the files worker and nowhere else.
    const scripts = /^\/assets\/files\.worker-/.test(request.path)
      ? "'self' 'unsafe-eval'"
      : "'self' 'wasm-unsafe-eval'";
    response.setHeader(
      'Content-Security-Policy',
      `default-src 'self'; script-src ${scripts}; style-src 'self' 'unsafe-inline'; img-src 'self' blob: data:; font-src 'self' blob: data:; worker-src 'self' blob:; connect-src 'self' blob: data:; object-src 'none'; base-uri 'self'; form-action 'self'; frame-ancestors 'none'`,
    );
    next();
  });
  if (scanner) app.use('/scanner', scannerRoutes(scanner));
  app.use('/visit', visitRoutes());
  app.use('/assets', express.static(join(dist, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(
    express.static(dist, {
      setHeaders: (response, path) => {
        response.setHeader('Cache-Control', 'no-cache');
        if (path.endsWith('.wendril')) response.setHeader('Content-Type', 'application/zip');
        if (path.endsWith('.webmanifest')) response.setHeader('Content-Type', 'application/manifest+json');
      },
    }),
  );
  app.get('/running', (_, response) => {
    response.setHeader('Cache-Control', 'no-store');
    response.type('text/plain').send(identity);
  });
  // Every stage has its own address; all of them are the one page.
  app.get(/^\/(p\/.*|names)?$/, (_, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(join(dist, 'index.html'));
  });
  app.use((_, response) => {
    response.status(404).type('text/plain').send('Not found');
  });
  app.use(plainErrors);
  return app;
}
