import { memo, useMemo, useState } from 'react';
import { MOST_SHOWN, type ShownRule } from '../../../core/features/shown';
import { glyphNamed } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { useDrawn } from '../../state/drawn';
import { GlyphShape } from '../../ui/GlyphShape';
import { reachOf } from '../../ui/reach';

/** So many rules are drawn until all are asked for. */
const FIRST = 14;
const SIZE = 34;

/** Rules in letters: what was, an arrow, what becomes; what stands around it lightly. */
export const RulesDrawn = memo(function RulesDrawn({ rules }: { rules: readonly ShownRule[] }) {
  const [all, setAll] = useState(false);
  const shown = all ? rules : rules.slice(0, FIRST);
  const project = useDrawn();
  const master = useBench((s) => s.master);
  const reach = useMemo(() => {
    const glyphs = shown.flatMap((r) => [...r.before, ...r.after]).flatMap((n) => glyphNamed(project, n) ?? []);
    return reachOf(project, master, glyphs.slice(0, 60));
  }, [shown, project, master]);
  if (rules.length === 0) return null;
  const letters = (names: readonly string[], look = '') =>
    names.map((n, i) => {
      const glyph = glyphNamed(project, n);
      return glyph ? (
        // biome-ignore lint/suspicious/noArrayIndexKey: letters of one rule keep their places.
        <span key={`${n} ${i}`} className={look} title={n}>
          <GlyphShape project={project} glyph={glyph} master={master} size={SIZE} reach={reach} />
        </span>
      ) : (
        // biome-ignore lint/suspicious/noArrayIndexKey: as above.
        <span key={`${n} ${i}`} className="text-[12px] text-brick">
          {n}
        </span>
      );
    });
  return (
    <ul
      aria-label="Rules in letters"
      className="mt-1 flex flex-wrap gap-1.5"
      // What lies out of sight is not laid out: there are hundreds of letters.
      style={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 44px' }}
    >
      {shown.map((r, i) => (
        <li
          // biome-ignore lint/suspicious/noArrayIndexKey: rules keep their order.
          key={i}
          title={told(r)}
          className="flex items-center rounded-lg border border-line bg-paper px-1"
        >
          <span className="sr-only">{told(r)}</span>
          {letters(r.back, 'opacity-40')}
          {letters(r.before)}
          {letters(r.ahead, 'opacity-40')}
          <span aria-hidden className="px-0.5 text-quiet">
            {r.kind === 'alone' ? '✕' : r.kind === 'move' ? '↔' : '→'}
          </span>
          {letters(r.after.slice(0, 4))}
          {r.language && <span className="pl-1 text-[12px] text-quiet">{r.language}</span>}
        </li>
      ))}
      {all && rules.length >= MOST_SHOWN && (
        <li className="self-center text-[13px] text-quiet">The rest stands in the text.</li>
      )}
      {rules.length > shown.length && (
        <li className="self-center">
          <button type="button" className="text-[13px] text-kelp underline" onClick={() => setAll(true)}>
            {rules.length < MOST_SHOWN ? rules.length - shown.length : 'many'} more
          </button>
        </li>
      )}
    </ul>
  );
});

function told(r: ShownRule): string {
  return r.language ? `${toldOf(r)}, language ${r.language}` : toldOf(r);
}

function toldOf(r: ShownRule): string {
  const pattern = [...r.back, ...r.before.map((n) => (r.back.length + r.ahead.length > 0 ? `${n}'` : n)), ...r.ahead];
  if (r.kind === 'alone') return `${pattern.join(' ')} is left alone`;
  if (r.kind === 'move') return `${pattern.join(' ')} moves`;
  return `${pattern.join(' ')} becomes ${r.after.join(r.kind === 'choose' ? ' or ' : ' ') || 'nothing'}`;
}
