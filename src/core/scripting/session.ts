import { RefusalError, refuse } from '../base/result';
import { runEdit } from '../project/edit';
import { glyphTyped } from '../project/findGlyphs';
import type { Glyph, GlyphId, Master, MasterId, Project } from '../project/model';
import { drawingOf } from '../project/queries';
import type { AskedFields, AskedValues } from './asked';

/** What a script reports. */
export type ScriptOutput =
  | { readonly kind: 'text'; readonly text: string }
  | {
      readonly kind: 'table';
      readonly head: readonly string[];
      readonly rows: readonly (readonly (string | number | boolean | null)[])[];
    }
  | {
      readonly kind: 'chart';
      readonly title: string;
      readonly labels: readonly string[];
      readonly series: readonly { readonly name: string; readonly values: readonly number[] }[];
    }
  | {
      readonly kind: 'glyphs';
      readonly caption: string;
      readonly glyphs: readonly GlyphId[];
      readonly master: MasterId;
    }
  | {
      readonly kind: 'finding';
      readonly sentence: string;
      readonly glyph: GlyphId | undefined;
      readonly master: MasterId | undefined;
    };

/** What a script works on and with. */
export type ScriptTerms = {
  /** The glyphs it runs on. */
  readonly chosen: readonly GlyphId[];
  /** The masters it runs on, by their ids. */
  readonly masters: readonly MasterId[];
  /** Values for what it asks, by name; what is missing has its usual value. */
  readonly given: AskedValues;
  /** The run ends when it has said what it asks for. */
  readonly onlyAsk?: boolean;
};

/** So much a script may report, in characters of text and numbers; and so many edits may it make. */
export const MOST_OUTPUT = 2_000_000;
export const MOST_EDITS = 200_000;

/**
 * A run of a script over a project: what it sees, what it has changed so far, what it reported. The project itself stays as it
 * is; whoever ran the script takes over what came of it, or nothing.
 */
export class Session {
  project: Project;
  readonly outputs: ScriptOutput[] = [];
  /** How many edits were made, and what they said of themselves; the first of each kind only. */
  edits = 0;
  readonly sentences: string[] = [];
  /** What the script asks for, once it has. */
  asked: AskedFields | undefined;
  private written = 0;
  private seed = 0x2545f491;

  constructor(
    readonly before: Project,
    readonly terms: ScriptTerms,
    readonly progress: (done: number, total: number) => void = () => {},
  ) {
    this.project = before;
  }

  /** Makes an edit by its name; what is refused is refused to the script in the same words. */
  edit(name: string, args: unknown): string {
    if (++this.edits > MOST_EDITS) refuse(`A script makes at most ${MOST_EDITS.toLocaleString('en')} edits.`);
    const done = runEdit(this.project, name, args);
    if (!done.ok) throw new RefusalError(done);
    this.project = done.project;
    if (this.sentences.length < 200) this.sentences.push(done.sentence);
    return done.sentence;
  }

  report(output: ScriptOutput): void {
    this.written += JSON.stringify(output).length;
    if (this.written > MOST_OUTPUT)
      refuse(`A script reports at most ${MOST_OUTPUT.toLocaleString('en')} characters; this one reports without end.`);
    this.outputs.push(output);
  }

  glyph(id: GlyphId): Glyph {
    return (
      (Object.hasOwn(this.project.glyphs, id) && this.project.glyphs[id]) ||
      refuse('A glyph that the script holds is no longer there.')
    );
  }

  master(id: MasterId): Master {
    return (
      this.project.masters.find((m) => m.id === id) ?? refuse('A master that the script holds is no longer there.')
    );
  }

  /** A glyph by what a script calls it: one that it holds, a name, or a character. */
  glyphBy(what: GlyphRef): Glyph {
    if (typeof what !== 'string') return this.glyph(what.$g);
    return glyphTyped(this.project, what) ?? refuse(`There is no glyph “${what}”.`);
  }

  drawing(glyph: GlyphId, master: MasterId) {
    this.master(master);
    return drawingOf(this.glyph(glyph), master);
  }

  /** A number from 0 up to 1, the same row of them in every run (xorshift, G. Marsaglia 2003). */
  random(): number {
    this.seed ^= this.seed << 13;
    this.seed ^= this.seed >>> 17;
    this.seed ^= this.seed << 5;
    return (this.seed >>> 0) / 2 ** 32;
  }
}

/** How a script names a glyph that it holds. */
export type GlyphRef = string | { readonly $g: GlyphId };
