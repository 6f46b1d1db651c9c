import type { Finding } from '../core/base/finding';
import { attempt, type Refusal, type Result, refused, success } from '../core/base/result';
import { changesBetween, type Fingerprint, fingerprintOf } from '../core/casting/fingerprint';
import { ruledFacts } from '../core/casting/ruledFacts';
import { kerningSize } from '../core/casting/tables/gpos';
import { type Groundwork, groundwork } from '../core/composing/steps';
import { type ComposedCell, composedView } from '../core/composing/view';
import { madeSet } from '../core/deriving/derive';
import { derivedSentence, spaceSet } from '../core/deriving/edits';
import { setOf } from '../core/deriving/sets';
import { type SetItem, setCounts, setView } from '../core/deriving/view';
import { italicOf } from '../core/drawing/italic';
import { type StrokeWork, workedDrawing } from '../core/drawing/strokes';
import { type ManyAsked, type ManyWorked, workedGlyphs } from '../core/drawing/strokesOfMany';
import { type FeaturesView, featuresView } from '../core/features/view';
import { updateFollows } from '../core/fitting/follows';
import { type FitProposal, proposeFit } from '../core/fitting/proposal';
import { openAny } from '../core/formats/openFile';
import { type Collision, collisions, type Hole, holes } from '../core/kerning/collisions';
import { pairsLeft } from '../core/kerning/edits';
import { kerningFaults } from '../core/kerning/faults';
import { type GroupProposal, proposeGroups } from '../core/kerning/groups';
import { offeredFor } from '../core/kerning/likeness';
import { type ProposalSettings, type ProposedKerning, proposeKerning } from '../core/kerning/proposal';
import { kerningQueue, pairFacts, type QueuedPair } from '../core/kerning/queue';
import type { Side } from '../core/project/kerningLookup';
import type { Drawing, GlyphId, MasterId, Project } from '../core/project/model';
import { patchBetween, type Step, stepsOf } from '../core/project/patch';
import type { Place } from '../core/project/places';
import { defaultMaster, drawingOf, masterOf } from '../core/project/queries';
import { type ManyReweighed, type ReweightAsked, reweighedGlyphs } from '../core/reweighting/many';
import { type TidyName, type TidyProposal, tidyProposal } from '../core/tidying/operations';
import { type AgreementFault, agreementOf } from '../core/variation/agreement';
import { type Broken, brokenGlyphs, crossingFaults } from '../core/variation/between';
import { canBeMended } from '../core/variation/mending';
import { projectAt } from '../core/variation/projectAt';
import { type Taken, takenMaster } from '../core/variation/takenMaster';
import { mendTangles } from '../core/variation/untangling';
import { documentHolder } from './document';
import { storedProject } from './stored';

/** Glyphs offered for the groups of the two sides of a pair. */
export type Offered = Record<Side, { glyph: GlyphId; likeness: number }[]>;

type Progress = (done: number, total: number) => void;

const held = documentHolder();
const project = (): Project => {
  const now = held.now();
  if (!now) throw new Error('The document has not come yet.');
  return now;
};

/** Glyphs whose masters do not agree: what differs, and whether a machine can mend it. */
export type Disagreeing = readonly { glyph: GlyphId; faults: readonly AgreementFault[]; mends: boolean }[];

/** What a file gives to a new master: of which family and master, of which there are these. */
export type TakenFrom = { family: string; masters: readonly string[]; master: string; taken: Taken };

const takenOf = (from: Project, master: string | undefined): Result<TakenFrom> => {
  const chosen = from.masters.find((m) => m.name === master) ?? defaultMaster(from);
  return attempt(() => ({
    family: from.family.name,
    masters: from.masters.map((m) => m.name),
    master: chosen.name,
    taken: takenMaster(project(), from, chosen.id),
  }));
};

