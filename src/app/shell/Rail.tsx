import { useMemo } from 'react';
import { Link } from 'react-router';
import { plural } from '../../core/project/edit';
import type { Project } from '../../core/project/model';
import { drawingOf, glyphsInOrder, isBlank, isEmptyDrawing } from '../../core/project/queries';
import { useBench } from '../state/bench';
import { countsOf, usePreflight } from '../state/preflight';
import { STAGES, type StageKey } from '../state/stages';

/** How far drawing is: the share of glyphs with an outline in the shown master. */
function drawnShare(project: Project, master: string): number {
  const glyphs = glyphsInOrder(project).filter((g) => !isBlank(g));
  if (glyphs.length === 0) return 0;
  return glyphs.filter((g) => !isEmptyDrawing(drawingOf(g, master))).length / glyphs.length;
}

function Ring({ share }: { share: number | undefined }) {
  const r = 15;
  const around = 2 * Math.PI * r;
  return (
    <svg aria-hidden className="absolute inset-0" viewBox="0 0 34 34">
      {share !== undefined && <circle cx="17" cy="17" r={r} fill="none" stroke="var(--line)" strokeWidth="1.8" />}
      {share !== undefined && share > 0 && (
        <circle
          cx="17"
          cy="17"
          r={r}
          fill="none"
          stroke="var(--kelp)"
          strokeWidth="1.8"
          strokeDasharray={`${around * share} ${around}`}
          transform="rotate(-90 17 17)"
          strokeLinecap="round"
        />
      )}
    </svg>
  );
}

/** The stages in the order of the work, each at its own address. */
export function Rail({ stage, projectId }: { stage: StageKey; projectId: string }) {
  const project = useBench((s) => s.settled);
  const master = useBench((s) => s.master);
  const glyph = useBench((s) => (s.glyph ? s.project?.glyphs[s.glyph]?.name : undefined));
  const drawn = useMemo(() => (project ? drawnShare(project, master) : 0), [project, master]);
  const standing = usePreflight((s) => s.standing);
  const counts = useMemo(() => countsOf(standing), [standing]);
  const open = counts.error + counts.attention;
  const address = (key: StageKey) => `/p/${projectId}/${key}${glyph ? `?glyph=${encodeURIComponent(glyph)}` : ''}`;
  return (
    <nav
      aria-label="Stages"
      className="flex flex-col gap-0.5 overflow-y-auto border-r border-line bg-panel px-1.5 py-2"
    >
      {STAGES.map(({ key, title, icon: Icon, does }) => {
        const current = key === stage;
        const found = key === 'preflight' && open > 0 ? open : undefined;
        const share = key === 'case' || key === 'draw' ? drawn : undefined;
        return (
          <Link
            key={key}
            to={address(key)}
            title={
              share !== undefined
                ? `${does} · ${Math.round(share * 100)} % drawn`
                : found !== undefined
                  ? `${does} · ${plural(counts.error, 'error')}, ${counts.attention} to look at`
                  : does
            }
            aria-current={current ? 'page' : undefined}
            className={`flex max-h-[68px] min-h-[52px] flex-1 flex-col items-center justify-center gap-0.5 rounded-lg ${current ? 'bg-kelp-tint font-semibold text-kelp' : 'text-ink hover:bg-paper'}`}
          >
            <span className="relative flex size-8.5 items-center justify-center">
              <Ring share={share} />
              <Icon size={17} strokeWidth={1.75} />
              {found !== undefined && (
                <span
                  data-testid="preflight-count"
                  className={`absolute top-0 left-[21px] rounded-full bg-panel px-1 text-[11px] leading-4 font-semibold ${counts.error > 0 ? 'text-brick' : 'text-marigold'}`}
                >
                  {found > 999 ? '999+' : found}
                </span>
              )}
            </span>
            <span className="text-[12.5px] leading-4">{title}</span>
          </Link>
        );
      })}
    </nav>
  );
}
