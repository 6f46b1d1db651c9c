import { Minus, Plus } from 'lucide-react';
import { type UIEvent, useState } from 'react';
import type { Glyph, GlyphId, MasterId, Project } from '../../core/project/model';
import { drawingPath } from '../../core/project/pathData';
import { drawingOf } from '../../core/project/queries';
import type { Reweighed } from '../../core/reweighting/many';
import { IconButton } from '../ui/parts';
import { reachOf } from '../ui/reach';

/** How many letters are worked out and shown at first, and added by scrolling. */
export const AT_ONCE = 40;
/** By how much one press makes a letter heavier or lighter than the others, in font units of an em of 1,000. */
const OWN_STEP = 2;

type Props = {
  project: Project;
  master: MasterId;
  glyphs: readonly Glyph[];
  made: ReadonlyMap<GlyphId, Reweighed>;
  left: ReadonlySet<GlyphId>;
  own: Readonly<Record<GlyphId, number>>;
  total: number;
  onLeave: (id: GlyphId) => void;
  onOwn: (id: GlyphId, by: number) => void;
  onMore: () => void;
};

/** Letters as they would be over what they were; each may be left out, or made heavier or lighter than the others. */
export function Letters({ project, master, glyphs, made, left, own, total, onLeave, onOwn, onMore }: Props) {
  const height = reachOf(project, master, glyphs);
  const more = ({ currentTarget: box }: UIEvent<HTMLElement>) => {
    if (box.scrollTop + box.clientHeight > box.scrollHeight - 80 && glyphs.length < total) onMore();
  };
  return (
    <ul
      aria-label="Letters as they would be"
      onScroll={more}
      className="grid min-h-0 flex-1 grid-cols-[repeat(auto-fill,minmax(96px,1fr))] content-start gap-1.5 overflow-auto"
    >
      {glyphs.map((glyph) => (
        <Letter
          key={glyph.id}
          {...{ project, master, glyph, height, left: left.has(glyph.id), own: own[glyph.id] ?? 0 }}
          made={made.get(glyph.id)}
          onLeave={() => onLeave(glyph.id)}
          onOwn={(sign) => onOwn(glyph.id, (sign * OWN_STEP * project.unitsPerEm) / 1000)}
        />
      ))}
    </ul>
  );
}

function Letter({
  project,
  master,
  glyph,
  height: { top, bottom },
  made,
  left,
  own,
  onLeave,
  onOwn,
}: {
  project: Project;
  master: MasterId;
  glyph: Glyph;
  height: { top: number; bottom: number };
  made: Reweighed | undefined;
  left: boolean;
  own: number;
  onLeave: () => void;
  onOwn: (sign: 1 | -1) => void;
}) {
  const [near, setNear] = useState(false);
  const before = drawingOf(glyph, master);
  const after = made && !left ? made.drawing : before;
  const high = top - bottom;
  const wide = Math.max(high, Math.max(before.advance, after.advance) * 1.05);
  return (
    <li
      className={`relative rounded-lg border ${left ? 'border-line' : 'border-edge'}`}
      onPointerEnter={() => setNear(true)}
      onPointerLeave={() => setNear(false)}
    >
      <button
        type="button"
        aria-pressed={!left}
        data-testid="reweighed"
        title={left ? `${glyph.name} stays as it is; press to change it too` : `Press to leave ${glyph.name} as it is`}
        onClick={onLeave}
        className={`flex w-full flex-col items-center p-1 ${left ? 'opacity-40' : ''}`}
      >
        <svg aria-hidden width="84" height="84" viewBox={`${after.advance / 2 - wide / 2} ${-top} ${wide} ${high}`}>
          <g transform="scale(1 -1)">
            <path d={drawingPath(project, master, after)} fill="currentColor" />
            <path
              d={drawingPath(project, master, before)}
              transform={`translate(${(after.advance - before.advance) / 2} 0)`}
              className="fill-none stroke-marigold"
              strokeWidth={high / 84}
              opacity={near ? 1 : 0}
            />
            {!left &&
              made?.eased.map((e) => (
                <circle
                  key={`${e.at[0]} ${e.at[1]}`}
                  cx={e.at[0]}
                  cy={e.at[1]}
                  r={high / 26}
                  className="fill-none stroke-brick"
                  strokeWidth={high / 60}
                />
              ))}
          </g>
        </svg>
        <span className="w-full truncate text-center text-[11px] text-quiet">
          {glyph.name}
          {own !== 0 && ` ${own > 0 ? '+' : '−'}${Math.abs(Math.round(own))}`}
        </span>
      </button>
      {!left && (
        <span
          className={`absolute top-0.5 right-0.5 flex ${near || own !== 0 ? '' : 'opacity-0 focus-within:opacity-100'}`}
        >
          <IconButton label={`${glyph.name} lighter than the others`} className={SMALL} onClick={() => onOwn(-1)}>
            <Minus size={11} />
          </IconButton>
          <IconButton label={`${glyph.name} heavier than the others`} className={SMALL} onClick={() => onOwn(1)}>
            <Plus size={11} />
          </IconButton>
        </span>
      )}
    </li>
  );
}

const SMALL = 'rounded p-0.5 text-quiet hover:bg-kelp-tint';
