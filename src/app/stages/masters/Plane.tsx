import { type KeyboardEvent, type PointerEvent, useMemo, useRef, useState } from 'react';
import { plural } from '../../../core/project/edit';
import type { GlyphId, Project } from '../../../core/project/model';
import { designEnds, type Place, placeInWords, samePlace, wholePlace } from '../../../core/project/places';
import { defaultMaster } from '../../../core/project/queries';
import { waypointId, waypointPlace } from '../../../core/project/waypoints';
import { moveMaster, setInstance } from '../../../core/variation/familyEdits';
import { glyphAt } from '../../../core/variation/glyphAt';
import { moveWaypoint } from '../../../core/variation/waypointEdits';
import { run, useBench, visitPlace } from '../../state/bench';
import { Pick } from '../../ui/controls';
import { useWidth } from '../../ui/useWidth';
import { LetterAt } from './LetterAt';

/** What is chosen on the plane: a master, an instance by its number, or a waypoint of the glyph shown. */
export type Chosen = { master: string } | { instance: number } | { waypoint: string };
export const isChosen = (a: Chosen | undefined, b: Chosen): boolean => JSON.stringify(a) === JSON.stringify(b);

const HIGH = 360;
const EDGE = { left: 84, right: 64, top: 72, bottom: 96 };
const LETTER = 46;
const SMALL = 26;
const WAYPOINT = 34;
/** What arrow keys move by. */
const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

type Axis = Project['axes'][number];

/** Where values of an axis stand along one side, and back. */
function along(axis: Axis | undefined, from: number, to: number) {
  if (!axis) return { at: () => (from + to) / 2, back: () => 0 };
  const { least, most } = designEnds(axis);
  const [low, high] = [Math.min(least, most), Math.max(least, most)];
  const room = high - low || 1;
  return {
    at: (v: number) => from + ((v - low) / room) * (to - from),
    back: (px: number) => Math.round(low + Math.min(1.15, Math.max(-0.15, (px - from) / (to - from))) * room),
  };
}

