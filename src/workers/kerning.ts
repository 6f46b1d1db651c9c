import { type Collision, collisions } from '../core/kerning/collisions';
import { type ProposalSettings, type ProposedPair, proposeKerning } from '../core/kerning/proposal';
import type { GlyphId, MasterId, Project } from '../core/project/model';

/** Kerning of many pairs, away from the pointer. */
export const kerningService = {
  proposeKerning: (project: Project, master: MasterId, glyphs: readonly GlyphId[], settings: ProposalSettings, progress: (done: number, total: number) => void): ProposedPair[] =>
    proposeKerning(project, master, glyphs, glyphs, settings, progress),
  collisions: (project: Project, master: MasterId, glyphs: readonly GlyphId[], nearest: number, progress: (done: number, total: number) => void): Collision[] =>
    collisions(project, master, glyphs, nearest, progress),
};

export type KerningService = typeof kerningService;
