import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import type { RuleShown } from '../../../core/features/automatic';
import { takeForms } from '../../../core/features/edits';
import { glyphNamed } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';
import { useDrawn } from '../../state/drawn';
import { GlyphShape } from '../../ui/GlyphShape';
import { Button } from '../../ui/parts';
import { reachOf } from '../../ui/reach';

const SIZE = 34;

/** Which glyphs take part in a section that writes itself: each form pressed in or out. */
export const FormsTaken = memo(function FormsTaken({ id, forms }: { id: string; forms: readonly RuleShown[] }) {
  const [isOpen, setOpen] = useState(false);
  const taken = forms.filter((f) => !f.isOut).length;
  if (forms.length === 0) return null;
  return (
    <div className="mt-1 text-[13px]">
      <button
        type="button"
        aria-expanded={isOpen}
        className="inline-flex items-center gap-1 text-kelp"
        onClick={() => setOpen(!isOpen)}
      >
        {isOpen ? <ChevronDown size={14} /> : <ChevronRight size={14} />} Which glyphs take part:{' '}
        {taken === forms.length ? `all ${taken}` : `${taken} of ${forms.length}`}
      </button>
      {isOpen && <Forms id={id} forms={forms} taken={taken} />}
    </div>
  );
});

function Forms({ id, forms, taken }: { id: string; forms: readonly RuleShown[]; taken: number }) {
  const project = useDrawn();
  const master = useBench((s) => s.master);
  const glyphs = useMemo(
    () => new Map(forms.flatMap((f) => [...f.before, ...f.after]).map((n) => [n, glyphNamed(project, n)] as const)),
    [forms, project],
  );
  const reach = useMemo(
    () => reachOf(project, master, [...glyphs.values()].flatMap((g) => g ?? []).slice(0, 60)),
    [glyphs, project, master],
  );
  const take = (named: readonly RuleShown[], on: boolean) =>
    run((p) => takeForms(p, { id, forms: named.flatMap((f) => f.after), take: on }));
  const letter = (name: string) => {
    const glyph = glyphs.get(name);
    return glyph ? (
      <GlyphShape key={name} project={project} glyph={glyph} master={master} size={SIZE} reach={reach} />
    ) : null;
  };
  return (
    <>
      <ul aria-label="Glyphs that take part" className="mt-1 flex max-h-56 flex-wrap gap-1.5 overflow-y-auto">
        {forms.map((f, i) => {
          const form = f.after[0]!;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: forms keep their places.
            <li key={`${form} ${i}`}>
              <button
                type="button"
                aria-pressed={!f.isOut}
                title={f.isOut ? `${form} is left out; press to let it take part` : `${form}; press to leave it out`}
                className={`flex items-center rounded-lg border px-1 ${f.isOut ? 'border-dashed border-line' : 'border-kelp bg-paper'}`}
                onClick={() => take([f], !!f.isOut)}
              >
                <span className="sr-only">{form}</span>
                <span aria-hidden className={`flex items-center ${f.isOut ? 'opacity-40' : ''}`}>
                  {f.before.map(letter)}
                  {f.before[0] !== form && <span className="px-0.5 text-quiet">→</span>}
                  {f.before[0] !== form && letter(form)}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      <div className="mt-1.5 flex gap-2">
        <Button disabled={taken === forms.length} onClick={() => take(forms, true)}>
          All take part
        </Button>
        <Button disabled={taken === 0} onClick={() => take(forms, false)}>
          None
        </Button>
      </div>
    </>
  );
}
