import {
  type Contour,
  closedUp,
  contourBounds,
  curvesOf,
  isOnCurve,
  type Point,
  reverseContour,
} from '../geometry/contour';
import { lengthOf, pointAt } from '../geometry/curve';
import { windingAt, wrongWay } from '../geometry/winding';
import { isStray } from '../tidying/strays';
import {
  eachContour,
  meanThickness,
  type Outline,
  type OutlineCheck,
  type OutlineFault,
  type OutlineMend,
  onPoints,
  said,
  spotOf,
} from './outline';

const REVERSE: OutlineMend = {
  way: 'reverse',
  title: 'Reverse it',
  together: false,
  mend: (s) => s.map((c) => [reverseContour(c)]),
};

function turnedAt(contours: readonly Contour[], contour: number, reason: string): OutlineFault {
  const point = Math.max(0, contours[contour]!.points.findIndex(isOnCurve));
  return { contour, point, bad: 1, spots: [spotOf(contours[contour]!, point)], reason, mends: true };
}

/** Whole contours: open ones, strays, those that run the wrong way, stand twice, are mere slivers. */
export const CONTOUR_CHECKS: readonly OutlineCheck[] = [
  {
    kind: 'outlines/open',
    family: 'outlines',
    title: 'Open contours',
    severity: 'error',
    why: 'A font fills closed contours only. What is open is closed by a straight side when the font is made, or left out.',
    look: eachContour((c, contour, { u }) => {
      if (c.closed || isStray([c])) return [];
      const [a, b] = [c.points[0]!, c.points[c.points.length - 1]!];
      const gap = Math.hypot(a.x - b.x, a.y - b.y);
      return [
        {
          contour,
          point: 0,
          bad: 1000 - Math.min(999, gap / u),
          spots: [spotOf(c, 0), spotOf(c, c.points.length - 1)],
          reason:
            gap <= NEARLY_MET * u
              ? `A contour is open; its ends nearly meet, ${said(gap)} apart.`
              : `A contour is open, its ends ${said(gap)} apart.`,
          mends: onPoints(c) > 2 || c.points.length > 3,
        },
      ];
    }),
    ways: [
      {
        way: 'close',
        title: 'Close it',
        together: true,
        mend: (siblings, _, __, u) => {
          if (siblings.some((c) => c.closed)) return undefined;
          const met = siblings.every((c) => gapOf(c) <= NEARLY_MET * u);
          return siblings.map((c) => [met ? joined(c) : closedUp(c)]);
        },
      },
    ],
  },
  {
    kind: 'outlines/direction',
    family: 'outlines',
    title: 'Contours that run the wrong way',
    severity: 'error',
    why: 'Fonts are filled by direction: outer shapes run one way, counters the other. A counter that runs like its outer shape is filled with ink.',
    look: ({ contours }) =>
      wrongWay(contours).flatMap((i): OutlineFault[] => {
        if (partlyOut(contours, i)) return [];
        const within = contours.some((o, k) => k !== i && holdsBox(o, contours[i]!));
        return within
          ? [turnedAt(contours, i, 'A counter runs the same way as the shape around it and is filled with ink.')]
          : [];
      }),
    ways: [REVERSE],
  },
  {
    kind: 'outlines/turned',
    family: 'outlines',
    title: 'Shapes that run the other way',
    severity: 'attention',
    why: 'The shape stands by itself and is filled all the same; where it comes to overlap another, both are cut out of each other.',
    look: ({ contours }) =>
      wrongWay(contours).flatMap((i): OutlineFault[] =>
        partlyOut(contours, i) || contours.some((o, k) => k !== i && holdsBox(o, contours[i]!))
          ? []
          : [turnedAt(contours, i, 'A shape runs the other way than the largest of the glyph.')],
      ),
    ways: [REVERSE],
  },
  {
    kind: 'outlines/counterOut',
    family: 'outlines',
    title: 'Counters that reach out of the ink',
    severity: 'attention',
    why: 'The part of a counter that lies outside its shape is filled with ink, not left white.',
    look: ({ contours }) =>
      wrongWay(contours).flatMap((i) => {
        const out = partlyOut(contours, i);
        if (!out) return [];
        return [
          { contour: i, point: 0, bad: 1, spots: [out], reason: 'A counter reaches out of the shape around it.' },
        ];
      }),
  },
  {
    kind: 'outlines/stray',
    family: 'outlines',
    title: 'Strays',
    severity: 'attention',
    why: 'A lone point or a contour without area draws nothing, but widens side bearings and boxes, and some programs refuse it.',
    look: eachContour((c, contour) => {
      if (!isStray([c])) return [];
      const one = c.points.length < 2;
      return [
        {
          contour,
          point: 0,
          bad: 1,
          spots: c.points.length > 0 ? [spotOf(c, 0)] : [],
          reason:
            c.points.length === 0
              ? 'A contour has no points.'
              : one
                ? 'A point stands alone.'
                : 'A contour has no area and draws nothing.',
          mends: true,
        },
      ];
    }),
    ways: [
      { way: 'remove', title: 'Take it away', together: true, mend: (s) => (isStray(s) ? s.map(() => []) : undefined) },
    ],
  },
  {
    kind: 'outlines/sliver',
    family: 'outlines',
    title: 'Slivers',
    severity: 'attention',
    why: 'What is thinner than two thousandths of the em is mostly left over from joining shapes. It prints as dirt.',
    amount: { label: 'Thinner than', unit: 'thousandths of the em', usual: 2, least: 0.2, most: 20 },
    look: eachContour((c, contour, { u }, amount) => {
      if (!c.closed || isStray([c])) return [];
      const box = contourBounds(c);
      const speck = Math.max(box.xMax - box.xMin, box.yMax - box.yMin) < 3 * amount * u;
      // The way along the points is no shorter than the outline: most contours are thick enough by that.
      if (!speck && meanThickness(c, wayAlong(c)) >= amount * u) return [];
      const round = speck ? 0 : curvesOf(c).reduce((sum, k) => sum + lengthOf(k), 0);
      if (!speck && meanThickness(c, round) >= amount * u) return [];
      return [
        {
          contour,
          point: 0,
          bad: 1,
          spots: [{ x: (box.xMin + box.xMax) / 2, y: (box.yMin + box.yMax) / 2 }],
          reason: speck
            ? `A contour is a speck of ${said(Math.max(box.xMax - box.xMin, box.yMax - box.yMin))}.`
            : `A contour is a sliver, ${said(meanThickness(c, round))} thick.`,
          mends: true,
        },
      ];
    }),
    ways: [{ way: 'remove', title: 'Take it away', together: true, mend: (s) => s.map(() => []) }],
  },
  {
    kind: 'outlines/twice',
    family: 'outlines',
    title: 'Contours that stand twice',
    severity: 'attention',
    why: 'The same contour on itself adds nothing in print and makes edges darker on screens.',
    look: ({ contours }) => {
      const seen = new Map<string, number>();
      return contours.flatMap((c, contour): OutlineFault[] => {
        if (c.points.length < 2) return [];
        const box = contourBounds(c);
        const key = `${c.points.length} ${box.xMin} ${box.xMax} ${box.yMin} ${box.yMax}`;
        const twin = seen.get(key);
        if (twin === undefined || !samePoints(c, contours[twin]!)) {
          seen.set(key, contour);
          return [];
        }
        return [
          {
            contour,
            point: 0,
            bad: 1,
            spots: [spotOf(c, 0)],
            reason: `Contours ${twin + 1} and ${contour + 1} are the same.`,
            mends: true,
          },
        ];
      });
    },
    inAll: true,
    ways: [{ way: 'remove', title: 'Take one away', together: true, mend: (s) => s.map(() => []) }],
  },
];

