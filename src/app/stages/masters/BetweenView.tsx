import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { drawingsAt } from '../../../core/project/drawingsAt';
import { plural } from '../../../core/project/edit';
import type { Drawing, Glyph, GlyphId, Master } from '../../../core/project/model';
import { pathData } from '../../../core/project/pathData';
import { type Place, placeInWords } from '../../../core/project/places';
import type { Broken } from '../../../core/variation/between';
import { drawnAt } from '../../../core/variation/glyphAt';
import { mendKinks } from '../../../core/variation/kinks';
import type { Lump } from '../../../core/variation/lumps';
import { chooseGlyph, run, useBench, visitPlace } from '../../state/bench';
import { runFar } from '../../state/far';
import { partBeside } from '../../state/parting';
import { useJob } from '../../state/useJob';
import { Bar } from '../../ui/controls';
import { Button } from '../../ui/parts';
import { GlyphList } from './GlyphList';
import { LetterAt } from './LetterAt';

/** One thing that goes wrong in a glyph between its masters, in words, and where. */
type Fault = { key: string; says: string; more: string; place: Place; at: { x: number; y: number } | undefined };

/** What is right in every master and wrong between, the worst first, each where it is worst. */
export function BetweenView() {
  const project = useBench((s) => s.settled)!;
  const { found, fault, share, start } = useJob<Broken[]>();
  const { glyphs, masters, axes, instances } = project;
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at anew for what it is about.
  useEffect(() => start((service, tell) => service.broken(tell)), [glyphs, masters, axes, instances]);
  const [chosen, setChosen] = useState<GlyphId>();
  const list = (found ?? []).filter((k) => project.glyphs[k.glyph]);
  const current = list.find((k) => k.glyph === chosen) ?? list[0];
  const mendable = list.filter((k) => k.kinks.some((x) => x.slide !== undefined));
  if (masters.length === 1) return <p className="p-5 text-quiet">One master has nothing between.</p>;
  return (
    <div className="flex h-full min-h-0 flex-col gap-3 p-4">
      <div className="flex items-center gap-3">
        <p role="status" className="flex-1" data-testid="between">
          {fault ?? (found === undefined ? 'Looking between the masters…' : summed(list))}
        </p>
        {share !== undefined && found === undefined && <Bar label="Looking between the masters" share={share} />}
        {mendable.length > 0 && (
          <Button
            kind="primary"
            title="Points slide along their tangents until they divide their handles alike in all masters"
            onClick={() =>
              void runFar(mendKinks, { glyphs: mendable.map((k) => k.glyph) }, { glyphs: mendable.length })
            }
          >
            Mend all that slide
          </Button>
        )}
      </div>
      {current && (
        <div className="flex min-h-0 flex-1 gap-4">
          <GlyphList
            list={list.map((k) => ({ glyph: k.glyph, says: saidOf(k) }))}
            current={current.glyph}
            onChoose={setChosen}
          />
          <Report key={current.glyph} glyph={project.glyphs[current.glyph]!} broken={current} />
        </div>
      )}
    </div>
  );
}

/** What was found, in a sentence. */
function summed(list: readonly Broken[]): string {
  const having = (what: 'kinks' | 'tangles' | 'lumps') => list.filter((b) => b[what].length > 0);
  const [kinked, tangled, lumped] = [having('kinks'), having('tangles'), having('lumps')];
  const said = [
    kinked.length > 0 ? `smooth points of ${plural(kinked.length, 'glyph')} break` : '',
    tangled.length > 0 ? `outlines of ${plural(tangled.length, 'glyph')} cross` : '',
    lumped.length > 0 ? `stems or counters of ${plural(lumped.length, 'glyph')} swell or close` : '',
  ].filter(Boolean);
  return said.length === 0
    ? 'Between the masters no smooth point breaks, no outlines cross, no stem swells and no counter closes.'
    : `Between the masters ${said.join(' and ')}.`;
}

const degrees = (v: number): string => `${v.toFixed(v < 10 ? 1 : 0)}°`;
const units = (v: number): string => `${v.toFixed(v < 10 ? 1 : 0)} units`;
const saidOf = ({ kinks, tangles, lumps }: Broken): string => {
  const all = kinks.length + tangles.length + lumps.length;
  const worst = tangles[0]
    ? `crosses, ${units(tangles[0].units)}`
    : lumps[0]
      ? `${lumpWord(lumps[0])}, ${units(Math.abs(lumps[0].units))}`
      : degrees(kinks[0]!.degrees);
  return `${worst}${all > 1 ? ` and ${all - 1} more` : ''}`;
};

const SIZE = 340;
/** Letters of the masters beneath, in pixels to the em. */
const SMALL = 54;
const PAD = 16;

const lumpWord = ({ of, units }: Lump): string => (of === 'white' ? 'closes' : units > 0 ? 'swells' : 'thins');

