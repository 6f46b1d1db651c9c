import { counted } from '../base/notation';
import { RefusalError, refuse, unwrap } from '../base/result';
import { CastCache } from '../casting/cache';
import { type CastFont, castFont } from '../casting/font';
import type { PageSize, ProofSection } from '../casting/proofKinds';
import { registeredEdits, runEdit, withGlyph } from '../project/edit';
import { glyphTyped } from '../project/findGlyphs';
import { remember } from '../project/lineage';
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
  | { readonly kind: 'file'; readonly name: string; readonly bytes: Uint8Array }
  | {
      readonly kind: 'finding';
      readonly sentence: string;
      readonly glyph: GlyphId | undefined;
      readonly master: MasterId | undefined;
    };

/** A printed proof that a script wants: fonts as they were cast in the run, and what of them is shown. It is printed when the script has ended. */
export type ProofWanted = {
  readonly kind: 'proof';
  readonly name: string;
  readonly font: ProofFont;
  readonly family: readonly ProofFont[];
  readonly sections: readonly ProofSection[];
  readonly text: string;
  readonly size: PageSize;
};
export type ProofFont = {
  readonly bytes: Uint8Array;
  readonly title: string;
  readonly glyphNames: readonly string[];
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

/** What sets text in a font: glyphs by their numbers in it, with places in font units from the line's start. */
export type SetsText = {
  shape(
    text: string,
    features: readonly string[],
  ): { glyphs: readonly { gid: number; x: number; y: number; advance: number }[] };
};

/** So much a script may report, in characters of text and numbers; and so many edits may it make. */
export const MOST_OUTPUT = 2_000_000;
export const MOST_EDITS = 200_000;

/**
 * A run of a script over a project: what it sees, what it has changed so far, what it reported. The project itself stays as it
 * is; whoever ran the script takes over what came of it, or nothing.
 */
export class Session {
  private held: Project;
  /** Glyphs that were changed by themselves and are not in the project that is held yet. */
  private readonly pending = new Map<GlyphId, Glyph>();
  readonly outputs: (ScriptOutput | ProofWanted)[] = [];
  /** How many edits were made. */
  edits = 0;
  /** What the script asks for, once it has. */
  asked: AskedFields | undefined;
  private written = 0;
  private seed = 0x2545f491;

  constructor(
    readonly before: Project,
    readonly terms: ScriptTerms,
    readonly progress: (done: number, total: number) => void = () => {},
    /** Opens a font to set text in, as the galley does; where there is none, a script sets no text. */
    readonly opened?: ((font: Uint8Array) => SetsText) | undefined,
  ) {
    this.held = before;
  }

  /** The project as the script has made it. */
  get project(): Project {
    if (this.pending.size > 0) {
      this.held = withGlyphs(this.held, this.pending);
      this.pending.clear();
    }
    return this.held;
  }

  private readonly fonts = new Map<string, { of: Project; font: CastFont; sets: SetsText | undefined }>();
  private readonly shapes = new CastCache();
  /** The font of a master as it would be cast now, made anew when the script has changed something. */
  cast(
    master: MasterId,
    flavour: 'otf' | 'ttf',
    keepOverlaps: boolean,
  ): { font: CastFont; sets: SetsText | undefined } {
    const key = `${master} ${flavour} ${keepOverlaps}`;
    const known = this.fonts.get(key);
    if (known?.of === this.project) return known;
    this.master(master);
    const font = unwrap(castFont(this.project, { flavour, place: { master }, keepOverlaps, cache: this.shapes }));
    const made = { of: this.project, font, sets: this.opened?.(font.bytes) };
    this.fonts.set(key, made);
    return made;
  }

  /** Makes an edit by its name; what is refused is refused to the script in the same words. */
  edit(name: string, args: unknown): string {
    if (++this.edits > MOST_EDITS) refuse(`A script makes at most ${counted(MOST_EDITS)} edits.`);
    const alone = aloneIn(name, args);
    const glyph = alone === undefined ? undefined : this.found(alone);
    const done = runEdit(glyph ? { ...this.held, glyphs: { [glyph.id]: glyph } } : this.project, name, args);
    if (!done.ok) throw new RefusalError(done);
    if (glyph) this.pending.set(glyph.id, done.project.glyphs[glyph.id]!);
    else this.held = done.project;
    return done.sentence;
  }

  report(output: ScriptOutput | ProofWanted): void {
    this.written += sizeOf(output);
    if (this.written > MOST_OUTPUT)
      refuse(`A script reports at most ${counted(MOST_OUTPUT)} characters; this one reports without end.`);
    this.outputs.push(
      'bytes' in output || output.kind === 'proof' ? { ...output, name: this.freeName(output.name) } : output,
    );
  }

  /** The name of a file that is reported: a second one of a name is numbered. */
  private freeName(name: string): string {
    const taken = new Set(this.outputs.map((o) => ('name' in o ? o.name : undefined)));
    let free = name;
    for (let i = 2; taken.has(free); i++) free = name.replace(/(\.\w+)?$/, `-${i}$1`);
    return free;
  }

  private found(id: GlyphId): Glyph | undefined {
    return this.pending.get(id) ?? (Object.hasOwn(this.held.glyphs, id) ? this.held.glyphs[id] : undefined);
  }

  glyph(id: GlyphId): Glyph {
    return this.found(id) ?? refuse('A glyph that the script holds is no longer there.');
  }

  master(id: MasterId): Master {
    return this.held.masters.find((m) => m.id === id) ?? refuse('A master that the script holds is no longer there.');
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

/** How much a report counts for: files, and proofs with the fonts in them, are as large as fonts are. */
function sizeOf(output: ScriptOutput | ProofWanted): number {
  if (output.kind === 'file') return output.bytes.length / 32;
  if (output.kind !== 'proof') return JSON.stringify(output).length;
  return [output.font, ...output.family].reduce((n, f) => n + f.bytes.length / 32, output.text.length);
}

/** The glyph to which an edit keeps, by its id, where it keeps to one. */
function aloneIn(name: string, args: unknown): GlyphId | undefined {
  if (registeredEdits().get(name)?.facts.within !== 'glyph') return undefined;
  const { at } = args as { at?: { glyph?: unknown } };
  return typeof at?.glyph === 'string' ? at.glyph : undefined;
}

function withGlyphs(project: Project, changed: ReadonlyMap<GlyphId, Glyph>): Project {
  const [only] = changed.values();
  if (only && changed.size === 1) return withGlyph(project, only);
  const glyphs = { ...project.glyphs, ...Object.fromEntries(changed) };
  remember(glyphs, project.glyphs, [...changed.keys()]);
  return { ...project, glyphs };
}

/** How a script names a glyph that it holds. */
export type GlyphRef = string | { readonly $g: GlyphId };
