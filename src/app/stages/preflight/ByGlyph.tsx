import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import { kindOf } from '../../../core/preflight/kinds';
import { plural } from '../../../core/project/edit';
import type { Glyph, Project } from '../../../core/project/model';
import { drawingOf, glyphsInOrder, isBlank, isEmptyDrawing } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { usePreflight } from '../../state/preflight';
import { Pick } from '../../ui/controls';
import { GlyphShape } from '../../ui/GlyphShape';
import { useWidth } from '../../ui/useWidth';
import { setBench } from './preflightBench';

type Which = 'all' | 'found' | 'clear' | 'undrawn' | 'done';
const WHICH: readonly { value: Which; text: string }[] = [
  { value: 'all', text: 'All glyphs' },
  { value: 'found', text: 'With findings' },
  { value: 'clear', text: 'Drawn, nothing found' },
  { value: 'undrawn', text: 'Not drawn' },
  { value: 'done', text: 'Called done' },
];
const CELL = 86;

/** Every glyph with how far it is and what was found in it. */
export function ByGlyph() {
  const project = useBench((s) => s.settled)!;
  const { byGlyph } = usePreflight();
  const [which, setWhich] = useState<Which>('all');
  const all = useMemo(() => glyphsInOrder(project), [project]);
  const undrawn = useMemo(() => new Set(all.filter((g) => isUndrawn(project, g)).map((g) => g.id)), [project, all]);
  const is = (g: Glyph, w: Which): boolean =>
    w === 'all' ||
    (w === 'found' && byGlyph.has(g.id)) ||
    (w === 'clear' && !byGlyph.has(g.id) && !undrawn.has(g.id)) ||
    (w === 'undrawn' && undrawn.has(g.id)) ||
    (w === 'done' && g.status === 'done');
  const shown = all.filter((g) => is(g, which));
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 800);
  const columns = Math.max(1, Math.floor((width - 24) / CELL));
  const rows = useVirtualizer({
    count: Math.ceil(shown.length / columns),
    getScrollElement: () => frame.current,
    estimateSize: () => 96,
    overscan: 4,
  });
  const many = (w: Which) => all.filter((g) => is(g, w)).length;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-3 px-4 py-2">
        <p className="min-w-0 flex-1" data-testid="by-glyph">
          {plural(all.length, 'glyph')}: {many('clear')} drawn with nothing found, {many('found')} with findings,{' '}
          {many('undrawn')} not drawn; {many('done')} called done.
        </p>
        <Pick label="Which glyphs" value={which} options={WHICH} onChange={setWhich} className="w-48" />
      </div>
      <div ref={frame} className="min-h-0 flex-1 overflow-y-auto px-3">
        <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {rows.getVirtualItems().map((row) => (
            <div
              key={row.key}
              className="absolute left-0 flex w-full"
              style={{ transform: `translateY(${row.start}px)`, height: row.size }}
            >
              {shown.slice(row.index * columns, (row.index + 1) * columns).map((g) => (
                <Cell key={g.id} glyph={g} />
              ))}
            </div>
          ))}
        </div>
      </div>
    </div>
  );
}

const isUndrawn = (project: Project, g: Glyph): boolean =>
  !isBlank(g) && project.masters.every((m) => isEmptyDrawing(drawingOf(g, m.id)));

function Cell({ glyph }: { glyph: Glyph }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const found = usePreflight((s) => s.byGlyph.get(glyph.id));
  const grave = found?.some((f) => kindOf(f.kind)?.severity === 'error');
  const shown = project.masters.some((m) => m.id === master) ? master : project.masters[0]!.id;
  return (
    <button
      type="button"
      title={`${glyph.name}${glyph.status === 'done' ? ', done' : glyph.status === 'sketched' ? ', sketched' : ''}${found ? `, ${plural(found.length, 'finding')}` : ''}`}
      disabled={!found}
      className="flex flex-col items-center justify-center rounded-lg hover:enabled:bg-kelp-tint"
      style={{ width: CELL }}
      onClick={() =>
        setBench({ view: 'findings', family: 'all', glyph: glyph.id, chosen: found![0], showAccepted: false })
      }
    >
      <GlyphShape project={project} glyph={glyph} master={shown} size={54} />
      <span className="flex max-w-full items-center gap-1 px-1 text-[12px] text-quiet">
        <span className="truncate">{glyph.name}</span>
        {glyph.status === 'done' && <span className="text-kelp">✓</span>}
        {found && <span className={`font-semibold ${grave ? 'text-brick' : 'text-marigold'}`}>{found.length}</span>}
      </span>
    </button>
  );
}
