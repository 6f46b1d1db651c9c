import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { plural } from '../../../core/project/edit';
import type { Glyph, GlyphId } from '../../../core/project/model';
import { pathData } from '../../../core/project/pathData';
import { drawingsAt, glyphAt } from '../../../core/variation/glyphAt';
import { type Kink, mendKinks } from '../../../core/variation/kinks';
import { placeInWords } from '../../../core/variation/places';
import { chooseGlyph, run, useBench, visitPlace } from '../../state/bench';
import { useJob } from '../../state/useJob';
import { Bar } from '../../ui/controls';
import { Button } from '../../ui/parts';
import { GlyphList } from './GlyphList';

type Kinked = readonly { glyph: GlyphId; kinks: readonly Kink[] }[];

/** Smooth points that break between masters, the worst first, each where it is worst. */
export function KinksView() {
  const project = useBench((s) => s.settled)!;
  const { found, fault, share, start } = useJob<Kinked>();
  const { glyphs, masters, axes, instances } = project;
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at anew for what it is about.
  useEffect(() => start((service, tell) => service.kinked(tell)), [glyphs, masters, axes, instances]);
  const [chosen, setChosen] = useState<GlyphId>();
  const list = (found ?? []).filter((k) => project.glyphs[k.glyph]);
  const current = list.find((k) => k.glyph === chosen) ?? list[0];
  const mendable = list.filter((k) => k.kinks.some((x) => x.slide !== undefined));
  if (masters.length === 1) return <p className="p-5 text-quiet">One master has nothing between.</p>;
  return (
    <div className="flex h-full min-h-0 flex-col gap-3 p-4">
      <div className="flex items-center gap-3">
        <p role="status" className="flex-1" data-testid="kinks">
          {fault ??
            (found === undefined
              ? 'Looking between the masters…'
              : list.length === 0
                ? 'No smooth point breaks between the masters.'
                : `Smooth points of ${plural(list.length, 'glyph')} break between the masters.`)}
        </p>
        {share !== undefined && found === undefined && <Bar label="Looking between the masters" share={share} />}
        {mendable.length > 0 && (
          <Button
            kind="primary"
            title="Points slide along their tangents until they divide their handles alike in all masters"
            onClick={() => run((p) => mendKinks(p, { glyphs: mendable.map((k) => k.glyph) }))}
          >
            Mend all that slide
          </Button>
        )}
      </div>
      {current && (
        <div className="flex min-h-0 flex-1 gap-4">
          <GlyphList
            list={list.map((k) => ({ glyph: k.glyph, says: saidOf(k.kinks) }))}
            current={current.glyph}
            onChoose={setChosen}
          />
          <Report key={current.glyph} glyph={project.glyphs[current.glyph]!} kinks={current.kinks} />
        </div>
      )}
    </div>
  );
}

const degrees = (v: number): string => `${v.toFixed(v < 10 ? 1 : 0)}°`;
const saidOf = (kinks: readonly Kink[]): string =>
  `${degrees(kinks[0]!.degrees)}${kinks.length > 1 ? ` and ${kinks.length - 1} more` : ''}`;

const SIZE = 250;
const PAD = 16;

/** One glyph at the place where its worst kink is, with all of them marked. */
function Report({ glyph, kinks }: { glyph: Glyph; kinks: readonly Kink[] }) {
  const project = useBench((s) => s.settled)!;
  const navigate = useNavigate();
  const [at, setAt] = useState(0);
  const kink = kinks[Math.min(at, kinks.length - 1)]!;
  const { letter, drawing } = useMemo(
    () => ({ letter: glyphAt(project, glyph.id, kink.place)!, drawing: drawingsAt(project, kink.place)(glyph.id)! }),
    [project, glyph, kink],
  );
  // The galley shows the family there.
  useEffect(() => {
    visitPlace(kink.place);
    return () => visitPlace(undefined);
  }, [kink]);
  const scale = SIZE / (project.unitsPerEm * 1.1);
  const wide = Math.max(120, letter.advance * scale + 2 * PAD);
  return (
    <section
      aria-label={`Kinks of ${glyph.name}`}
      className="flex min-w-0 flex-1 flex-wrap content-start gap-4 overflow-y-auto"
    >
      <svg
        role="img"
        aria-label={`${glyph.name} at ${placeInWords(project.axes, kink.place)}`}
        width={wide}
        height={SIZE}
        viewBox={`${-PAD} ${-SIZE * 0.76} ${wide} ${SIZE}`}
        className="rounded-lg border border-line bg-panel"
      >
        <path d={pathData(letter.contours)} transform={`scale(${scale} ${-scale})`} className="fill-ink" />
        {kinks.map((k, i) => {
          const p = drawing.contours[k.contour]?.points[k.point];
          return p ? (
            <circle
              key={`${k.contour} ${k.point}`}
              cx={p.x * scale}
              cy={-p.y * scale}
              r={9}
              fill="none"
              stroke={i === at ? 'var(--brick)' : 'var(--marigold)'}
              strokeWidth={2}
            />
          ) : null;
        })}
      </svg>
      <div className="min-w-56 flex-1">
        <p className="mb-1 font-semibold">At {placeInWords(project.axes, kink.place)}</p>
        <ol className="grid gap-1">
          {kinks.slice(0, 12).map((k, i) => (
            <li key={`${k.contour} ${k.point}`}>
              <button
                type="button"
                aria-pressed={i === at}
                className={`rounded-md px-1.5 py-0.5 text-left ${i === at ? 'bg-kelp-tint' : 'hover:bg-paper'}`}
                onClick={() => setAt(i)}
              >
                Contour {k.contour + 1}: {degrees(k.degrees)}, {k.units.toFixed(1)} units off its line
                <span className="text-quiet">
                  {k.slide === undefined ? ' · for the hand' : ` · slides ${k.slide.toFixed(1)} units at most`}
                </span>
              </button>
            </li>
          ))}
          {kinks.length > 12 && <li className="text-quiet">and {kinks.length - 12} more.</li>}
        </ol>
        <div className="mt-2 flex gap-2">
          {kinks.some((k) => k.slide !== undefined) && (
            <Button kind="primary" onClick={() => run((p) => mendKinks(p, { glyphs: [glyph.id] }))}>
              Mend {glyph.name}
            </Button>
          )}
          <Button
            onClick={() => {
              chooseGlyph(glyph.id);
              void navigate(`../draw?glyph=${encodeURIComponent(glyph.name)}`, { relative: 'path' });
            }}
          >
            Draw it
          </Button>
        </div>
      </div>
    </section>
  );
}
