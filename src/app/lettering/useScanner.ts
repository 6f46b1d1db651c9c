import { useMutation, useQuery } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';

export type Tone = 'grey' | 'strong' | 'line';
export type ScanSettings = { sheet: string; dpi: 100 | 150 | 300 | 600; tone: Tone };
type ScanState = { state: 'scanning'; progress: number } | { state: 'done' } | { state: 'jammed'; reason: string };

const UNREACHABLE = 'The scanner does not answer. Is it switched on? It runs with npm start.';

async function ask(path: string, init?: RequestInit): Promise<Response> {
  const response = await fetch(`/scanner/${path}`, init).catch(() => undefined);
  if (!response) throw new Error(UNREACHABLE);
  if (response.ok) return response;
  const said = (await response.json().catch(() => undefined)) as { reason?: string } | undefined;
  throw new Error(said?.reason ?? UNREACHABLE);
}

/** The sheets in the scanner's tray. */
export const useTray = () =>
  useQuery({
    queryKey: ['scanner', 'sheets'],
    queryFn: async () => (await (await ask('sheets')).json()) as { name: string; title: string }[],
  });

/** Scans a sheet and follows the carriage; `progress` is from 0 to 1 while it travels. */
export function useScan(done: (bytes: Uint8Array, settings: ScanSettings) => void) {
  const [progress, setProgress] = useState<number>();
  const current = useRef(0);
  const scan = useMutation({
    mutationFn: async (settings: ScanSettings) => {
      const own = ++current.current;
      setProgress(0);
      const made = (await (
        await ask('scans', {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(settings),
        })
      ).json()) as { id: string };
      for (;;) {
        await new Promise((r) => setTimeout(r, 150));
        if (own !== current.current) {
          await ask(`scans/${made.id}`, { method: 'DELETE' });
          return;
        }
        const now = (await (await ask(`scans/${made.id}`)).json()) as ScanState;
        if (now.state === 'jammed') throw new Error(now.reason);
        if (now.state === 'scanning') setProgress(now.progress);
        else break;
      }
      const bytes = new Uint8Array(await (await ask(`scans/${made.id}/picture`)).arrayBuffer());
      await ask(`scans/${made.id}`, { method: 'DELETE' });
      if (own === current.current) done(bytes, settings);
    },
    onSettled: () => setProgress(undefined),
  });
  const stop = useCallback(() => {
    current.current++;
    setProgress(undefined);
  }, []);
  return { start: scan.mutate, stop, progress, problem: scan.error?.message };
}
