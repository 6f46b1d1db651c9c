import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { shownNumber } from '../../../core/base/notation';
import type { FitProposal } from '../../../core/fitting/proposal';
import type { GlyphId, MasterId, Project } from '../../../core/project/model';
import { Check } from '../../ui/controls';
import { GlyphShape } from '../../ui/GlyphShape';

const ACROSS = 3;
const ROW = 40;

/** Proposed sides in three columns, each with its letter and a tick; of thousands those in sight are made. */
export function ProposedSides({
  project,
  master,
  proposals,
  left,
  onTick,
}: {
  project: Project;
  master: MasterId;
  proposals: readonly FitProposal[];
  left: ReadonlySet<GlyphId>;
  onTick: (glyph: GlyphId) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: Math.ceil(proposals.length / ACROSS),
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 4,
  });
  const shown = rows.getVirtualItems();
  return (
    <div ref={frame} className="mb-3 max-h-[34vh] overflow-auto">
      <ul
        className="grid grid-cols-3 content-start gap-x-4"
        aria-label="Proposed sides"
        style={{ height: rows.getTotalSize(), paddingTop: shown[0]?.start ?? 0 }}
      >
        {shown.flatMap(({ index }) =>
          proposals.slice(index * ACROSS, (index + 1) * ACROSS).map((p, i) => {
            const glyph = project.glyphs[p.glyph];
            if (!glyph) return [];
            return (
              <li
                key={p.glyph}
                style={{ height: ROW }}
                aria-setsize={proposals.length}
                aria-posinset={index * ACROSS + i + 1}
              >
                <Check
                  label={glyph.name}
                  className="h-full items-center"
                  checked={!left.has(p.glyph)}
                  onChange={() => onTick(p.glyph)}
                >
                  <span className="flex min-w-0 items-center gap-2" title={glyph.name}>
                    <GlyphShape project={project} glyph={glyph} master={master} size={34} />
                    <span className="min-w-0 leading-tight">
                      <span className="block truncate">
                        {shownNumber(p.now.left)} → {shownNumber(p.left)} · {shownNumber(p.now.right)} →{' '}
                        {shownNumber(p.right)}
                      </span>
                      <span className="block truncate text-[11px] text-quiet">{glyph.name}</span>
                    </span>
                  </span>
                </Check>
              </li>
            );
          }),
        )}
      </ul>
    </div>
  );
}
