import { useBench } from './bench';
import type { StageKey } from './stages';

let navigate: (to: string) => void = () => {};

/** The frame of the app lends its way of going to other addresses. */
export const lendNavigation = (fn: (to: string) => void): void => {
  navigate = fn;
};

/** Where a stage of the open project stands, at the chosen glyph. */
export function stageAddress(stage: StageKey): string {
  const { projectId, project, glyph } = useBench.getState();
  const name = glyph ? project?.glyphs[glyph]?.name : undefined;
  return `/p/${projectId}/${stage}${name ? `?glyph=${encodeURIComponent(name)}` : ''}`;
}

export const goTo = (address: string): void => navigate(address);
export const goToStage = (stage: StageKey): void => navigate(stageAddress(stage));
export const goToStart = (): void => navigate('/');

/** The stage of the present address. */
export const stageNow = (): string | undefined => /^\/p\/[^/]+\/(\w+)/.exec(window.location.pathname)?.[1];