/** All that goes wrong with a glyph, outlines that cross first. */
function faultsOf(
  { kinks, tangles, lumps }: Broken,
  masters: readonly Master[],
  drawing: (place: Place) => Drawing | undefined,
): Fault[] {
  return [
    ...tangles.map(({ contours: [a, b], at, units: size, place }) => ({
      key: `crossing ${a} ${b}`,
      says:
        a === b
          ? `Contour ${a + 1} crosses itself, a loop of ${units(size)}`
          : `Contours ${a + 1} and ${b + 1} cross, over ${units(size)}`,
      more: 'look in Agreement, or draw it',
      place,
      at,
    })),
    ...lumps.map((l) => ({
      key: `lump ${l.of} ${l.units}`,
      says: `${l.of === 'ink' ? 'A stem' : 'A counter'} ${lumpWord(l)}: ${units(Math.abs(l.units))} ${l.units > 0 ? 'wider' : 'narrower'} than in ${l.between.map((i) => masters[i]?.name).join(' and ')}`,
      more: `${units(l.width)} wide; correct the drawing between`,
      place: l.place,
      at: l.at,
    })),
    ...kinks.map((k) => ({
      key: `kink ${k.contour} ${k.point}`,
      says: `Contour ${k.contour + 1} breaks: ${degrees(k.degrees)}, ${k.units.toFixed(1)} units off its line`,
      more: k.slide === undefined ? 'for the hand' : `slides ${k.slide.toFixed(1)} units at most`,
      place: k.place,
      at: drawing(k.place)?.contours[k.contour]?.points[k.point],
    })),
  ];
}

/** One glyph at the place where it is worst, with what goes wrong marked. */
function Report({ glyph, broken }: { glyph: Glyph; broken: Broken }) {
  const project = useBench((s) => s.settled)!;
  const navigate = useNavigate();
  const [chosen, setChosen] = useState(0);
  const [parting, setParting] = useState(false);
  const faults = useMemo(
    () => faultsOf(broken, project.masters, (place) => drawingsAt(project, place)(glyph.id)),
    [project, glyph, broken],
  );
  const at = Math.min(chosen, faults.length - 1);
  const { place } = faults[at]!;
  const letter = useMemo(() => drawnAt(project, glyph.id, place)!, [project, glyph, place]);
  // The galley shows the family there.
  useEffect(() => {
    visitPlace(place);
    return () => visitPlace(undefined);
  }, [place]);
  const scale = SIZE / (project.unitsPerEm * 1.1);
  const wide = Math.max(120, letter.advance * scale + 2 * PAD);
  return (
    <section
      aria-label={`What goes wrong with ${glyph.name}`}
      className="flex min-w-0 flex-1 flex-wrap content-start gap-4 overflow-y-auto"
    >
      <svg
        role="img"
        aria-label={`${glyph.name} at ${placeInWords(project.axes, place)}`}
        width={wide}
        height={SIZE}
        viewBox={`${-PAD} ${-SIZE * 0.76} ${wide} ${SIZE}`}
        className="rounded-lg border border-line bg-panel"
      >
        <path d={pathData(letter.contours)} transform={`scale(${scale} ${-scale})`} className="fill-ink" />
        {faults.map(
          (f, i) =>
            f.at && (
              <circle
                key={f.key}
                cx={f.at.x * scale}
                cy={-f.at.y * scale}
                r={9}
                fill="none"
                stroke={i === at ? 'var(--brick)' : 'var(--marigold)'}
                strokeWidth={2}
              />
            ),
        )}
      </svg>
      <div className="min-w-44 flex-1">
        <p className="mb-1 font-semibold">At {placeInWords(project.axes, place)}</p>
        <ol aria-label="What is wrong there" className="grid max-h-72 gap-1 overflow-y-auto">
          {faults.map((f, i) => (
            <li key={f.key}>
              <button
                type="button"
                aria-pressed={i === at}
                className={`rounded-md px-1.5 py-0.5 text-left ${i === at ? 'bg-kelp-tint' : 'hover:bg-paper'}`}
                onClick={() => setChosen(i)}
              >
                {f.says}
                <span className="text-quiet"> · {f.more}</span>
              </button>
            </li>
          ))}
        </ol>
        <div className="mt-3 flex flex-wrap gap-3" data-testid="between-masters">
          {project.masters.map((m) => {
            const drawn = drawnAt(project, glyph.id, m.place)!;
            const room = Math.max(40, (drawn.advance / project.unitsPerEm) * SMALL + 8);
            return (
              <figure key={m.id} className="grid justify-items-center">
                <svg width={room} height={SMALL * 1.3} role="img" aria-label={`${glyph.name} in ${m.name}`}>
                  <g transform={`translate(${room / 2} ${SMALL})`} className="fill-ink">
                    <LetterAt letter={drawn} em={project.unitsPerEm} size={SMALL} />
                  </g>
                </svg>
                <figcaption className="text-[12px] text-quiet">{m.name}</figcaption>
              </figure>
            );
          })}
        </div>
        <div className="mt-2 flex gap-2">
          {broken.tangles.some((x) => x.contours[0] === x.contours[1]) && (
            <Button
              title="Contours that cross themselves begin elsewhere, where their points agree as well"
              disabled={parting}
              onClick={() => {
                setParting(true);
                void partBeside([glyph.id]).finally(() => setParting(false));
              }}
            >
              {parting ? 'Parting…' : 'Part what crosses'}
            </Button>
          )}
          {broken.kinks.some((k) => k.slide !== undefined) && (
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
