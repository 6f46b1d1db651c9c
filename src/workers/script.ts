import { type Refusal, refused, success } from '../core/base/result';
import { PART_WORDS } from '../core/project/differences';
import { plural } from '../core/project/edit';
import type { GlyphId, Project } from '../core/project/model';
import { patchBetween, type Step, stepsOf } from '../core/project/patch';
import type { AskedFields } from '../core/scripting/asked';
import { declarationText, type Entry, entries } from '../core/scripting/declarations';
import { USUAL_MEGABYTES } from '../core/scripting/limits';
import { otherValues, type ValueChange } from '../core/scripting/otherValues';
import { type ScriptOutput, type ScriptTerms, Session, type SetsText } from '../core/scripting/session';
import { type Ended, type Interpreter, runScript, syntaxFault } from '../sandbox/sandbox';
import { documentHolder } from './document';
import { printed } from './proofs/printed';
import { loadShaping } from './shaper';

/** A script to run: its name and text, what it runs on, and how long it may. */
export type ScriptAsked = {
  readonly name: string;
  readonly text: string;
  readonly terms: ScriptTerms;
  readonly seconds: number;
  /** How much memory it may take; {@link USUAL_MEGABYTES} where nothing is said. */
  readonly megabytes?: number;
};

/** What a run came to: the steps to what the script makes of the document, or why there is nothing. */
export type ScriptRan = {
  readonly steps: readonly Step[];
  readonly sentence: string;
  readonly outputs: readonly ScriptOutput[];
  readonly edits: number;
  /** Glyphs that are other than before. */
  readonly changed: readonly GlyphId[];
  readonly added: readonly GlyphId[];
  readonly removed: readonly GlyphId[];
  /** What else changes, in words, and as values. */
  readonly others: readonly string[];
  readonly values: readonly ValueChange[];
};
export type ScriptFault = Refusal & { readonly line: number | undefined; readonly outputs: readonly ScriptOutput[] };

const PARTS = { ...PART_WORDS, masters: 'masters and their kerning' };

/** Scripts over a copy of the document, each in an interpreter of its own. */
export function scriptServiceWith(start: () => Promise<Interpreter>) {
  const held = documentHolder();
  const project = (): Project => {
    const now = held.now();
    if (!now) throw new Error('The document has not come yet.');
    return now;
  };
  let opened: ((font: Uint8Array) => SetsText) | undefined;
  return {
    ...held.service,

    /** All that a script can name: here, where every edit is loaded. */
    words: (): readonly Entry[] => entries(),
    /** The same as TypeScript. */
    declarations: (): string => declarationText(),

    /** What cannot be read in a text; undefined where all of it can. */
    faultIn: async (text: string): Promise<Extract<Ended, { ok: false }> | undefined> =>
      syntaxFault(await start(), text),

    /** What a script asks for; nothing for one that asks for nothing, or fails before it does. */
    async askedBy(text: string, terms: ScriptTerms): Promise<AskedFields> {
      const session = new Session(project(), { ...terms, onlyAsk: true });
      runScript(await start(), text, session, { seconds: 3, megabytes: USUAL_MEGABYTES });
      return session.asked ?? {};
    },

    /** Runs a script; the document itself stays as it is. */
    async run(
      { name, text, terms, seconds, megabytes = USUAL_MEGABYTES }: ScriptAsked,
      progress: (done: number, total: number) => void = () => {},
    ): Promise<{ ok: true; value: ScriptRan } | ScriptFault> {
      const before = project();
      let told = 0;
      // HarfBuzz is loaded for scripts that set text.
      if (/\bshape\b/.test(text)) opened ??= await loadShaping();
      const tell = (done: number, total: number): void => {
        if (performance.now() - told < 60) return;
        told = performance.now();
        progress(done, total);
      };
      const session = new Session(before, terms, tell, opened);
      const ended = runScript(await start(), text, session, { seconds, megabytes });
      const outputs = await printed(session.outputs, before.created);
      if (!ended.ok) return { ...refused(ended.reason), outputs, line: ended.line };
      return success({ ...ranOf(name, before, session), outputs });
    },
  };
}

function ranOf(name: string, before: Project, { project: after, edits }: Session): Omit<ScriptRan, 'outputs'> {
  const changed = after.glyphOrder.filter((id) => before.glyphs[id] && before.glyphs[id] !== after.glyphs[id]);
  const added = after.glyphOrder.filter((id) => !before.glyphs[id]);
  const removed = before.glyphOrder.filter((id) => !after.glyphs[id]);
  const others = (Object.keys(PARTS) as (keyof typeof PARTS)[]).flatMap((p) =>
    before[p] === after[p] ? [] : [PARTS[p]],
  );
  const counts = [
    ...(changed.length > 0 ? [`${plural(changed.length, 'glyph')} changed`] : []),
    ...(added.length > 0 ? [`${added.length} added`] : []),
    ...(removed.length > 0 ? [`${removed.length} removed`] : []),
    ...others,
  ];
  return {
    steps: stepsOf(patchBetween(before, after)),
    sentence: `Script “${name}”${counts.length > 0 ? `: ${counts.join(', ')}` : ''}`,
    edits,
    changed,
    added,
    removed,
    others,
    values: otherValues(before, after),
  };
}

export type ScriptService = ReturnType<typeof scriptServiceWith>;
