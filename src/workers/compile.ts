import { type Refusal, type Result, success } from '../core/base/result';
import { CastCache } from '../core/casting/cache';
import { castFont } from '../core/casting/font';
import type { CastPlace } from '../core/casting/plan';
import type { LookupSource, LookupSources } from '../core/casting/tables/layout';
import { AS_TEXT, asked } from '../core/features/setting';
import { type SettingChoices, settingChoices } from '../core/features/settingChoices';
import type { ShownRule } from '../core/features/shown';
import { unapplied } from '../core/features/whyNot';
import type { GlyphId, Project } from '../core/project/model';
import { drawingIn } from '../core/project/outline';
import { type Partner, toldToPartner } from '../core/project/partner';
import type { Step } from '../core/project/patch';
import { drawingPath } from '../core/project/pathData';
import type { Place } from '../core/project/places';
import { glyphForCodePoint } from '../core/project/queries';
import type { Setting } from '../core/project/setting';
import { waypointId } from '../core/project/waypoints';
import { documentHolder } from './document';
import { createShaper, type ShapedGlyph, type Shaper, type ShapingStep } from './shaper';
import { storedProject } from './stored';

export type SetGlyph = { id: GlyphId | undefined; gid: number; x: number; y: number; advance: number; cluster: number };
export type SetLine = {
  glyphs: SetGlyph[];
  /** Outline of each glyph index used, as an SVG path in font units, y up. */
  paths: Record<number, string>;
  width: number;
  /** Set from the right: its first letter stands at its right end. */
  rightToLeft: boolean;
  /** Milliseconds from the request to the shaped line, compiling included. */
  milliseconds: number;
};

/** Lines as they are set, and the glyphs that could not be made, which stand blank in them. */
export type SetLines = { lines: SetLine[]; left: readonly Refusal[] };

const held = documentHolder();
const cache = new CastCache();
type Compiled = {
  project: Project;
  place: string;
  /** Glyphs that have their outlines in it. */
  outlined: ReadonlySet<GlyphId>;
  shaper: Shaper;
  glyphIds: readonly GlyphId[];
  left: readonly Refusal[];
  lookups: LookupSources;
};
/** The newest font, and the one of another place before it: two lines may hold two places. */
let compiled: Compiled | undefined;
let other: Compiled | undefined;
/** Glyphs that lines were set with: what a font of thousands of glyphs is compiled for. */
let inUse = new Set<GlyphId>();
/** Lines need next to no glyphs of a large font; more than this are forgotten and found anew. */
const MOST_IN_USE = 2000;

/** The font as it would be cast, with the outlines of some glyphs; all tables that set a line are whole. */
async function compiledFor(
  project: Project,
  place: CastPlace,
  outlined: ReadonlySet<GlyphId>,
): Promise<Result<Compiled>> {
  const font = castFont(project, {
    flavour: 'otf',
    place,
    cache,
    compact: false,
    leaveOut: true,
    blanks: true,
    only: outlined,
  });
  if (!font.ok) return font;
  const { bytes, glyphIds, notes, lookups } = font.value;
  const left = notes.filter((n) => n.severity === 'error');
  return success({
    project,
    place: JSON.stringify(place),
    outlined,
    shaper: await createShaper(bytes),
    glyphIds,
    left,
    lookups,
  });
}

/** Outlines do not change what is set, so that the second setting is the last. */
const MOST_ROUNDS = 3;

