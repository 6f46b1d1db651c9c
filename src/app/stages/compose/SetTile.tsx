import { glyphOf, type ItemState } from '../../../core/deriving/derive';
import type { SetItem } from '../../../core/deriving/view';
import type { MasterId, Project } from '../../../core/project/model';
import { characterOf, GlyphShape } from '../../ui/GlyphShape';
import type { Reach } from '../../ui/reach';
import { Shape } from './Cell';

/** What is said of a glyph of a set, and how it looks. */
export const ITEM_STATES: Readonly<Record<ItemState, { says: string; looks: string; sign?: string }>> = {
  can: { says: 'can be made', looks: 'border-dashed border-kelp text-kelp' },
  made: { says: 'was made by this set', looks: 'border-line text-ink' },
  changed: { says: 'comes from letters that have changed since', looks: 'border-kelp text-ink', sign: '↻' },
  corrected: { says: 'was made by this set and corrected by hand', looks: 'border-marigold text-ink' },
  drawn: { says: 'is drawn', looks: 'border-line text-ink' },
  hand: { says: 'is left for you to draw', looks: 'border-dashed border-line text-quiet', sign: '✎' },
  lacks: { says: 'cannot be made yet', looks: 'border-line text-quiet' },
};

/** A glyph of a set as it is, or lightly as it would be. */
export function SetTile({
  item,
  project,
  master,
  reach,
  chosen,
  onPick,
  onOpen,
}: {
  item: SetItem;
  project: Project;
  master: MasterId;
  reach: Reach;
  chosen: boolean;
  onPick: (also: boolean) => void;
  onOpen: () => void;
}) {
  const { says, looks, sign } = ITEM_STATES[item.state];
  const told = `${item.name} ${says}${item.why ? `: ${item.why}` : ''}`;
  const glyph = glyphOf(project, item);
  return (
    <li>
      <button
        type="button"
        title={told}
        aria-label={told}
        aria-pressed={chosen}
        data-testid="set-item"
        data-state={item.state}
        onClick={(e) => onPick(e.shiftKey || e.ctrlKey || e.metaKey)}
        onDoubleClick={onOpen}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return;
          e.preventDefault();
          onOpen();
        }}
        className={`relative flex w-full flex-col items-center overflow-hidden rounded-lg border p-1 ${chosen ? 'border-kelp bg-kelp-tint ring-1 ring-kelp' : `bg-panel ${looks}`}`}
      >
        {item.state === 'can' && item.draft ? (
          <Shape preview={item.draft} reach={reach} size={58} />
        ) : glyph && item.state !== 'can' && item.state !== 'lacks' && item.state !== 'hand' ? (
          <GlyphShape project={project} glyph={glyph} master={master} size={58} reach={reach} />
        ) : (
          <span className="flex size-[58px] items-center justify-center text-[22px] opacity-60">
            {characterOf(item) || '·'}
          </span>
        )}
        <span className="w-full truncate text-center text-[11px] text-quiet">{item.name}</span>
        {sign && (
          <span aria-hidden className="absolute top-0.5 right-1 text-[12px] text-kelp">
            {sign}
          </span>
        )}
      </button>
    </li>
  );
}