/** What is measured and proposed over many glyphs, on a copy of the document away from the pointer. */
export const measureService = {
  ...held.service,

  /** What has changed since, in words. */
  changesSince: (print: Fingerprint): string[] => changesBetween(print, fingerprintOf(project())),

  /** Sides for all glyphs from those that are kept. */
  proposeFit: (master: MasterId, keep: readonly GlyphId[]): FitProposal[] =>
    proposeFit(project(), master, project().glyphOrder, new Set(keep)),

  proposeKerning: (
    master: MasterId,
    glyphs: readonly GlyphId[],
    settings: ProposalSettings,
    progress: Progress,
  ): ProposedKerning => proposeKerning(project(), master, glyphs, glyphs, settings, progress),

  collisions: (master: MasterId, glyphs: readonly GlyphId[], nearest: number, progress: Progress): Collision[] =>
    collisions(project(), master, glyphs, nearest, progress),

  holes: (master: MasterId, glyphs: readonly GlyphId[], atLeast: number, progress: Progress): Hole[] =>
    holes(project(), master, glyphs, atLeast, progress),

  proposeGroups: (master: MasterId, atLeast: number, progress: Progress): GroupProposal[] =>
    proposeGroups(project(), masterOf(project(), master)!, atLeast, undefined, progress),

  kerningQueue: (master: MasterId, step: number, least: number): QueuedPair[] =>
    kerningQueue(project(), master, pairsLeft(project()), step, least),

  /** What would make a pair as even as the others. */
  pairEven: (master: MasterId, first: GlyphId, second: GlyphId): number =>
    pairFacts(project(), masterOf(project(), master)!, first, second).proposed,

  /** Glyphs that could be in the groups of the two sides of a pair as well. */
  offeredFor: (master: MasterId, first: GlyphId, second: GlyphId): Offered => ({
    first: offeredFor(project(), masterOf(project(), master)!, 'first', first),
    second: offeredFor(project(), masterOf(project(), master)!, 'second', second),
  }),

  /** What contradicts itself or is needless in the kerning of a master. */
  kerningFaults: (master: MasterId): Finding[] => kerningFaults(project(), masterOf(project(), master)!),

  kerningSize: (master: MasterId) => kerningSize(project(), master),

  /** What the rules give for the facts of a master’s font. */
  ruledFacts: (master: MasterId) => ruledFacts(project(), masterOf(project(), master) ?? defaultMaster(project())),

  /** A drawing with its edges worked on, or why it cannot be. */
  edges: (glyph: GlyphId, master: MasterId, contours: readonly number[], work: StrokeWork): Drawing | Refusal =>
    workedDrawing(project(), drawingOf(project().glyphs[glyph]!, master), master, contours, work),

  /** How letters asked for stand, and what they need before. */
  composedView: (codes: readonly number[], master: MasterId): { cells: ComposedCell[]; ground: Groundwork } => ({
    cells: composedView(project(), codes, master),
    ground: groundwork(project(), codes),
  }),

  /** The rules of the project as the stage of features shows them. */
  featuresView: (master: MasterId): FeaturesView => featuresView(project(), master),

  /** Glyphs whose masters do not agree, or look as if they would blend badly. */
  disagreeing: (progress: Progress): Disagreeing => {
    const held = project();
    return held.glyphOrder.flatMap((id, i) => {
      const glyph = held.glyphs[id]!;
      if (i % 16 === 0) progress(i, held.glyphOrder.length);
      const told = agreementOf(held, glyph);
      const faults = told.length > 0 ? told : crossingFaults(held, glyph);
      return faults.length > 0 ? [{ glyph: id, faults, mends: told.length > 0 && canBeMended(held, glyph) }] : [];
    });
  },

  /** Glyphs begun elsewhere where that parts what crosses on the way: the steps to what that makes of the document. */
  parted(glyphs: readonly GlyphId[]): Result<{ steps: readonly Step[]; sentence: string }> {
    const held = project();
    const done = mendTangles(held, { glyphs: [...glyphs] });
    return done.ok ? success({ steps: stepsOf(patchBetween(held, done.project)), sentence: done.sentence }) : done;
  },

  /** Glyphs that break or cross between the masters. */
  broken: (progress: Progress): Broken[] => brokenGlyphs(project(), progress),

  /** An italic begun from the document. */
  italicOf(degrees: number, progress: Progress): Project {
    const leaning = italicOf(project(), degrees, progress);
    // Sides that follow others do so along the slant.
    const followed = updateFollows(leaning, {});
    return followed.ok ? followed.project : leaning;
  },

  /** The family at a place as a project of its own. */
  projectAt: (place: Place, name: string) => projectAt(project(), place, name),

  /** A master of a file, matched with the glyphs of the document: its default one, or the one that is named. */
  async takenFrom(
    bytes: Uint8Array,
    name: string,
    master: string | undefined,
    progress: Progress,
  ): Promise<Result<TakenFrom>> {
    const opened = await openAny(bytes, name, { face: 0, progress });
    return opened.ok ? takenOf(opened.value.project, master) : opened;
  },

  /** The same of another project of this browser. */
  async takenFromStored(id: string, master: string | undefined): Promise<Result<TakenFrom>> {
    const found = await storedProject(id);
    return found.ok ? takenOf(found.value, master) : found;
  },

  /** The glyphs of a set made from others, each with how it stands and what it would look like in a master; and how many of each set are drawn. */
  derivedSet: (
    key: string,
    master: MasterId,
    progress: Progress,
  ): { items: SetItem[]; counts: ReturnType<typeof setCounts> } => ({
    items: setView(project(), key, master, progress),
    counts: setCounts(project()),
  }),

  /** A set made: the steps to what that makes of the document. */
  madeSet(
    key: string,
    names: readonly string[] | undefined,
    progress: Progress,
  ): Result<{ steps: readonly Step[]; sentence: string }> {
    const held = project();
    const set = setOf(key);
    if (!set) return refused(`There is no set ${key}.`);
    const done = madeSet(held, set, names, progress);
    return done.made.length + done.updated.length === 0
      ? refused(done.left[0] ? `Nothing could be made: ${done.left[0].why}` : 'All of this set is drawn already.')
      : success({ steps: stepsOf(patchBetween(held, done.project)), sentence: derivedSentence(set.title, done) });
  },

  /** What a set made fitted by its own controls: the steps to that. */
  spacedSet(key: string): Result<{ steps: readonly Step[]; sentence: string }> {
    const held = project();
    const done = spaceSet(held, { set: key });
    return done.ok ? success({ steps: stepsOf(patchBetween(held, done.project)), sentence: done.sentence }) : done;
  },

  /** Glyphs of a master at new stems. */
  reweighed: (asked: ReweightAsked, progress?: Progress): ManyReweighed => reweighedGlyphs(project(), asked, progress),

  /** The edges of many glyphs. */
  edgesOfMany: (asked: ManyAsked, progress: Progress): ManyWorked => workedGlyphs(project(), asked, progress),

  tidy(
    {
      operation,
      glyphs,
      masters,
      amount,
    }: { operation: TidyName; glyphs: readonly GlyphId[]; masters: readonly MasterId[]; amount: number | undefined },
    progress: Progress,
  ): TidyProposal[] {
    const now = project();
    return glyphs.flatMap((id, i) => {
      if (i % 16 === 0) progress(i, glyphs.length);
      const glyph = now.glyphs[id];
      return glyph ? (tidyProposal(now, glyph, masters, operation, amount) ?? []) : [];
    });
  },
};

export type MeasureService = typeof measureService;