/** Masters and instances at their places on one axis or two, each drawn as it looks there; dragged, or moved by arrow keys. */
export function Plane({
  glyph,
  chosen,
  onChoose,
}: {
  glyph: GlyphId;
  chosen: Chosen | undefined;
  onChoose: (chosen: Chosen) => void;
}) {
  const project = useBench((s) => s.settled)!;
  const { axes } = project;
  const [tags, setTags] = useState<readonly [string | undefined, string | undefined]>([undefined, undefined]);
  const x = axes.find((a) => a.tag === tags[0]) ?? axes[0];
  const y = axes.find((a) => a.tag === tags[1] && a !== x) ?? axes.find((a) => a !== x);
  const [dragged, setDragged] = useState<{ chosen: Chosen; place: Place }>();
  const held = useRef<{ chosen: Chosen; place: Place; dx: number; dy: number }>(undefined);
  const sheet = useRef<SVGSVGElement>(null);
  const wide = useWidth(sheet, 800);

  // While something is dragged the family is shown as it would be.
  const shown = useMemo(() => {
    if (!dragged) return project;
    const done = moved(project, glyph, dragged.chosen, dragged.place);
    return done.ok ? done.project : project;
  }, [project, glyph, dragged]);
  const across = along(x, EDGE.left, wide - EDGE.right);
  const up = along(y, HIGH - EDGE.bottom, EDGE.top);
  const at = (place: Place): [number, number] => {
    const whole = wholePlace(axes, place);
    return [across.at(x ? whole[x.tag]! : 0), up.at(y ? whole[y.tag]! : 0)];
  };
  const main = defaultMaster(shown).id;
  const things = [
    // Where a master stands its own letter is shown.
    ...shown.instances.flatMap((i, n) =>
      shown.masters.some((m) => samePlace(axes, m.place, i.place))
        ? []
        : [{ chosen: { instance: n } as Chosen, name: i.name, place: i.place, size: SMALL }],
    ),
    ...shown.masters.map((m) => ({ chosen: { master: m.id } as Chosen, name: m.name, place: m.place, size: LETTER })),
    // While a waypoint is dragged it keeps the id that it was taken by.
    ...shown.glyphs[glyph]!.waypoints.map((w, i) => ({
      chosen: { waypoint: waypointId(project.glyphs[glyph]!.waypoints[i]?.place ?? w.place) } as Chosen,
      name: 'waypoint',
      place: w.place,
      size: WAYPOINT,
    })),
  ];
  const pointAt = (e: PointerEvent): [number, number] => {
    const box = sheet.current!.getBoundingClientRect();
    return [e.clientX - box.left, e.clientY - box.top];
  };
  const grab = (e: PointerEvent, of: Chosen, place: Place) => {
    onChoose(of);
    const [px, py] = pointAt(e);
    const [cx, cy] = at(place);
    held.current = { chosen: of, place, dx: px - cx, dy: py - cy };
    e.currentTarget.setPointerCapture(e.pointerId);
  };
  const drag = (e: PointerEvent) => {
    const own = held.current;
    if (!own) return;
    const [px, py] = pointAt(e);
    const place = {
      ...own.place,
      ...(x && { [x.tag]: across.back(px - own.dx) }),
      ...(y && { [y.tag]: up.back(py - own.dy) }),
    };
    setDragged({ chosen: own.chosen, place });
    if (!('master' in own.chosen)) visitPlace(place);
  };
  const drop = () => {
    const own = held.current;
    held.current = undefined;
    if (own && dragged && run((p) => moved(p, glyph, own.chosen, dragged.place))) keepChosen(own.chosen, dragged.place);
    setDragged(undefined);
  };
  /** A waypoint is known by its place: where it has moved it is chosen anew. */
  const keepChosen = (of: Chosen, place: Place) => {
    if ('waypoint' in of) onChoose({ waypoint: waypointId(wholePlace(axes, place)) });
  };
  const walk = (e: KeyboardEvent, of: Chosen, place: Place) => {
    const step = e.shiftKey ? 10 : 1;
    const [dx, dy] = STEPS[e.key] ?? [0, 0];
    if (e.key === 'Enter' || e.key === ' ') onChoose(of);
    if (dx === 0 && dy === 0) return;
    e.preventDefault();
    e.stopPropagation();
    const whole = wholePlace(axes, place);
    const next = { ...(x && { [x.tag]: whole[x.tag]! + dx * step }), ...(y && { [y.tag]: whole[y.tag]! + dy * step }) };
    const goal = { ...place, ...next };
    const merge = 'waypoint' in of ? 'waypoint' : `place ${JSON.stringify(of)}`;
    if (run((p) => moved(p, glyph, of, goal), merge)) keepChosen(of, goal);
  };
  const em = project.unitsPerEm;
  return (
    <div>
      {axes.length > 2 && (
        <div className="mb-1 flex items-center gap-2 text-[13px] text-quiet">
          Across
          <Pick
            label="Axis across"
            className="w-36"
            value={x?.tag ?? ''}
            options={axes.map((a) => ({ value: a.tag, text: a.name }))}
            onChange={(tag) => setTags([tag, tags[1]])}
          />
          up
          <Pick
            label="Axis upwards"
            className="w-36"
            value={y?.tag ?? ''}
            options={axes.filter((a) => a !== x).map((a) => ({ value: a.tag, text: a.name }))}
            onChange={(tag) => setTags([tags[0], tag])}
          />
          {`; ${plural(axes.length - 2, 'other axis', 'other axes')} at the places of each`}
        </div>
      )}
      {/* biome-ignore lint/a11y/useSemanticElements: a plane of letters is no set of fields. */}
      <svg
        ref={sheet}
        height={HIGH}
        className="block w-full touch-none select-none rounded-xl border border-line bg-panel"
        role="group"
        aria-label="Masters and instances on their axes"
      >
        <Beyond project={shown} x={x} y={y} across={across.at} up={up.at} wide={wide} />
        <Frame x={x} y={y} across={across.at} up={up.at} wide={wide} />
        {things.map(({ chosen: of, name, place, size }) => {
          const [cx, cy] = at(place);
          const letter = glyphAt(shown, glyph, place);
          const on = isChosen(chosen, of);
          const isMaster = 'master' in of;
          const kind = isMaster ? 'Master' : 'instance' in of ? 'Instance' : 'Waypoint';
          return (
            // biome-ignore lint/a11y/useSemanticElements: a letter at its place is no button of the page.
            <g
              key={JSON.stringify(of)}
              role="button"
              tabIndex={0}
              aria-pressed={on}
              aria-label={kind === 'Waypoint' ? `Waypoint, ${placeInWords(axes, place)}` : `${kind} ${name}`}
              data-testid={`plane-${kind.toLowerCase()}`}
              transform={`translate(${cx} ${cy})`}
              className={`cursor-grab outline-none focus-visible:[&>rect]:stroke-kelp ${on ? 'fill-kelp' : 'fill-ink'}`}
              onPointerDown={(e) => grab(e, of, place)}
              onPointerMove={drag}
              onPointerUp={drop}
              onPointerCancel={() => {
                held.current = undefined;
                setDragged(undefined);
              }}
              onKeyDown={(e) => walk(e, of, place)}
            >
              <rect
                x={-size * 0.55}
                y={-size * 0.85}
                width={size * 1.1}
                height={size * 1.25}
                rx={6}
                fill={on ? 'var(--kelp-tint)' : 'var(--panel)'}
                fillOpacity={on ? 1 : 0.7}
                stroke={kind === 'Instance' ? 'none' : on ? 'var(--kelp)' : 'var(--edge)'}
                strokeWidth={kind === 'Instance' ? 0 : 1.2}
                strokeDasharray={kind === 'Waypoint' ? '4 3' : undefined}
              />
              {letter && <LetterAt letter={letter} em={em} size={size} />}
              {(kind !== 'Instance' || on) && (
                <text
                  y={size * 0.4 + 15}
                  textAnchor="middle"
                  className="fill-quiet text-[12px]"
                  style={{ stroke: 'none' }}
                >
                  {name}
                  {isMaster && of.master === main ? ' · default' : ''}
                </text>
              )}
            </g>
          );
        })}
      </svg>
    </div>
  );
}

