import { proxy } from 'comlink';
import { create } from 'zustand';
import type { Finding } from '../../core/preflight/finding';
import { parted } from '../../core/preflight/judged';
import { kindOf } from '../../core/preflight/kinds';
import type { GlyphId, Project } from '../../core/project/model';
import { applySteps } from '../../core/project/patch';
import type { MendTried } from '../../workers/preflight';
import { run, say, useBench } from './bench';
import { preflighter } from './followers';
import { linesSet } from './liveFont';

/** What was found in the open project, and how far the check is. */
type PreflightState = {
  projectId: string;
  /** The document that was checked. */
  of: Project | undefined;
  standing: readonly Finding[];
  accepted: readonly Finding[];
  byGlyph: ReadonlyMap<GlyphId, readonly Finding[]>;
  /** From 0 to 1 while it runs. */
  share: number | undefined;
  /** All of it was looked at once. */
  whole: boolean;
  /** It was stopped by hand, and goes on when asked. */
  stopped: boolean;
  fault: string | undefined;
};

const EMPTY: PreflightState = {
  projectId: '',
  of: undefined,
  standing: [],
  accepted: [],
  byGlyph: new Map(),
  share: undefined,
  whole: false,
  stopped: false,
  fault: undefined,
};
export const usePreflight = create<PreflightState>(() => EMPTY);
const set = usePreflight.setState;

function take(project: Project, findings: readonly Finding[], more: Partial<PreflightState>): void {
  // What an edit took away meanwhile is not told any more.
  const there = findings.filter((f) => f.glyph === undefined || project.glyphs[f.glyph]);
  const { standing, accepted } = parted(project, there);
  const byGlyph = new Map<GlyphId, Finding[]>();
  for (const f of standing) {
    if (f.glyph === undefined) continue;
    const own = byGlyph.get(f.glyph);
    if (own) own.push(f);
    else byGlyph.set(f.glyph, [f]);
  }
  set({ of: project, standing, accepted, byGlyph, ...more });
}

let asked = 0;

async function check(): Promise<void> {
  const own = ++asked;
  const { settled, projectId } = useBench.getState();
  if (!settled) return;
  if (usePreflight.getState().projectId !== projectId) set({ ...EMPTY, projectId });
  set({ share: usePreflight.getState().whole ? undefined : 0, fault: undefined });
  try {
    const service = await preflighter.synced();
    const found = await service.check(
      proxy((done: number, total: number, some?: readonly Finding[]) => {
        if (own !== asked) return;
        const share = usePreflight.getState().whole ? undefined : done / total;
        if (some) take(settled, some, { share });
        else set({ share });
      }),
    );
    if (own !== asked || !found) return;
    take(settled, found, { share: undefined, whole: true });
  } catch (error) {
    if (own !== asked) return;
    set({ share: undefined, fault: error instanceof Error ? error.message : String(error) });
  }
}

/** Leaves the check off until it is asked for again. */
export function stopCheck(): void {
  asked++;
  preflighter.stopWork();
  set({ share: undefined, stopped: true });
}

export function checkNow(): void {
  set({ stopped: false });
  void check();
}

/** Rests between an edit and the check, and before the first one, in milliseconds: what is drawn comes first. */
const REST = 150;
const FIRST = 900;
/** The first check waits for the line of the galley, of a large font so long at most, in milliseconds: both take what the machine has. */
const LONGEST_WAIT = 15_000;

/** Keeps the findings up to date with the document while a project is open; the result ends that. */
export function followPreflight(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let turn = 0;
  const later = (rest: number) => {
    clearTimeout(timer);
    const own = ++turn;
    timer = setTimeout(async () => {
      if (usePreflight.getState().of === undefined)
        await Promise.race([linesSet(), new Promise((resolve) => setTimeout(resolve, LONGEST_WAIT))]);
      if (own === turn && !usePreflight.getState().stopped) void check();
    }, rest);
  };
  set(EMPTY);
  later(FIRST);
  const end = useBench.subscribe(({ settled }, before) => {
    if (settled !== before.settled) later(before.settled ? REST : FIRST);
  });
  return () => {
    end();
    clearTimeout(timer);
    turn++;
    asked++;
    preflighter.stop();
    set(EMPTY);
  };
}

/** How many findings are errors, to be looked at, notes. */
export function countsOf(findings: readonly Finding[]): { error: number; attention: number; note: number } {
  const out = { error: 0, attention: 0, note: 0 };
  for (const f of findings) out[kindOf(f.kind)?.severity ?? 'note']++;
  return out;
}

/** Carries out what was tried, as one step, if nothing was changed meanwhile. */
export function takeMend(tried: MendTried, of: Project): boolean {
  if (useBench.getState().settled !== of) {
    say('The project was changed meanwhile; it is looked at anew.');
    return false;
  }
  return run((p) => ({ ok: true, project: applySteps(p, tried.steps), sentence: tried.sentence }));
}