/** The service behind the galley: holds the document by patches and shapes lines with the font as cast this instant. */
export const compileService = {
  ...held.service,

  /** Takes another project of this browser in, to be looked at only; what it tells of itself. */
  async loadStored(id: string): Promise<Result<Partner>> {
    const found = await storedProject(id);
    if (!found.ok) return found;
    held.service.load(found.value);
    return success(toldToPartner(found.value));
  },

  /** What texts can be set with; nothing before the document has come. */
  settingChoices(): SettingChoices {
    const project = held.now();
    return project ? settingChoices(project) : { features: [], scripts: [], languages: [] };
  },

  /** A glyph as it lies at a place in design units, drawn out, as path data in font units. */
  outline(glyph: GlyphId, place: Place): { path: string; advance: number } | undefined {
    const project = held.now();
    const id = waypointId(place);
    const drawn = project?.glyphs[glyph] && drawingIn(project, project.glyphs[glyph], id);
    return drawn && { path: drawingPath(project, id, drawn), advance: drawn.advance };
  },

  /** Lines of text, set with the font at a place; only glyphs that changed are compiled again. */
  async setLines({
    texts,
    place,
    setting = AS_TEXT,
    steps = [],
  }: {
    texts: string[];
    place: CastPlace;
    setting?: Setting;
    /** What has changed in the document since it was heard of last. */
    steps?: readonly Step[];
  }): Promise<Result<SetLines>> {
    const started = performance.now();
    if (steps.length > 0) held.service.update(steps);
    const project = held.now();
    if (!project) return success({ lines: [], left: [] });
    const where = JSON.stringify(place);
    if (inUse.size > MOST_IN_USE) inUse = new Set();
    for (const c of new Set(texts.join(''))) {
      const glyph = glyphForCodePoint(project, c.codePointAt(0)!);
      if (glyph) inUse.add(glyph.id);
    }
    // Setting tells which glyphs the rules lead to; those get their outlines, and the lines are set once more.
    for (let round = 0; ; round++) {
      if (compiled?.place !== where) [compiled, other] = [other, compiled];
      const missing = [...inUse].some((id) => !compiled?.outlined.has(id));
      if (compiled?.project !== project || compiled.place !== where || missing) {
        const made = await compiledFor(project, place, new Set(inUse));
        if (!made.ok) return made;
        compiled = made.value;
      }
      const { shaper, glyphIds, outlined } = compiled;
      const { features, settings } = asked(setting);
      const shaped = texts.map((text) => shaper.shape(text, features, settings));
      const used = new Set(shaped.flatMap(({ glyphs }) => glyphs.flatMap((g) => glyphIds[g.gid] ?? [])));
      const found = [...used].filter((id) => !outlined.has(id));
      if (found.length > 0 && round < MOST_ROUNDS) {
        for (const id of found) inUse.add(id);
        continue;
      }
      const lines = shaped.map(({ glyphs, width, rightToLeft }): SetLine => {
        const paths: Record<number, string> = {};
        for (const g of glyphs) paths[g.gid] ??= shaper.path(g.gid);
        return {
          glyphs: glyphs.map((g) => ({ ...g, id: glyphIds[g.gid] })),
          paths,
          width,
          rightToLeft,
          milliseconds: performance.now() - started,
        };
      });
      return success({ lines, left: compiled.left });
    }
  },

  /** What every lookup does to a text, in order: the glyphs before and after it, and where its rule stands. */
  async explain({
    text,
    place,
    setting,
    steps = [],
    expected = [],
  }: {
    text: string;
    place: CastPlace;
    setting: Setting;
    steps?: readonly Step[];
    /** Rules that one might expect to apply, by their sections. */
    expected?: readonly { section: string; rules: readonly ShownRule[] }[];
  }): Promise<Result<Explained>> {
    const set = await compileService.setLines({ texts: [text], place, setting, steps });
    if (!set.ok) return set;
    if (!compiled) return success({ steps: [], unapplied: [] });
    const { project, shaper, glyphIds, lookups } = compiled;
    const named = (list: readonly ShapedGlyph[]): SetGlyph[] => list.map((g) => ({ ...g, id: glyphIds[g.gid] }));
    const { features, settings } = asked(setting);
    const done = shaper.explain(text, features, settings);
    const name = (gid: number) => project.glyphs[glyphIds[gid] ?? '']?.name ?? '';
    const line = (list: readonly ShapedGlyph[]) => list.map((g) => ({ name: name(g.gid), cluster: g.cluster }));
    const told = {
      text,
      setting,
      letters: lettersOf(project, text),
      steps: done.map((s) => ({ ...s, before: line(s.before), after: line(s.after) })),
      lookups: lookups.GSUB,
    };
    return success({
      steps: done.map((s) => ({
        ...s,
        before: named(s.before),
        after: named(s.after),
        source: lookups[s.table][s.lookup] ?? { title: 'the project itself', flag: 0, features: [] },
      })),
      unapplied: expected.flatMap(({ section, rules }) =>
        unapplied(section, rules, told).map(({ blame, ...u }) => ({
          ...u,
          ...(blame && lookups.GSUB[blame.lookup] && { source: lookups.GSUB[blame.lookup]! }),
        })),
      ),
    });
  },
};

/** The glyphs of a text’s characters, each with where its character stands in the text. */
function lettersOf(project: Project, text: string): { name: string; cluster: number }[] {
  let cluster = 0;
  return [...text].map((c) => {
    const letter = { name: glyphForCodePoint(project, c.codePointAt(0)!)?.name ?? '', cluster };
    cluster += c.length;
    return letter;
  });
}

/** What one lookup did, and where it comes from. */
export type ExplainedStep = Omit<ShapingStep, 'before' | 'after'> & {
  before: SetGlyph[];
  after: SetGlyph[];
  source: LookupSource;
};

/** What lookups did to a line, and rules that did nothing though their letters stand in it. */
export type Explained = {
  steps: ExplainedStep[];
  unapplied: { rule: ShownRule; reason: string; source?: LookupSource }[];
};

export type CompileService = typeof compileService;