const moved = (project: Project, glyph: GlyphId, chosen: Chosen, place: Place) =>
  'master' in chosen
    ? moveMaster(project, { master: chosen.master, place })
    : 'instance' in chosen
      ? setInstance(project, { index: chosen.instance, change: { place } })
      : moveWaypoint(project, { glyph, from: waypointPlace(chosen.waypoint) ?? {}, to: place });

/** Where no master reaches: what is drawn there goes on from the outermost ones. */
function Beyond({
  project: { masters, axes },
  x,
  y,
  across,
  up,
  wide,
}: {
  project: Project;
  x: Axis | undefined;
  y: Axis | undefined;
  across: (v: number) => number;
  up: (v: number) => number;
  wide: number;
}) {
  const reach = (axis: Axis): readonly [number, number] => {
    const values = masters.map((m) => wholePlace(axes, m.place)[axis.tag]!);
    return [Math.min(...values), Math.max(...values)];
  };
  const floor = HIGH - 22;
  const shades: [x: number, y: number, w: number, h: number][] = [];
  const [left, right] = x ? reach(x).map(across) : [0, wide];
  if (x) shades.push([0, 0, left!, floor], [right!, 0, wide - right!, floor]);
  if (y) {
    const [low, high] = reach(y).map(up) as [number, number];
    shades.push([left!, 0, right! - left!, high], [left!, low, right! - left!, floor - low]);
  }
  return (
    <g data-testid="beyond" fill="var(--paper)">
      <title>Beyond the masters: what lies here goes on from the outermost</title>
      {shades
        .filter(([, , w, h]) => w > 0 && h > 0)
        .map(([sx, sy, w, h]) => (
          <rect key={`${sx} ${sy}`} x={sx} y={sy} width={w} height={h} />
        ))}
    </g>
  );
}

/** The axes with their ends and defaults. */
function Frame({
  x,
  y,
  across,
  up,
  wide,
}: {
  x: Axis | undefined;
  y: Axis | undefined;
  across: (v: number) => number;
  up: (v: number) => number;
  wide: number;
}) {
  const floor = HIGH - 22;
  const marks = (axis: Axis) => {
    const { least, usual, most } = designEnds(axis);
    return [...new Set([least, usual, most])];
  };
  return (
    <g className="fill-quiet text-[12px]">
      {x && (
        <>
          <line x1={EDGE.left} x2={wide - EDGE.right} y1={floor} y2={floor} stroke="var(--line)" />
          {marks(x).map((v) => (
            <g key={v}>
              <line
                x1={across(v)}
                x2={across(v)}
                y1={EDGE.top - 40}
                y2={floor}
                stroke="var(--line)"
                strokeDasharray="2 4"
              />
              <text x={across(v)} y={floor + 14} textAnchor="middle">
                {v}
              </text>
            </g>
          ))}
          <text x={wide - 8} y={floor - 6} textAnchor="end">
            {x.name}
          </text>
        </>
      )}
      {y && (
        <>
          {marks(y).map((v) => (
            <g key={v}>
              <line x1={28} x2={wide - EDGE.right} y1={up(v)} y2={up(v)} stroke="var(--line)" strokeDasharray="2 4" />
              <text x={24} y={up(v) + 4} textAnchor="end">
                {v}
              </text>
            </g>
          ))}
          <text x={6} y={14}>
            {y.name}
          </text>
        </>
      )}
    </g>
  );
}
