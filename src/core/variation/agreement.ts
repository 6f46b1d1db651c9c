import { type Contour, isOnCurve, sameBuild, signedArea } from '../geometry/contour';
import type { Drawing, Glyph, MasterId, Project } from '../project/model';
import { sheetOf } from '../project/places';
import { drawingOf } from '../project/queries';
import { mainOn, type Sheet, sheetsOf } from '../project/structure';
import { contourFacts, matchedContours, matchedStart, nodesApart, nodesOf } from './matching';

/** What keeps masters of a glyph apart. */
export type FaultKind =
  | 'contours'
  | 'components'
  | 'order'
  | 'open'
  | 'direction'
  | 'points'
  | 'types'
  | 'start'
  | 'shape'
  | 'crosses'
  | 'anchors';

/** One drawing that differs from that of the default master: how, and in which contour, counted from 1 on. */
export type AgreementFault = {
  kind: FaultKind;
  /** The master, or the waypoint by its number from 0 on. */
  at: { master: MasterId } | { waypoint: number };
  contour?: number;
  /** It can be blended, and would look wrong. */
  suspicion: boolean;
  reason: string;
};

/** A difference before it has names: `of` the default’s drawing, `other` the one that differs. */
type Difference = Pick<AgreementFault, 'kind' | 'contour' | 'suspicion'> & {
  said: (of: string, other: string) => string;
};

const compared = new WeakMap<Drawing, WeakMap<Drawing, readonly Difference[]>>();

/** How a drawing differs from another in what blending needs; known again for the same two. */
function differences(of: Drawing, other: Drawing): readonly Difference[] {
  let known = compared.get(of);
  if (!known) {
    known = new WeakMap();
    compared.set(of, known);
  }
  let found = known.get(other);
  if (!found) {
    found = compare(of, other);
    known.set(other, found);
  }
  return found;
}

const contourCount = (n: number): string => (n === 0 ? 'no contour' : n === 1 ? 'one contour' : `${n} contours`);

function compare(of: Drawing, other: Drawing): Difference[] {
  const out: Difference[] = [];
  const [a, b] = [of.contours, other.contours];
  if (a.length !== b.length)
    out.push({
      kind: 'contours',
      suspicion: false,
      said: (x, y) => `${y} has ${contourCount(b.length)}, ${x} ${contourCount(a.length).replace(/ contours?/, '')}.`,
    });
  const sameParts =
    of.components.length === other.components.length &&
    of.components.every((c, i) => c.glyph === other.components[i]!.glyph);
  if (!sameParts)
    out.push({
      kind: 'components',
      suspicion: false,
      said: (x, y) =>
        of.components.length === other.components.length
          ? `The components of ${y} are others than those of ${x}, or stand in another order.`
          : `${y} has ${other.components.length === 1 ? 'one component' : `${other.components.length} components`}, ${x} ${of.components.length}.`,
    });
  if (a.length === b.length) out.push(...inContours(of, other));
  const sameAnchors =
    of.anchors.length === other.anchors.length && of.anchors.every((n, i) => n.name === other.anchors[i]!.name);
  if (sameAnchors) return out;
  const names = (d: Drawing) => new Set(d.anchors.map((n) => n.name));
  const [have, has] = [names(of), names(other)];
  const missing = [...have].filter((n) => !has.has(n));
  const more = [...has].filter((n) => !have.has(n));
  if (missing.length + more.length > 0)
    out.push({
      kind: 'anchors',
      suspicion: false,
      said: (x, y) =>
        [
          missing.length > 0 ? `${y} lacks the anchor${missing.length > 1 ? 's' : ''} ${missing.join(', ')}` : '',
          more.length > 0 ? `${x} lacks the anchor${more.length > 1 ? 's' : ''} ${more.join(', ')} of ${y}` : '',
        ]
          .filter(Boolean)
          .join('; ')
          .concat('.'),
    });
  return out;
}

function inContours(of: Drawing, other: Drawing): Difference[] {
  const order = matchedContours(of, other);
  const moved = order.every((k, i) => k === i) ? [] : order.flatMap((k, i) => (k === i ? [] : [i + 1]));
  if (moved.length > 0) {
    const blends = of.contours.every((c, i) => sameBuild(c, other.contours[i]!));
    const which = moved.length === 2 ? `${moved[0]} and ${moved[1]}` : moved.join(', ');
    return [
      {
        kind: 'order',
        suspicion: blends,
        said: (x, y) =>
          `Contours ${which} of ${y} ${moved.length === 2 ? 'are exchanged' : 'stand in another order'} beside ${x}${blends ? ', though their points agree in number' : ''}.`,
      },
    ];
  }
  return of.contours.flatMap((c, i) => inContour(c, other.contours[i]!).map((d) => ({ ...d, contour: i + 1 })));
}

