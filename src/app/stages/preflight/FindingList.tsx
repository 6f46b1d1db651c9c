import { useVirtualizer } from '@tanstack/react-virtual';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useEffect, useMemo, useRef } from 'react';
import { counted } from '../../../core/base/notation';
import type { Finding } from '../../../core/preflight/finding';
import { kindOf } from '../../../core/preflight/kinds';
import { masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { Button } from '../../ui/parts';
import { MarkedLetter } from './MarkedLetter';
import { choose, type Group, sameFinding, setBench, usePreflightBench } from './preflightBench';
import { SeveritySign } from './signs';

type Row = { kind: string; count: number; mends: boolean } | { finding: Finding };

/** Findings in groups that fold: each a letter with its place marked, and a sentence. */
export function FindingList({ groups, current }: { groups: readonly Group[]; current: Finding | undefined }) {
  const folded = usePreflightBench((s) => s.folded);
  const rows = useMemo(
    () =>
      groups.flatMap(({ kind, findings }): Row[] => [
        {
          kind,
          count: findings.length,
          mends:
            !kindOf(kind)?.oneByOne &&
            findings.reduce((n, f) => n + (f.mendable ?? Math.min(1, f.mends.length)), 0) > 1,
        },
        ...(folded.has(kind) ? [] : findings.map((finding) => ({ finding }))),
      ]),
    [groups, folded],
  );
  const frame = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: (i) => ('finding' in rows[i]! ? 56 : 40),
    overscan: 8,
  });
  const at = rows.findIndex((r) => 'finding' in r && r.finding === current);
  useEffect(() => {
    if (at >= 0) list.scrollToIndex(at, { align: 'auto' });
  }, [at, list]);
  return (
    <div ref={frame} className="min-h-0 flex-1 overflow-y-auto" data-testid="findings">
      <div style={{ height: list.getTotalSize(), position: 'relative' }}>
        {list.getVirtualItems().map((item) => {
          const row = rows[item.index]!;
          return (
            <div
              key={item.key}
              ref={list.measureElement}
              data-index={item.index}
              className="absolute left-0 w-full"
              style={{ transform: `translateY(${item.start}px)` }}
            >
              {'finding' in row ? (
                <FindingRow finding={row.finding} current={sameFinding(row.finding, current)} />
              ) : (
                <Heading row={row} folded={folded.has(row.kind)} />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

function Heading({ row, folded }: { row: Extract<Row, { kind: string }>; folded: boolean }) {
  const facts = kindOf(row.kind)!;
  const showAccepted = usePreflightBench((s) => s.showAccepted);
  const fold = () => {
    const next = new Set(usePreflightBench.getState().folded);
    if (!next.delete(row.kind)) next.add(row.kind);
    setBench({ folded: next });
  };
  return (
    <div className="flex h-10 items-center gap-2 border-b border-line bg-paper pr-3 pl-2">
      <button
        type="button"
        aria-expanded={!folded}
        className="flex min-w-0 flex-1 items-center gap-2 text-left"
        onClick={fold}
      >
        {folded ? <ChevronRight size={15} /> : <ChevronDown size={15} />}
        <SeveritySign severity={facts.severity} />
        <span className="truncate font-semibold">{facts.title}</span>
        <span className="text-quiet">{counted(row.count)}</span>
      </button>
      {row.mends && !showAccepted && (
        <Button
          kind="quiet"
          title="Shows all letters before and after, first"
          onClick={() => setBench({ mendAll: row.kind })}
        >
          Mend all…
        </Button>
      )}
    </div>
  );
}

function FindingRow({ finding, current }: { finding: Finding; current: boolean }) {
  const project = useBench((s) => s.settled)!;
  const glyph = finding.glyph ? project.glyphs[finding.glyph] : undefined;
  const few = finding.masters.length > 0 && finding.masters.length < project.masters.length;
  const masters = few ? finding.masters.map((m) => masterOf(project, m)?.name ?? '').filter(Boolean) : [];
  return (
    <button
      type="button"
      aria-pressed={current}
      className={`flex w-full items-center gap-3 border-b border-line px-3 py-1.5 text-left ${current ? 'bg-kelp-tint' : 'hover:bg-panel'}`}
      onClick={(e) => {
        choose(finding);
        // Pressed by the pointer, it leaves the keys to the stage: arrows to step on, Enter to mend.
        if (e.detail > 0) e.currentTarget.blur();
      }}
    >
      <MarkedLetter finding={finding} size={42} />
      <span className="min-w-0 flex-1">
        <span className="line-clamp-2 leading-[18px]">{finding.reason}</span>
        <span className="block truncate text-[12.5px] text-quiet">
          {[
            glyph?.name,
            masters.length > 3
              ? `${masters.slice(0, 3).join(', ')} and ${masters.length - 3} more`
              : masters.join(', '),
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
      </span>
    </button>
  );
}
