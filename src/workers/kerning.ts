import { type Collision, collisions, type Hole, holes } from '../core/kerning/collisions';
import { type GroupProposal, proposeGroups } from '../core/kerning/groups';
import { type ProposalSettings, type ProposedPair, proposeKerning } from '../core/kerning/proposal';
import type { GlyphId, MasterId, Project } from '../core/project/model';
import { masterOf } from '../core/project/queries';

/** Kerning of many pairs, away from the pointer. */
export const kerningService = {
  proposeKerning: (
    project: Project,
    master: MasterId,
    glyphs: readonly GlyphId[],
    settings: ProposalSettings,
    progress: (done: number, total: number) => void,
  ): ProposedPair[] => proposeKerning(project, master, glyphs, glyphs, settings, progress),
  collisions: (
    project: Project,
    master: MasterId,
    glyphs: readonly GlyphId[],
    nearest: number,
    progress: (done: number, total: number) => void,
  ): Collision[] => collisions(project, master, glyphs, nearest, progress),
  holes: (
    project: Project,
    master: MasterId,
    glyphs: readonly GlyphId[],
    atLeast: number,
    progress: (done: number, total: number) => void,
  ): Hole[] => holes(project, master, glyphs, atLeast, progress),
  proposeGroups: (
    project: Project,
    master: MasterId,
    atLeast: number,
    progress: (done: number, total: number) => void,
  ): GroupProposal[] => proposeGroups(project, masterOf(project, master)!, atLeast, undefined, progress),
};

export type KerningService = typeof kerningService;
