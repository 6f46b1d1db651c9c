import { useEffect, useState } from 'react';
import { Workbox } from 'workbox-window';
import { Button } from '../ui/parts';

/** So long, in milliseconds, a page has to itself before the rest of the app is brought in beside it. */
const REST = 8000;

/** Brings the whole app into the browser, so that it needs no server from then on; gives how a newer version is taken, once one is there. */
function useOffline(): (() => void) | undefined {
  const [take, setTake] = useState<() => void>();
  useEffect(() => {
    // Not while it is developed, nor where the browser keeps no app (an address that is not safe).
    if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
    const keeper = new Workbox('/offline.js');
    keeper.addEventListener('waiting', () => setTake(() => () => keeper.messageSkipWaiting()));
    // Whichever page takes it: all of them go on with the same version. The first that comes changes nothing.
    let kept = navigator.serviceWorker.controller !== null;
    const changed = () => {
      if (kept) window.location.reload();
      kept = true;
    };
    navigator.serviceWorker.addEventListener('controllerchange', changed);
    const wait = window.setTimeout(() => {
      // Without it the app works as long as its server does.
      keeper.register().catch(() => {});
    }, REST);
    return () => {
      window.clearTimeout(wait);
      navigator.serviceWorker.removeEventListener('controllerchange', changed);
    };
  }, []);
  return take;
}

/** Says that a newer version is there, until it is taken. */
export function Newer() {
  const take = useOffline();
  const [later, setLater] = useState(false);
  if (!take || later) return null;
  return (
    <div
      role="status"
      className="fixed bottom-3 left-1/2 z-[90] flex max-w-[calc(100vw-24px)] -translate-x-1/2 flex-wrap items-center gap-3 rounded-xl border border-line bg-panel px-4 py-2.5 shadow-xl"
    >
      <span>A newer version of Wendril is ready. Every open page of it is loaded anew.</span>
      <Button kind="primary" onClick={take}>
        Take it now
      </Button>
      <Button onClick={() => setLater(true)}>Later</Button>
    </div>
  );
}
