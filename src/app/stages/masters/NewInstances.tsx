import { type PointerEvent, useMemo, useRef, useState } from 'react';
import type { Project } from '../../../core/project/model';
import { designEnds, samePlace } from '../../../core/project/places';
import { glyphForCodePoint } from '../../../core/project/queries';
import { addInstances } from '../../../core/variation/familyEdits';
import { bentShare, hasWeight, MOST_BEND, spacedRow, stemAt, weightRow } from '../../../core/variation/instanceRows';
import { run, useBench } from '../../state/bench';
import { Pick } from '../../ui/controls';
import { Button, Section } from '../../ui/parts';

/** What the master is called that stands at a place. */
const calledAt = (project: Project, place: Readonly<Record<string, number>>): string | undefined =>
  project.masters.find((m) => samePlace(project.axes, m.place, place))?.name;

type Spacing = 'numbers' | 'stems' | 'curve';
const WIDE = 220;
const HIGH = 96;
const EDGE = 8;

/** Instances along the weight, for each place of the other axes that masters stand at: by their numbers, or by their stems. */
export function NewInstances() {
  const project = useBench((s) => s.settled)!;
  const [spacing, setSpacing] = useState<Spacing>('numbers');
  const [bend, setBend] = useState(-0.3);
  const glyph = glyphForCodePoint(project, 0x6e)?.id ?? glyphForCodePoint(project, 0x48)?.id;
  const rows = useMemo(() => {
    const others = project.axes.filter((a) => a.tag !== 'wght');
    const places = [
      { name: '', place: {} },
      ...others.flatMap((a) =>
        [...new Set(project.masters.flatMap((m) => m.place[a.tag] ?? []))]
          .filter((v) => v !== designEnds(a).usual)
          .map((v) => ({ name: calledAt(project, { [a.tag]: v }) ?? `${a.name} ${v}`, place: { [a.tag]: v } })),
      ),
    ];
    return places.map(({ name, place }) => {
      const usual = weightRow(project, place, name);
      const byStem = spacing !== 'numbers' && glyph !== undefined;
      return { name, row: byStem ? spacedRow(project, usual, glyph, spacing === 'curve' ? bend : 0) : usual };
    });
  }, [project, spacing, bend, glyph]);
  if (!hasWeight(project)) return null;
  const main = rows[0]!.row;
  return (
    <Section title="Instances by weight">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
        <Pick
          label="How weights are spaced"
          value={spacing}
          options={[
            { value: 'numbers' as Spacing, text: 'by the usual numbers' },
            { value: 'stems' as Spacing, text: 'stems by even steps' },
            { value: 'curve' as Spacing, text: 'stems by a curve' },
          ]}
          onChange={setSpacing}
        />
        {spacing === 'curve' && <Bend bend={bend} steps={main.length} onChange={setBend} />}
        {glyph && (
          <table aria-label="Stems of the instances" className="text-[12.5px]">
            <tbody>
              {main.map((i) => (
                <tr key={i.name}>
                  <td>{i.name}</td>
                  <td className="text-right tabular-nums text-quiet">{i.place.wght}</td>
                  <td className="text-right tabular-nums text-quiet">
                    stem {Math.round(stemAt(project, glyph, i.place) ?? 0)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <div className="flex flex-wrap gap-1.5">
          {rows.map(({ name, row }) => (
            <Button
              key={name}
              title={row.map((i) => i.name).join(', ')}
              onClick={() => run((p) => addInstances(p, { instances: row }))}
            >
              {name ? `Add ${name}` : 'Add all weights'}
            </Button>
          ))}
        </div>
      </div>
    </Section>
  );
}

/** The curve by which stems grow over the steps, dragged up or down, or moved by the arrow keys. */
function Bend({ bend, steps, onChange }: { bend: number; steps: number; onChange: (bend: number) => void }) {
  const sheet = useRef<HTMLDivElement>(null);
  const held = useRef(false);
  const x = (share: number) => EDGE + share * (WIDE - 2 * EDGE);
  const y = (share: number) => HIGH - EDGE - share * (HIGH - 2 * EDGE);
  const line = Array.from({ length: 33 }, (_, i) => `${x(i / 32)},${y(bentShare(i / 32, bend))}`).join(' ');
  const set = (to: number) => onChange(Math.max(-MOST_BEND, Math.min(MOST_BEND, Math.round(to * 100) / 100)));
  const follow = (e: PointerEvent) => {
    const box = sheet.current!.getBoundingClientRect();
    const share = 1 - (((e.clientY - box.top) / box.height) * HIGH - EDGE) / (HIGH - 2 * EDGE);
    // In the middle the curve lies a quarter of its bend off the straight line.
    set((share - 0.5) * 4);
  };
  return (
    <div
      ref={sheet}
      className="w-full touch-none cursor-ns-resize rounded-lg border border-line bg-paper outline-none focus-visible:border-kelp"
      role="slider"
      tabIndex={0}
      aria-label="How stems grow over the steps"
      aria-valuenow={bend}
      aria-valuemin={-MOST_BEND}
      aria-valuemax={MOST_BEND}
      onPointerDown={(e) => {
        held.current = true;
        e.currentTarget.setPointerCapture(e.pointerId);
        follow(e);
      }}
      onPointerMove={(e) => held.current && follow(e)}
      onPointerUp={() => {
        held.current = false;
      }}
      onPointerCancel={() => {
        held.current = false;
      }}
      onKeyDown={(e) => {
        const by = e.key === 'ArrowUp' ? 0.05 : e.key === 'ArrowDown' ? -0.05 : 0;
        if (by === 0) return;
        e.preventDefault();
        e.stopPropagation();
        set(bend + by);
      }}
    >
      <svg viewBox={`0 0 ${WIDE} ${HIGH}`} className="block" aria-hidden="true">
        <line x1={x(0)} y1={y(0)} x2={x(1)} y2={y(1)} stroke="var(--line)" />
        <polyline points={line} fill="none" stroke="var(--violet)" strokeWidth={1.5} />
        {Array.from({ length: steps }, (_, i) => {
          const share = i / Math.max(1, steps - 1);
          // biome-ignore lint/suspicious/noArrayIndexKey: steps keep their places.
          return <circle key={i} cx={x(share)} cy={y(bentShare(share, bend))} r={3} className="fill-violet" />;
        })}
      </svg>
    </div>
  );
}