/** The length of the way from point to point, handles included. */
function wayAlong({ points }: Contour): number {
  let sum = 0;
  points.forEach((p, i) => {
    const q = points[i === 0 ? points.length - 1 : i - 1]!;
    sum += Math.hypot(p.x - q.x, p.y - q.y);
  });
  return sum;
}

/** Ends nearer than this, in thousandths of the em, were meant to meet. */
const NEARLY_MET = 12;

const gapOf = ({ points }: Contour): number => {
  const [a, b] = [points[0]!, points[points.length - 1]!];
  return Math.hypot(a.x - b.x, a.y - b.y);
};

/** An open contour whose last point falls onto its first, and gives it its segment. */
function joined(c: Contour): Contour {
  const last = c.points[c.points.length - 1]!;
  // Handles behind the last point lead back to the first already.
  if (!isOnCurve(last)) return closedUp(c);
  const start: Point = { ...c.points[0]!, type: last.type };
  return { ...c, closed: true, points: [start, ...c.points.slice(1, -1)] };
}

/** A place of a contour that lies outside all others, where other places of it lie within them. */
function partlyOut(contours: Outline['contours'], i: number) {
  const others = contours.flatMap((c, k) => (k !== i && c.closed ? curvesOf(c) : []));
  if (others.length === 0) return undefined;
  const places = curvesOf(contours[i]!).map((c) => pointAt(c, 0.5));
  const out = places.filter(([x, y]) => windingAt(others, x, y) === 0);
  return out.length > 0 && out.length < places.length ? { x: out[0]![0], y: out[0]![1] } : undefined;
}

const holdsBox = (outer: Contour, inner: Contour): boolean => {
  const [a, b] = [contourBounds(outer), contourBounds(inner)];
  return a.xMin <= b.xMin && a.xMax >= b.xMax && a.yMin <= b.yMin && a.yMax >= b.yMax;
};

const samePoints = (a: Contour, b: Contour): boolean => {
  const sorted = (c: Contour) => c.points.map((p) => `${p.x} ${p.y} ${isOnCurve(p)}`).sort();
  const [p, q] = [sorted(a), sorted(b)];
  return p.length === q.length && p.every((v, i) => v === q[i]);
};
