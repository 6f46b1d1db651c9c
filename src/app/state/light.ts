import { recalled, remember } from '../../browser/remembered';

/** The bench's light: as the system has it, or chosen by hand and remembered. */
export type BenchLight = 'system' | 'light' | 'dark';

const KEY = 'wendril-light';
const dark = () => window.matchMedia('(prefers-color-scheme: dark)');

export const benchLight = (): BenchLight => {
  const stored = recalled(KEY);
  return stored === 'light' || stored === 'dark' ? stored : 'system';
};

/** Puts the chosen light on the page and tells canvases to paint again. */
export function applyBenchLight(): void {
  const choice = benchLight();
  const isDark = choice === 'dark' || (choice === 'system' && dark().matches);
  document.documentElement.dataset.bench = isDark ? 'dark' : 'light';
  window.dispatchEvent(new Event('benchlight'));
}

export function setBenchLight(choice: BenchLight): void {
  remember(KEY, choice === 'system' ? undefined : choice);
  applyBenchLight();
}

dark().addEventListener('change', applyBenchLight);
