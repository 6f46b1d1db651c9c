import { Trash2 } from 'lucide-react';
import { addGuide, guideThrough, moveGuideTo, removeGuide, setGuide } from '../../../../core/drawing/guides';
import { type PointKey, pointOf } from '../../../../core/drawing/points';
import type { Drawing, Guide } from '../../../../core/project/model';
import { masterOf } from '../../../../core/project/queries';
import { run, useBench } from '../../../state/bench';
import { Button, NumberField, Section } from '../../../ui/parts';
import { place } from './place';

/** Guide lines of this glyph and of the whole master. */
export function GuideSection({ drawing, keys }: { drawing: Drawing; keys: readonly PointKey[] }) {
  const at = place();
  const master = useBench((s) => masterOf(s.settled!, s.master))!;
  const points = keys.flatMap((k) => pointOf(drawing, k) ?? []);
  const [a, b] = points;
  const through = points.length === 2 && a && b ? guideThrough(a.x, a.y, b.x, b.y) : undefined;
  const add = (guide: Guide) => run((p) => addGuide(p, { at, whole: false, guide }));
  const from = a ?? { x: Math.round(drawing.advance / 2), y: Math.round(master.zones.xHeight.position / 2) };
  return (
    <Section title="Guides">
      <div className="mb-2 flex flex-wrap gap-1.5">
        <Button
          title={a ? 'Level, through the chosen point' : 'Level'}
          onClick={() => add({ x: 0, y: from.y, angle: 0 })}
        >
          Level
        </Button>
        <Button
          title={a ? 'Upright, through the chosen point' : 'Upright'}
          onClick={() => add({ x: from.x, y: 0, angle: 90 })}
        >
          Upright
        </Button>
        <Button disabled={!through} title="Choose two points" onClick={() => through && add(through)}>
          Through two points
        </Button>
      </div>
      {drawing.guides.length + master.guides.length === 0 && (
        <p className="text-quiet">Points catch on guides, as on the lines of the metrics.</p>
      )}
      {([false, true] as const).map((whole) => {
        const guides = whole ? master.guides : drawing.guides;
        return (
          guides.length > 0 && (
            <div key={String(whole)} className="mb-2">
              <p className="mb-1 text-[12.5px] text-quiet">{whole ? `In all of ${master.name}` : 'In this glyph'}</p>
              {guides.map((g, index) => {
                const level = g.angle % 180 === 0;
                const change = (c: Partial<Guide>) => run((p) => setGuide(p, { at, whole, index, change: c }));
                return (
                  <div
                    // biome-ignore lint/suspicious/noArrayIndexKey: a guide is its place in the list.
                    key={index}
                    data-testid="guide"
                    className="mb-1.5 grid grid-cols-[1fr_1fr_auto_auto] items-center gap-1.5"
                  >
                    <NumberField
                      hideLabel
                      label={`Guide ${index + 1}, ${level ? 'height' : 'x'}`}
                      value={level ? g.y : g.x}
                      onChange={(v) => change(level ? { y: v } : { x: v })}
                    />
                    <NumberField
                      hideLabel
                      label={`Guide ${index + 1}, angle`}
                      value={g.angle}
                      onChange={(angle) => change({ angle })}
                    />
                    <button
                      type="button"
                      className="text-[12.5px] text-kelp"
                      title={whole ? 'Only in this glyph' : 'In every glyph of this master'}
                      onClick={() => run((p) => moveGuideTo(p, { at, index, toWhole: !whole }))}
                    >
                      {whole ? 'here only' : 'all'}
                    </button>
                    <button
                      type="button"
                      aria-label={`Take guide ${index + 1} away`}
                      className="rounded p-1 text-quiet hover:bg-kelp-tint"
                      onClick={() => run((p) => removeGuide(p, { at, whole, index }))}
                    >
                      <Trash2 size={14} />
                    </button>
                  </div>
                );
              })}
            </div>
          )
        );
      })}
    </Section>
  );
}
