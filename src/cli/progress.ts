/** How often a line of progress is written anew, in milliseconds. */
const EVERY = 120;

/**
 * Shows how far long work is, on one line of a terminal that is wiped when it is done; nothing where standard error is no
 * terminal, so that logs stay clean.
 */
export function progressOf(what: string): (done: number, total: number) => void {
  if (!process.stderr.isTTY) return () => {};
  let last = 0;
  return (done, total) => {
    const now = Date.now();
    if (done < total && now - last < EVERY) return;
    last = now;
    process.stderr.write(done >= total ? '\r\u001b[K' : `\r\u001b[K${what}… ${Math.round((100 * done) / total)} %`);
  };
}

/** Ends the line of progress, whatever happened. */
export const endProgress = (): void => {
  if (process.stderr.isTTY) process.stderr.write('\r\u001b[K');
};
