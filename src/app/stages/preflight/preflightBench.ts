import { useMemo } from 'react';
import { create } from 'zustand';
import type { Family, Finding } from '../../../core/preflight/finding';
import { kindOf } from '../../../core/preflight/kinds';
import type { GlyphId } from '../../../core/project/model';
import { chooseGlyph, chooseMaster, useBench } from '../../state/bench';
import { usePreflight } from '../../state/preflight';

/** What of the findings is shown, and which is chosen. */
type PreflightBench = {
  view: 'findings' | 'glyphs';
  family: Family | 'all';
  /** Those of one glyph only. */
  glyph: GlyphId | undefined;
  showAccepted: boolean;
  folded: ReadonlySet<string>;
  chosen: Finding | undefined;
  /** A kind of which all are to be mended. */
  mendAll: string | undefined;
  judging: boolean;
  accepting: boolean;
};
export const usePreflightBench = create<PreflightBench>(() => ({
  view: 'findings',
  family: 'all',
  glyph: undefined,
  showAccepted: false,
  folded: new Set(),
  chosen: undefined,
  mendAll: undefined,
  judging: false,
  accepting: false,
}));
export const setBench = usePreflightBench.setState;

/** The same finding after its project was looked at anew. */
export const sameFinding = (a: Finding | undefined, b: Finding | undefined): boolean =>
  a === b ||
  (a !== undefined &&
    b !== undefined &&
    a.kind === b.kind &&
    a.glyph === b.glyph &&
    a.contour === b.contour &&
    a.point === b.point &&
    a.section === b.section &&
    (a.glyph !== undefined || a.reason === b.reason));

export type Group = { kind: string; findings: readonly Finding[] };

/** Findings by kind, the worst kind first, as the choice of family and glyph has them. */
export function useGroups(): { groups: readonly Group[]; count: number } {
  const { standing, accepted } = usePreflight();
  const { family, glyph, showAccepted } = usePreflightBench();
  return useMemo(() => {
    const groups = new Map<string, Finding[]>();
    let count = 0;
    for (const f of showAccepted ? accepted : standing) {
      if (family !== 'all' && kindOf(f.kind)?.family !== family) continue;
      if (glyph !== undefined && f.glyph !== glyph && !f.others?.includes(glyph)) continue;
      count++;
      const own = groups.get(f.kind);
      if (own) own.push(f);
      else groups.set(f.kind, [f]);
    }
    return { groups: [...groups].map(([kind, findings]) => ({ kind, findings })), count };
  }, [standing, accepted, family, glyph, showAccepted]);
}

/** Shows a finding: its glyph and master become those of the bench. */
export function choose(f: Finding | undefined): void {
  setBench({ chosen: f, accepting: false });
  if (!f?.glyph) return;
  chooseGlyph(f.glyph);
  const { project } = useBench.getState();
  const master = f.masters.find((m) => project?.masters.some((o) => o.id === m));
  if (master) chooseMaster(master);
}