/** Where a point lies in a contour, in words. */
function placeOf(contour: Contour): string {
  const [first] = nodesOf(contour);
  if (!first) return 'nowhere';
  const up = first.y > 0.67 ? 'top' : first.y < 0.33 ? 'bottom' : '';
  const across = first.x > 0.67 ? 'right' : first.x < 0.33 ? 'left' : '';
  return `at the ${[up, across].filter(Boolean).join(' ') || 'middle'}`;
}

/** Contours whose points lie as near as this, in shares of their boxes squared, do not collapse between. */
const NEAR = 0.02;
/** A blend that keeps less than this of its area collapses on the way. */
const COLLAPSED = 0.5;

function inContour(a: Contour, b: Contour): Omit<Difference, 'contour'>[] {
  const one = (kind: FaultKind, suspicion: boolean, said: Difference['said']) => [{ kind, suspicion, said }];
  if (a.closed !== b.closed)
    return one(
      'open',
      false,
      (x, y) => `A contour is ${b.closed ? 'closed' : 'open'} in ${y} and ${a.closed ? 'closed' : 'open'} in ${x}.`,
    );
  if (contourFacts(a).direction * contourFacts(b).direction < 0)
    return one('direction', sameBuild(a, b), (x, y) => `It runs the other way in ${y} than in ${x}.`);
  // Mostly they agree, and lie so near that nothing else is to be asked.
  const near = sameBuild(a, b) && nodesApart(a, b) < NEAR;
  if (near) return [];
  const start = matchedStart(a, b);
  const own = b.points.findIndex(isOnCurve);
  if (start !== undefined && start !== own)
    return one('start', sameBuild(a, b), (x, y) => `It starts ${placeOf(a)} in ${x} and ${placeOf(b)} in ${y}.`);
  if (sameBuild(a, b)) {
    const middle = signedArea(blended(a, b));
    const [least, most] = [signedArea(a), signedArea(b)].map(Math.abs).sort((p, q) => p - q) as [number, number];
    // What lies between is no smaller than both, or it turns inside out on the way.
    if (contourFacts(a).direction !== 0 && Math.abs(middle) < COLLAPSED * least && most > 0)
      return one('shape', true, (x, y) => `It collapses half way between ${x} and ${y}.`);
    return [];
  }
  const [na, nb] = [a.points.filter(isOnCurve).length, b.points.filter(isOnCurve).length];
  if (na !== nb || a.points.length !== b.points.length)
    return one('points', false, (x, y) =>
      na === nb
        ? `It has ${b.points.length - nb} handles in ${y}, ${a.points.length - na} in ${x}.`
        : `It has ${nb} points in ${y}, ${na} in ${x}.`,
    );
  return one('types', false, (x, y) => `Curves and lines follow one another otherwise in ${y} than in ${x}.`);
}

const blended = (a: Contour, b: Contour): Contour => ({
  ...a,
  points: a.points.map((p, i) => ({ ...p, x: (p.x + b.points[i]!.x) / 2, y: (p.y + b.points[i]!.y) / 2 })),
});

type Known = Pick<Project, 'masters' | 'axes'> & { faults: readonly AgreementFault[] };
const found = new WeakMap<Glyph, Known>();

/**
 * All that keeps the masters and waypoints of a glyph from agreeing with its drawing in the default master; nothing in one master. Where
 * axes have single values only, those with the same values are held against one another.
 */
export function agreementOf(project: Project, glyph: Glyph): readonly AgreementFault[] {
  const known = found.get(glyph);
  const { masters, axes } = project;
  if (known?.masters === masters && known.axes === axes) return known.faults;
  const faults = sheetsOf(project).flatMap((own) => faultsOn(project, glyph, own));
  found.set(glyph, { masters, axes, faults });
  return faults;
}

function faultsOn(project: Project, glyph: Glyph, { sheet, masters }: Sheet): AgreementFault[] {
  const main = mainOn(project, masters);
  const own = drawingOf(glyph, main.id);
  const told = (other: Drawing, name: string, at: AgreementFault['at']): AgreementFault[] =>
    differences(own, other).map(({ said, ...d }) => {
      const sentence = said(main.name, name);
      return {
        ...d,
        at,
        reason:
          d.contour === undefined
            ? sentence
            : `Contour ${d.contour}: ${sentence.charAt(0).toLowerCase()}${sentence.slice(1)}`,
      };
    });
  return [
    ...masters.flatMap((m) => (m.id === main.id ? [] : told(drawingOf(glyph, m.id), m.name, { master: m.id }))),
    ...glyph.waypoints.flatMap((w, i) =>
      sheetOf(project.axes, w.place) === sheet ? told(w.drawing, `Waypoint ${i + 1}`, { waypoint: i }) : [],
    ),
  ];
}

/** Can all drawings of a glyph be blended? Anchors that only some have do not stop it. */
export const agrees = (project: Project, glyph: Glyph): boolean =>
  agreementOf(project, glyph).every((f) => f.suspicion || f.kind === 'anchors');
