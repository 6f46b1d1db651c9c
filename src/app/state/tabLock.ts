/** How often a held project is asked for again before it counts as open elsewhere. */
const PATIENCE = 8;
/** So long a tab waits for others to say that they hold a project, where the browser has no locks, in milliseconds. */
const ANSWER_MS = 200;

export type ProjectLock =
  /** This tab holds it, until `release`, or until `lost` settles: somebody took it by force. */
  | { mine: true; lost: Promise<void>; release: () => void }
  /** Another tab holds it; `freed` settles once it lets go. */
  | { mine: false; freed: Promise<void>; release: () => void };

const nameOf = (id: string) => `wendril-project-${id}`;

/** One tab at a time may change a project. */
export const takeProject = (id: string): Promise<ProjectLock> =>
  navigator.locks ? takeLock(nameOf(id)) : takeByAsking(nameOf(id));

async function takeLock(name: string): Promise<ProjectLock> {
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

type Said = { readonly what: 'mine?' | 'mine!' | 'free'; readonly by: number };

/**
 * At an address that is not safe (http from another machine) browsers have no locks: tabs ask each other. Who holds a
 * project answers; who has just come gives way to one that answers, and of two that come at once one gives way.
 */
async function takeByAsking(name: string): Promise<ProjectLock> {
  const channel = new BroadcastChannel(name);
  let heldElsewhere = false;
  let mine = false;
  const own = Math.random();
  // Who holds it goes before all that ask.
  const say = (what: Said['what']) => channel.postMessage({ what, by: mine ? -1 : own } satisfies Said);
  let tellFreed = () => {};
  const freed = new Promise<void>((resolve) => {
    tellFreed = resolve;
  });
  channel.onmessage = ({ data }: MessageEvent<Said>) => {
    if (data.what === 'free') {
      if (heldElsewhere) tellFreed();
    } else if (mine || own < data.by) {
      if (data.what === 'mine?') say('mine!');
    } else heldElsewhere = true;
  };
  say('mine?');
  await new Promise((r) => setTimeout(r, ANSWER_MS));
  let isOpen = true;
  const letGo = () => {
    if (isOpen && mine) say('free');
    channel.close();
    isOpen = false;
  };
  if (heldElsewhere) return { mine: false, freed, release: letGo };
  mine = true;
  window.addEventListener('pagehide', letGo, { once: true });
  return { mine: true, lost: new Promise(() => {}), release: letGo };
}
