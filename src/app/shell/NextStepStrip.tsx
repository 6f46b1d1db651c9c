import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { recalled, remember } from '../../browser/remembered';
import { nextStep } from '../../core/project/nextStep';
import { chooseGlyph, useBench } from '../state/bench';
import { goToStage } from '../state/navigation';
import { STAGES, type StageKey } from '../state/stages';

const keyOf = (projectId: string): string => `wendril-alone ${projectId}`;

/** For a project that begins: what comes next, and the way there; put away for good by its cross. */
export function NextStepStrip({ stage }: { stage: StageKey }) {
  const project = useBench((s) => s.settled)!;
  const projectId = useBench((s) => s.projectId);
  const master = useBench((s) => s.master);
  const glyph = useBench((s) => s.glyph);
  const [away, setAway] = useState(() => recalled(keyOf(projectId)) !== undefined);
  const step = useMemo(() => (away ? undefined : nextStep(project, master)), [away, project, master]);
  if (!step) return null;
  const there = step.stage === stage && (!step.glyph || step.glyph === glyph);
  return (
    <div
      role="status"
      data-testid="next-step"
      className="flex items-center gap-3 border-b border-line bg-kelp-tint px-5 py-1"
    >
      <span className="min-w-0 truncate">
        <b className="font-semibold text-kelp">Next</b> {step.sentence}
      </span>
      {!there && (
        <button
          type="button"
          className="shrink-0 font-semibold text-kelp underline-offset-2 hover:underline"
          onClick={() => {
            if (step.glyph) chooseGlyph(step.glyph);
            goToStage(step.stage);
          }}
        >
          To {STAGES.find((s) => s.key === step.stage)!.title}
        </button>
      )}
      <button
        type="button"
        aria-label="I find my own way"
        title="I find my own way"
        className="ml-auto rounded p-0.5 text-quiet hover:bg-panel"
        onClick={() => {
          remember(keyOf(projectId), 'yes');
          setAway(true);
        }}
      >
        <X size={14} />
      </button>
    </div>
  );
}
