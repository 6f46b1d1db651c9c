/** How often a held project is asked for again before it counts as open elsewhere. */
const PATIENCE = 8;

export type ProjectLock =
  /** This tab holds it, until `release`, or until `lost` settles: somebody took it by force. */
  | { mine: true; lost: Promise<void>; release: () => void }
  /** Another tab holds it; `freed` settles once it lets go. */
  | { mine: false; freed: Promise<void>; release: () => void };

/** One tab at a time may change a project. */
export async function takeProject(id: string): Promise<ProjectLock> {
  const name = `wendril-project-${id}`;
  let release = () => {};
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  let tellLost = () => {};
  const lost = new Promise<void>((resolve) => {
    tellLost = resolve;
  });
  const tryOnce = () =>
    new Promise<boolean>((resolve) => {
      navigator.locks
        .request(name, { ifAvailable: true }, async (lock) => {
          resolve(lock !== null);
          if (lock) await held;
        })
        .catch(tellLost);
    });
  let got = await tryOnce();
  // A page that is being reloaded may hold the project for a moment longer.
  for (let tries = 0; !got && tries < PATIENCE; tries++) {
    await new Promise((r) => setTimeout(r, 60));
    got = await tryOnce();
  }
  if (got) return { mine: true, lost, release };
  const stop = new AbortController();
  const freed = navigator.locks.request(name, { signal: stop.signal }, () => {});
  return { mine: false, freed: freed.then(() => {}), release: () => stop.abort() };
}
