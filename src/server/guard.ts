import type { ErrorRequestHandler, RequestHandler } from 'express';

/** Names by which a page on this machine calls this machine. */
const OWN_NAMES = new Set(['localhost', '127.0.0.1', '[::1]']);

const nameOf = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/**
 * Answers only who calls the server by a name of its own, so that a page elsewhere whose name is led here reads nothing; and takes orders
 * only from its own pages. `open` names a host that was asked for; every name is taken where it is an address of all interfaces.
 */
export function ownHostsOnly(open?: string): RequestHandler {
  const any = open !== undefined && ['0.0.0.0', '::', '[::]'].includes(open);
  const names = open === undefined ? OWN_NAMES : new Set([...OWN_NAMES, nameOf(open), `[${open}]`]);
  return (request, response, next) => {
    const host = request.get('host') ?? '';
    if (!any && !names.has(nameOf(host))) {
      response.status(421).type('text/plain').send('This server answers on its own machine only.');
      return;
    }
    const origin = request.get('origin');
    const changes = request.method !== 'GET' && request.method !== 'HEAD';
    if (changes && origin !== undefined && !isOrigin(origin, host)) {
      response.status(403).type('text/plain').send('Only pages of this server give it orders.');
      return;
    }
    next();
  };
}

const isOrigin = (origin: string, host: string): boolean => {
  try {
    return new URL(origin).host === host.toLowerCase();
  } catch {
    return false;
  }
};

/** Refuses a body that says it is too large before it is sent, instead of reading all of it first. */
export const notLargerThan =
  (bytes: number): RequestHandler =>
  (request, response, next) => {
    if (!(Number(request.get('content-length')) > bytes)) {
      next();
      return;
    }
    response.once('finish', () => request.destroy());
    response.status(413).setHeader('Connection', 'close').type('text/plain').send('That is too large.');
  };

/** What went wrong, in one plain line: no paths, no traces. */
export const plainErrors: ErrorRequestHandler = (error: { status?: unknown }, _request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const status = typeof error.status === 'number' && error.status >= 400 && error.status < 500 ? error.status : 500;
  const said =
    status === 413 ? 'That is too large.' : status < 500 ? 'That was not understood.' : 'That went wrong here.';
  response.status(status).type('text/plain').send(said);
};
