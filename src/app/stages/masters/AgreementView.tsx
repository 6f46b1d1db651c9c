import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { counted } from '../../../core/base/notation';
import { isOnCurve } from '../../../core/geometry/contour';
import { plural } from '../../../core/project/edit';
import type { Glyph, GlyphId, Project } from '../../../core/project/model';
import { drawingsOf, flattened } from '../../../core/project/outline';
import { pathData } from '../../../core/project/pathData';
import { type Place, wholePlace } from '../../../core/project/places';
import { drawingOf } from '../../../core/project/queries';
import { waypointId } from '../../../core/project/waypoints';
import type { AgreementFault } from '../../../core/variation/agreement';
import { drawnAt } from '../../../core/variation/glyphAt';
import { mendAgreement, mendedGlyph } from '../../../core/variation/mending';
import type { Disagreeing } from '../../../workers/measure';
import { chooseGlyph, chooseMaster, run, useBench } from '../../state/bench';
import { runFar } from '../../state/far';
import { useJob } from '../../state/useJob';
import { Bar } from '../../ui/controls';
import { Button } from '../../ui/parts';
import { GlyphList } from './GlyphList';
import { LetterAt } from './LetterAt';

/** Glyphs whose masters do not agree, or look as if they would blend badly: what differs, in every master, and the mend. */
export function AgreementView() {
  const project = useBench((s) => s.settled)!;
  const { found, fault, share, start } = useJob<Disagreeing>();
  const { glyphs, masters, axes } = project;
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at anew for what it is about.
  useEffect(() => start((service, tell) => service.disagreeing(tell)), [glyphs, masters, axes]);
  const [chosen, setChosen] = useState<GlyphId>();
  const list = (found ?? []).filter((d) => project.glyphs[d.glyph]);
  const current = list.find((d) => d.glyph === chosen) ?? list[0];
  const mendable = list.filter((d) => d.mends);
  if (masters.length === 1)
    return <p className="p-5 text-quiet">One master agrees with itself. Add a second one on the plane.</p>;
  return (
    <div className="flex h-full min-h-0 flex-col gap-3 p-4">
      <div className="flex items-center gap-3">
        <p role="status" className="flex-1" data-testid="agreement">
          {fault ??
            (found === undefined
              ? 'Comparing the masters…'
              : list.length === 0
                ? `All ${plural(project.glyphOrder.length, 'glyph')} agree in all ${masters.length} masters.`
                : `${plural(list.length, 'glyph')} of ${counted(project.glyphOrder.length)} ${list.length === 1 ? 'differs' : 'differ'} between the masters.`)}
        </p>
        {share !== undefined && found === undefined && <Bar label="Comparing the masters" share={share} />}
        {mendable.length > 0 && (
          <Button
            kind="primary"
            title="Order, directions, starts and points by their shapes; what a machine cannot mend is named and stays"
            onClick={() =>
              void runFar(mendAgreement, { glyphs: mendable.map((d) => d.glyph) }, { glyphs: mendable.length })
            }
          >
            Mend all that can be
          </Button>
        )}
      </div>
      {current && (
        <div className="flex min-h-0 flex-1 gap-4">
          <GlyphList
            list={list.map((d) => ({ glyph: d.glyph, says: kindsOf(d.faults) }))}
            current={current.glyph}
            onChoose={setChosen}
          />
          <Report key={current.glyph} glyph={project.glyphs[current.glyph]!} faults={current.faults} />
        </div>
      )}
    </div>
  );
}

const KINDS: Readonly<Record<AgreementFault['kind'], string>> = {
  contours: 'contours',
  components: 'components',
  order: 'order',
  open: 'open and closed',
  direction: 'direction',
  points: 'points',
  types: 'lines and curves',
  start: 'start',
  shape: 'shape',
  crosses: 'crosses between',
  anchors: 'anchors',
};
const kindsOf = (faults: readonly AgreementFault[]): string =>
  [...new Set(faults.map((f) => KINDS[f.kind] + (f.suspicion ? '?' : '')))].join(', ');

const SIZE = 132;
const PAD = 12;
/** Faults told one by one up to so many. */
const MOST = 12;

