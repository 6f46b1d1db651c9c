import type { GlyphId } from '../../../core/project/model';
import { useBench } from '../../state/bench';
import { GlyphShape } from '../../ui/GlyphShape';

/** Glyphs that something was found in, each with a word on it, to be chosen. */
export function GlyphList({
  list,
  current,
  onChoose,
}: {
  list: readonly { glyph: GlyphId; says: string }[];
  current: GlyphId;
  onChoose: (glyph: GlyphId) => void;
}) {
  const project = useBench((s) => s.settled)!;
  return (
    <ol aria-label="Glyphs" className="w-52 shrink-0 overflow-y-auto rounded-xl border border-line bg-panel p-1.5">
      {list.map(({ glyph: id, says }) => {
        const glyph = project.glyphs[id]!;
        return (
          <li key={id} style={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 42px' }}>
            <button
              type="button"
              aria-pressed={id === current}
              onClick={() => onChoose(id)}
              className={`flex w-full items-center gap-2 rounded-lg px-1.5 py-1 text-left ${id === current ? 'bg-kelp-tint' : 'hover:bg-paper'}`}
            >
              <GlyphShape project={project} glyph={glyph} master={project.masters[0]!.id} size={34} />
              <span className="min-w-0 flex-1">
                <span className="block truncate">{glyph.name}</span>
                <span className="block truncate text-[12px] text-quiet">{says}</span>
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}
