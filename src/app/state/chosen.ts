import { useMemo } from 'react';
import { create } from 'zustand';
import type { GlyphId } from '../../core/project/model';
import { glyphsInOrder } from '../../core/project/queries';
import { useBench } from './bench';
import { useChanged } from './changed';
import { answering, furtherQuestions, type Question, sinceOf } from './questions';

type CaseBench = {
  /** Glyphs chosen in the Case, for what is done to many; empty where only the glyph at hand is meant. */
  readonly chosen: ReadonlySet<GlyphId>;
  /** What the Case is asked to show, and the day that one of its questions names. */
  readonly question: Question;
  readonly further: string;
  readonly day: string;
};

const fresh = (): CaseBench => ({
  chosen: new Set(),
  question: 'all',
  further: 'any',
  day: new Date(Date.now() - 7 * 86_400_000).toISOString().slice(0, 10),
});

export const useCaseBench = create<CaseBench>(fresh);
export const setChosen = (chosen: ReadonlySet<GlyphId>): void => useCaseBench.setState({ chosen });
export const askCase = (asked: Partial<Omit<CaseBench, 'chosen'>>): void => useCaseBench.setState(asked);

// Ids of another project name other glyphs.
useBench.subscribe(({ projectId }, was) => {
  if (projectId !== was.projectId) useCaseBench.setState(fresh());
});

/** What the Case shows: the questions it can be asked, the one it is, and which glyphs answer; `all` where it asks nothing. */
export function useShown() {
  const project = useBench((s) => s.project)!;
  const master = useBench((s) => s.master);
  const { question, further: asked, day } = useCaseBench();
  const questions = useMemo(() => furtherQuestions(project), [project]);
  // A list may have gone since.
  const further = questions.some((q) => q.value === asked) ? asked : 'any';
  const changed = useChanged(sinceOf(further, day));
  const answers = useMemo(
    () => answering(project, master, question, further, changed),
    [project, master, question, further, changed],
  );
  return { questions, question, further, day, answers, all: question === 'all' && further === 'any' };
}

/** The glyphs that the Case shows, in their order; undefined where it shows all. */
export function useShownGlyphs(): readonly GlyphId[] | undefined {
  const project = useBench((s) => s.project)!;
  const { answers, all } = useShown();
  return useMemo(
    () => (all ? undefined : glyphsInOrder(project).flatMap((g) => (answers(g) ? [g.id] : []))),
    [project, answers, all],
  );
}
