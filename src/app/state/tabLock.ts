/**
 * One tab at a time may change a project. Resolves with `mine` when this tab holds it; otherwise with a promise that
 * settles once the other tab lets go. `release` gives it back.
 */
export async function takeProject(id: string): Promise<{ mine: true; release: () => void } | { mine: false; freed: Promise<void>; release: () => void }> {
  const name = `wendril-project-${id}`;
  let release = () => {};
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  const got = await new Promise<boolean>((resolve) => {
    void navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
      resolve(lock !== null);
      if (lock) await held;
    });
  });
  if (got) return { mine: true, release };
  const stop = new AbortController();
  const freed = navigator.locks.request(name, { signal: stop.signal }, () => {});
  return { mine: false, freed: freed.then(() => {}), release: () => stop.abort() };
}
