import { memo } from 'react';
import type { ComposedCell, ComposedState } from '../../../core/composing/view';
import type { Glyph, MasterId, Project } from '../../../core/project/model';
import { GlyphShape } from '../../ui/GlyphShape';
import type { Reach } from '../../ui/reach';

export const STATES: Readonly<Record<ComposedState, { one: string; many: string; looks: string }>> = {
  can: { one: 'can be built', many: 'can be built', looks: 'border-dashed border-kelp text-kelp' },
  built: { one: 'is built', many: 'are built', looks: 'border-line text-ink' },
  hand: { one: 'is drawn by hand', many: 'are drawn by hand', looks: 'border-marigold text-ink' },
  not: { one: 'is not possible yet', many: 'are not possible yet', looks: 'border-line text-quiet' },
};

/** What is said of a letter where it is pointed at. */
export function toldOf(c: ComposedCell): string {
  const what = c.code >= 0 ? String.fromCodePoint(c.code) : c.name;
  const out = c.out ? '; its marks stand out of it' : '';
  const other = c.differs ? '; not as its recipe would have it' : '';
  return `${what} ${STATES[c.state].one}${c.why ? `: ${c.why}` : ''}${other}${out}`;
}

type Props = {
  cell: ComposedCell;
  project: Project;
  master: MasterId;
  glyph: Glyph | undefined;
  reach: Reach;
  size: number;
  chosen: boolean;
  onPick: (cell: ComposedCell, how: 'only' | 'also' | 'range') => void;
  onOpen: (cell: ComposedCell) => void;
};

/** A letter as it is, or lightly as it would be; a corner tells of marks that stand out, or of another drawing than the recipe’s. */
export const Cell = memo(function Cell({
  cell: c,
  project,
  master,
  glyph,
  reach,
  size,
  chosen,
  onPick,
  onOpen,
}: Props) {
  const told = toldOf(c);
  return (
    <button
      type="button"
      tabIndex={-1}
      title={told}
      aria-label={told}
      aria-pressed={chosen}
      data-testid="composed"
      data-state={c.state}
      onClick={(e) => onPick(c, e.shiftKey ? 'range' : e.ctrlKey || e.metaKey ? 'also' : 'only')}
      onDoubleClick={() => onOpen(c)}
      className={`relative flex shrink-0 items-center justify-center overflow-hidden rounded-lg border ${chosen ? 'border-kelp bg-kelp-tint ring-1 ring-kelp' : `bg-panel ${STATES[c.state].looks}`}`}
      style={{ width: size, height: size }}
    >
      {c.state === 'can' && c.preview ? (
        <Shape preview={c.preview} reach={reach} size={size - 6} />
      ) : glyph && c.state !== 'not' ? (
        <GlyphShape project={project} glyph={glyph} master={master} size={size - 6} reach={reach} />
      ) : (
        <span style={{ fontSize: c.code >= 0 ? size * 0.4 : 10 }}>
          {c.code >= 0 ? String.fromCodePoint(c.code) : c.name}
        </span>
      )}
      {(c.out || c.differs) && (
        <span
          aria-hidden
          className={`absolute top-0.5 right-0.5 text-[12px] leading-none ${c.out ? 'text-brick' : 'text-marigold'}`}
        >
          {c.out ? '↔' : '≠'}
        </span>
      )}
    </button>
  );
});

/** A letter by its recipe, in the scale of its neighbours. */
export function Shape({
  preview,
  reach,
  size,
}: {
  preview: NonNullable<ComposedCell['preview']>;
  reach: Reach;
  size: number;
}) {
  const height = reach.top - reach.bottom;
  const width = Math.max(height, preview.advance * 1.05);
  return (
    <svg
      aria-hidden
      width={size}
      height={size}
      viewBox={`${preview.advance / 2 - width / 2} ${-reach.top} ${width} ${height}`}
    >
      <path d={preview.path} transform="scale(1 -1)" fill="currentColor" />
    </svg>
  );
}
