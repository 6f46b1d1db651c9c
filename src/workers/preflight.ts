import type { Result } from '../core/base/result';
import { refused, success } from '../core/base/result';
import { type Language, loadLanguages } from '../core/coverage/languages';
import type { Finding, MendWay } from '../core/preflight/finding';
import { parted } from '../core/preflight/judged';
import { mendedSentence, mendMany } from '../core/preflight/mendEdits';
import { Preflight } from '../core/preflight/preflight';
import { runEdit } from '../core/project/edit';
import type { GlyphId, MasterId, Project } from '../core/project/model';
import { drawingIn } from '../core/project/outline';
import { patchBetween, type Step, stepsOf } from '../core/project/patch';
import { drawingPath } from '../core/project/pathData';
import { documentHolder } from './document';

const held = documentHolder();
const project = (): Project => {
  const now = held.now();
  if (!now) throw new Error('The document has not come yet.');
  return now;
};

let languages: readonly Language[] | undefined;
let preflight: Preflight | undefined;
async function checker(): Promise<Preflight> {
  languages ??= (await loadLanguages()).all;
  preflight ??= new Preflight(languages);
  return preflight;
}

/** So long, in milliseconds, the check works before it looks whether something else was asked for. */
const SLICE = 25;
let newest = 0;

/** A glyph before and after a mend, in the master it is shown in. */
export type BeforeAfter = {
  readonly glyph: GlyphId;
  readonly master: MasterId;
  readonly before: string;
  readonly after: string;
  readonly advance: number;
};

/** What mending would come to: what changes, in steps, and letters before and after. */
export type MendTried = {
  readonly sentence: string;
  readonly steps: readonly Step[];
  readonly letters: readonly BeforeAfter[];
  /** Why some stay as they are. */
  readonly left: readonly string[];
};

/** The check of the whole project, away from the pointer; see {@link Preflight}. */
export const preflightService = {
  ...held.service,

  /**
   * All findings, the worst first; undefined when another check was asked for meanwhile, which then does the work. `tell` hears how far it is,
   * and what was found so far, once.
   */
  async check(
    tell: (done: number, total: number, found?: readonly Finding[]) => void,
  ): Promise<readonly Finding[] | undefined> {
    const own = ++newest;
    const now = project();
    const work = await checker();
    let out: readonly Finding[] = [];
    let until = performance.now() + SLICE;
    let told = 0;
    for (const { done, total, findings } of work.steps(now)) {
      if (findings) {
        out = findings;
        // What is known again in a moment needs no news in between.
        if (done < total) tell(done, total, findings);
      }
      if (performance.now() < until) continue;
      if (performance.now() - told > 120) {
        told = performance.now();
        tell(done, total);
      }
      await new Promise((resolve) => setTimeout(resolve, 0));
      if (own !== newest) return undefined;
      until = performance.now() + SLICE;
    }
    return out;
  },

  /** Leaves the running check off. */
  stop(): void {
    newest++;
  },

  /** What one mend would come to. */
  tryMend: (way: MendWay, shown: readonly GlyphId[], master: MasterId): Result<MendTried> => {
    const now = project();
    const done = runEdit(now, way.edit, way.args);
    if (!done.ok) return done;
    const letters =
      shown.length > 0 ? lettersOf(now, done.project, shown, master) : changedLetters(now, done.project, master);
    return success({ sentence: done.sentence, steps: stepsOf(patchBetween(now, done.project)), letters, left: [] });
  },

  /** What mending all findings of a kind would come to, those that stand; in one glyph only, if it is named. */
  async tryAll(
    kind: string,
    master: MasterId,
    tell: (done: number, total: number) => void,
  ): Promise<Result<MendTried>> {
    const now = project();
    const work = await checker();
    const findings = parted(now, work.ofKind(now, kind)).standing;
    const again = (p: Project, k: string, glyph: GlyphId | undefined) =>
      (glyph ? work.glyphFindings(p, glyph, k) : work.ofKind(p, k)).filter((f) => f.kind === k && f.glyph === glyph);
    const done = mendMany(
      now,
      findings,
      (p, k, glyph) => {
        const own = again(p, k, glyph);
        // Of heights and sides a glyph by itself knows nothing.
        return own.length > 0 || !glyph ? own : work.ofKind(p, k).filter((f) => f.glyph === glyph);
      },
      tell,
    );
    const left = [...new Set(done.left.map((l) => l.why))];
    if (done.mended === 0) return refused(left[0] ?? 'There is nothing that a machine could mend.');
    return success({
      sentence: mendedSentence(kind, done.mended),
      steps: stepsOf(patchBetween(now, done.project)),
      letters: changedLetters(now, done.project, master),
      left,
    });
  },
};

const MOST_LETTERS = 2000;

function changedLetters(before: Project, after: Project, master: MasterId): BeforeAfter[] {
  const changed = after.glyphOrder.filter((id) => before.glyphs[id] !== after.glyphs[id]);
  return lettersOf(before, after, changed.slice(0, MOST_LETTERS), master);
}

/** Letters in the master that is shown, or where that one stays the same in the first that changes. */
function lettersOf(before: Project, after: Project, ids: readonly GlyphId[], shown: MasterId): BeforeAfter[] {
  return ids.flatMap((glyph) => {
    const [was, is] = [before.glyphs[glyph], after.glyphs[glyph]];
    if (!is) return [];
    const changes = (m: MasterId) => was?.drawings[m] !== is.drawings[m];
    const master = changes(shown) ? shown : (after.masters.find((m) => changes(m.id))?.id ?? shown);
    const drawing = drawingIn(after, is, master);
    return [
      {
        glyph,
        master,
        before: was ? drawingPath(before, master, drawingIn(before, was, master)) : '',
        after: drawingPath(after, master, drawing),
        advance: drawing.advance,
      },
    ];
  });
}

export type PreflightService = typeof preflightService;
