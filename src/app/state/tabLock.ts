/** How often a held project is asked for again before it counts as open elsewhere. */
const PATIENCE = 8;

/**
 * One tab at a time may change a project. Resolves with `mine` when this tab holds it; otherwise with a promise that
 * settles once the other tab lets go. `release` gives it back.
 */
export async function takeProject(
  id: string,
): Promise<{ mine: true; release: () => void } | { mine: false; freed: Promise<void>; release: () => void }> {
  const name = `wendril-project-${id}`;
  let release = () => {};
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  const tryOnce = () =>
    new Promise<boolean>((resolve) => {
      void navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
        resolve(lock !== null);
        if (lock) await held;
      });
    });
  let got = await tryOnce();
  // A page that is being reloaded may hold the project for a moment longer.
  for (let tries = 0; !got && tries < PATIENCE; tries++) {
    await new Promise((r) => setTimeout(r, 60));
    got = await tryOnce();
  }
  if (got) return { mine: true, release };
  const stop = new AbortController();
  const freed = navigator.locks.request(name, { signal: stop.signal }, () => {});
  return { mine: false, freed: freed.then(() => {}), release: () => stop.abort() };
}