/** One glyph in every master, its contours numbered where they start; what differs in words; what mending would make of it. */
function Report({ glyph, faults }: { glyph: Glyph; faults: readonly AgreementFault[] }) {
  const project = useBench((s) => s.settled)!;
  const navigate = useNavigate();
  const mended = useMemo(() => mendedGlyph(project, glyph), [project, glyph]);
  const helps = mended.done.length > 0 && !mended.left.some((f) => !f.suspicion && f.kind !== 'anchors');
  return (
    <section aria-label={`Agreement of ${glyph.name}`} className="min-w-0 flex-1 overflow-y-auto">
      <ul aria-label="What differs" className="mb-2 grid gap-0.5">
        {faults.slice(0, MOST).map((f) => (
          <li key={f.reason} className={f.suspicion ? 'text-marigold' : 'text-brick'}>
            {f.suspicion ? '? ' : '▲ '}
            <span className="text-ink">{f.reason}</span>
          </li>
        ))}
        {faults.length > MOST && <li className="text-quiet">and {faults.length - MOST} more.</li>}
      </ul>
      <div className="flex flex-wrap gap-2">
        {[
          ...project.masters,
          ...glyph.waypoints.map((w, i) => ({ id: waypointId(w.place), name: `Waypoint ${i + 1}` })),
        ].map((m) => (
          <figure key={m.id} className="rounded-lg border border-line bg-panel p-1 text-center">
            <Numbered project={project} glyph={glyph} master={m.id} />
            <figcaption className="text-[12px]">
              <button
                type="button"
                className="text-kelp underline"
                onClick={() => {
                  chooseGlyph(glyph.id);
                  chooseMaster(m.id);
                  void navigate(`../draw?glyph=${encodeURIComponent(glyph.name)}`, { relative: 'path' });
                }}
              >
                {m.name}
              </button>
            </figcaption>
          </figure>
        ))}
      </div>
      {helps && (
        <div className="mt-3">
          <p className="mb-1">
            A machine can mend it: {mended.done.join(', ')}. Half way from {project.masters[0]!.name} to each of the
            others:
          </p>
          <Halfway project={project} before={glyph} after={mended.glyph} />
          <Button kind="primary" className="mt-2" onClick={() => run((p) => mendAgreement(p, { glyphs: [glyph.id] }))}>
            Mend {glyph.name}
          </Button>
        </div>
      )}
      {faults.some((f) => f.kind === 'crosses') && (
        <p className="mt-3 text-quiet">Where it crosses, and whether another start parts it, is shown in Between.</p>
      )}
      {!helps && faults.some((f) => !f.suspicion && f.kind !== 'anchors') && (
        <p className="mt-3 text-quiet">
          A machine cannot mend this without changing shapes: it is for the hand, in Draw.
        </p>
      )}
    </section>
  );
}

/** A glyph in a master with its contours numbered at their starts. */
function Numbered({ project, glyph, master }: { project: Project; glyph: Glyph; master: string }) {
  const drawing = drawingOf(glyph, master);
  const contours = flattened(drawing, drawingsOf(project, master));
  const em = project.unitsPerEm;
  const scale = SIZE / (em * 1.15);
  const wide = Math.max(em * 0.5, drawing.advance) * scale + 2 * PAD;
  return (
    <svg aria-hidden width={wide} height={SIZE} viewBox={`${-PAD} ${-SIZE * 0.76} ${wide} ${SIZE}`}>
      <path
        d={pathData(contours)}
        transform={`scale(${scale} ${-scale})`}
        fill="var(--ink)"
        fillOpacity={0.14}
        stroke="var(--ink)"
        strokeWidth={1.3 / scale}
      />
      {contours.map((c, i) => {
        const start = c.points.find(isOnCurve);
        return start ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: contours are known by their places.
          <g key={i} transform={`translate(${start.x * scale} ${-start.y * scale})`}>
            <circle r={6.5} fill="var(--kelp)" />
            <text textAnchor="middle" y={3.4} fontSize={9.5} fill="var(--panel)" fontWeight={600}>
              {i + 1}
            </text>
          </g>
        ) : null;
      })}
    </svg>
  );
}

/** The glyph half way between the default and each other master, as it is and as it would be. */
function Halfway({ project, before, after }: { project: Project; before: Glyph; after: Glyph }) {
  const rows = useMemo(() => {
    const { masters, axes } = project;
    const first = wholePlace(axes, masters[0]!.place);
    const places = masters.slice(1).map((m): Place => {
      const other = wholePlace(axes, m.place);
      return Object.fromEntries(axes.map((a) => [a.tag, (first[a.tag]! + other[a.tag]!) / 2]));
    });
    const of = (glyph: Glyph) => {
      const with_ = { ...project, glyphs: { ...project.glyphs, [glyph.id]: glyph } };
      return places.map((p) => drawnAt(with_, glyph.id, p)!);
    };
    return [of(before), of(after)];
  }, [project, before, after]);
  const size = 56;
  return (
    <div className="grid w-max gap-1">
      {rows.map((row, r) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the first row is before, the second after.
        <div key={r} className="flex items-center gap-1">
          <span className="w-14 text-[12px] text-quiet">{r === 0 ? 'before' : 'after'}</span>
          {row.map((letter, i) => (
            <svg
              // biome-ignore lint/suspicious/noArrayIndexKey: masters keep their order.
              key={i}
              aria-hidden
              width={size * 1.1}
              height={size * 1.35}
              viewBox={`${-size * 0.55} ${-size} ${size * 1.1} ${size * 1.35}`}
            >
              <g className={r === 0 ? 'fill-quiet' : 'fill-ink'}>
                <LetterAt letter={letter} em={project.unitsPerEm} size={size} />
              </g>
            </svg>
          ))}
        </div>
      ))}
    </div>
  );
}
