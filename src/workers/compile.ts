import { type Refusal, type Result, success } from '../core/base/result';
import { CastCache } from '../core/casting/cache';
import { castFont } from '../core/casting/font';
import type { CastPlace } from '../core/casting/plan';
import type { GlyphId, Project } from '../core/project/model';
import type { Step } from '../core/project/patch';
import { documentHolder } from './document';
import { createShaper, type Shaper } from './shaper';

export type SetGlyph = { id: GlyphId | undefined; gid: number; x: number; y: number; advance: number; cluster: number };
export type SetLine = {
  glyphs: SetGlyph[];
  /** Outline of each glyph index used, as an SVG path in font units, y up. */
  paths: Record<number, string>;
  width: number;
  /** Milliseconds from the request to the shaped line, compiling included. */
  milliseconds: number;
};

/** Lines as they are set, and the glyphs that could not be made, which stand blank in them. */
export type SetLines = { lines: SetLine[]; left: readonly Refusal[] };

const held = documentHolder();
const cache = new CastCache();
let compiled:
  | { project: Project; place: string; shaper: Shaper; glyphIds: readonly GlyphId[]; left: readonly Refusal[] }
  | undefined;

/** The service behind the galley: holds the document by patches and shapes lines with the font as cast this instant. */
export const compileService = {
  ...held.service,

  /** Lines of text, set with the font at a place; only glyphs that changed are compiled again. */
  async setLines({
    texts,
    place,
    features,
    steps = [],
  }: {
    texts: string[];
    place: CastPlace;
    features: string[];
    /** What has changed in the document since it was heard of last. */
    steps?: readonly Step[];
  }): Promise<Result<SetLines>> {
    const started = performance.now();
    if (steps.length > 0) held.service.update(steps);
    const project = held.now();
    if (!project) return success({ lines: [], left: [] });
    const where = JSON.stringify(place);
    if (compiled?.project !== project || compiled.place !== where) {
      const font = castFont(project, { flavour: 'otf', place, cache, compact: false, leaveOut: true, blanks: true });
      if (!font.ok) return font;
      const { bytes, glyphIds, notes } = font.value;
      const left = notes.filter((n) => n.severity === 'error');
      compiled = { project, place: where, shaper: await createShaper(bytes), glyphIds, left };
    }
    const { shaper, glyphIds, left } = compiled;
    const lines = texts.map((text): SetLine => {
      const { glyphs, width } = shaper.shape(text, features);
      const paths: Record<number, string> = {};
      for (const g of glyphs) paths[g.gid] ??= shaper.path(g.gid);
      return { glyphs: glyphs.map((g) => ({ ...g, id: glyphIds[g.gid] })), paths, width, milliseconds: 0 };
    });
    const milliseconds = performance.now() - started;
    return success({ lines: lines.map((l) => ({ ...l, milliseconds })), left });
  },
};

export type CompileService = typeof compileService;
