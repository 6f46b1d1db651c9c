import { type Refusal, refused } from '../base/result';
import { workedDrawing } from '../drawing/strokes';
import { measureFor, proposedSides } from '../fitting/optical';
import { type Contour, transformContour } from '../geometry/contour';
import { type Box, isEmptyBox } from '../geometry/curve';
import { gridded } from '../geometry/tidy';
import { emptyDrawing } from '../project/create';
import type { Anchor, Component, Drawing, Glyph, Master, Project } from '../project/model';
import { drawingBounds, drawingsOf, flattened } from '../project/outline';
import { drawingOf, glyphForCodePoint, glyphNamed } from '../project/queries';
import { weighedContours } from '../reweighting/drawings';
import type { Stems } from '../reweighting/goals';
import { stemsOf } from '../reweighting/standard';
import { standardStems } from '../reweighting/strokes';
import { isDrawn, type Kind, type SetFacts, type SetTerms, type Way } from './sets';

/** Letters that tell how thick strokes of a kind are. */
const TELLING: Readonly<Record<Kind, string>> = {
  capitals: 'HIEFTLDBPRNU',
  small: 'nhmulidbpqr',
  figures: '1470523',
};
/** Letters that tell how high a kind is. */
const HIGH: Readonly<Record<Kind, string>> = { capitals: 'HIEFTZ', small: 'xzvwu', figures: '1475' };

/** A project as one master has it, with what is measured in it once. */
export class Ground {
  private readonly stems = new Map<Kind, Stems>();
  private readonly heights = new Map<Kind, number>();
  private readonly likes = new Map<string, { height: number; stems: Stems } | undefined>();
  private wide: number | undefined;

  constructor(
    readonly project: Project,
    readonly master: Master,
  ) {}

  outline(glyph: Glyph): { contours: readonly Contour[]; advance: number; anchors: readonly Anchor[] } {
    const d = drawingOf(glyph, this.master.id);
    return { contours: flattened(d, drawingsOf(this.project, this.master.id)), advance: d.advance, anchors: d.anchors };
  }

  box(glyph: Glyph): Box {
    return drawingBounds(drawingOf(glyph, this.master.id), drawingsOf(this.project, this.master.id));
  }

  private letters(text: string): Glyph[] {
    return [...text].flatMap((c) => glyphForCodePoint(this.project, c.codePointAt(0)!) ?? []);
  }

  /** How thick strokes of a kind of letters are. */
  stemsOf(kind: Kind): Stems {
    let found = this.stems.get(kind);
    if (!found) {
      found = standardStems(
        this.letters(TELLING[kind]).map((g) => this.outline(g)),
        this.project.unitsPerEm,
      ) ??
        stemsOf(this.project, this.master) ?? { vertical: 80, horizontal: 70 };
      this.stems.set(kind, found);
    }
    return found;
  }

  /** How high a kind of letters is: the flat ones. */
  heightOf(kind: Kind): number {
    let found = this.heights.get(kind);
    if (found === undefined) {
      const tops = this.letters(HIGH[kind])
        .map((g) => this.box(g))
        .flatMap((b) => (isEmptyBox(b) ? [] : [b.yMax]))
        .sort((a, b) => a - b);
      const { zones } = this.master;
      found = tops[tops.length >> 1] ?? (kind === 'small' ? zones.xHeight : zones.capHeight).position;
      this.heights.set(kind, found);
    }
    return found;
  }

  /** How high and thick the letters of a set are that a designer drew, where its numbers are not set otherwise. */
  like(set: SetFacts): { height: number; stems: Stems } | undefined {
    if (!this.likes.has(set.key)) this.likes.set(set.key, this.measuredLike(set));
    return this.likes.get(set.key);
  }

  private measuredLike(set: SetFacts): { height: number; stems: Stems } | undefined {
    const controls = drawnControls(this.project, set);
    if (!controls) return undefined;
    const suffix = /\.[^.]*$/.exec(controls[0].name)?.[0] ?? '';
    const telling = this.letters(TELLING.capitals.toLowerCase()).flatMap(
      (g) => glyphNamed(this.project, `${g.name}${suffix}`) ?? [],
    );
    const stems = standardStems(
      telling.map((g) => this.outline(g)),
      this.project.unitsPerEm,
    );
    const box = this.box(controls[0]);
    return stems && !isEmptyBox(box) ? { height: box.yMax, stems } : undefined;
  }

  /** The width that figures of one width have: of the widest. */
  figureWidth(): number {
    this.wide ??= Math.max(...this.letters('0123456789').map((g) => drawingOf(g, this.master.id).advance), 0);
    return this.wide;
  }
}

const part = (glyph: Glyph, x: number, y: number): Component => ({ glyph: glyph.id, transform: [1, 0, 0, 1, x, y] });

/** The controls of a set that a designer drew, where the numbers of the set are those that it has by itself. */
export function drawnControls(project: Project, set: SetFacts): readonly [Glyph, Glyph] | undefined {
  const { terms, made } = project.settings.deriving ?? {};
  if (!set.controls || terms?.[set.key]) return undefined;
  const [straight, round] = set.controls(project).map((n) => glyphNamed(project, n));
  const byHand = (g: Glyph | undefined): g is Glyph => isDrawn(project, g) && !made?.some((m) => m.glyph === g.id);
  return byHand(straight) && byHand(round) ? [straight, round] : undefined;
}

/** How high a set is in a master, in font units. */
export function heightIn(ground: Ground, set: SetFacts, terms: SetTerms): number {
  const like = ground.like(set);
  if (like) return like.height;
  const whole = set.measure === 'xHeight' ? ground.heightOf('small') : ground.heightOf('figures');
  return (whole * terms.height) / 100;
}

/** The drawing of a glyph of a set in a master, or why there can be none. */
export function derivedDrawing(ground: Ground, set: SetFacts, terms: SetTerms, way: Way): Drawing | Refusal {
  const { project, master } = ground;
  const { grid } = project.settings;
  const find = (name: string): Glyph => glyphNamed(project, name)!;
  const foot = (terms.foot * ground.heightOf('capitals')) / 100;
  switch (way.how) {
    case 'scaled':
      return scaled(ground, find(way.of), way.among, heightIn(ground, set, terms), terms, foot, {
        stems: ground.like(set)?.stems,
      });
    case 'moved': {
      const glyph = find(way.of);
      const up = gridded(liftOf(ground, glyph, way.to, set, terms), grid);
      const d = drawingOf(glyph, master.id);
      return { ...emptyDrawing(d.advance), components: [part(glyph, 0, up)], anchors: raised(d.anchors, up) };
    }
    case 'row':
      return row(ground, way.of.map(find));
    case 'centred': {
      const glyph = find(way.of);
      const wide = ground.figureWidth();
      const box = ground.box(glyph);
      const x = isEmptyBox(box) ? 0 : gridded((wide - (box.xMin + box.xMax)) / 2, grid);
      return { ...emptyDrawing(wide), components: [part(glyph, x, 0)] };
    }
    case 'sided': {
      const glyph = find(way.of);
      const box = ground.box(glyph);
      const measure = measureFor(project, glyph, master);
      const sides = measure && proposedSides(project, glyph, master.id, measure);
      if (!sides || isEmptyBox(box)) return refused('Its sides cannot be told before n, o, H and O are drawn.');
      const x = gridded(sides.left - box.xMin, grid);
      const advance = gridded(box.xMax + x + sides.right, grid);
      return { ...emptyDrawing(Math.max(0, advance)), components: [part(glyph, x, 0)] };
    }
    case 'ringed':
      return ringed(ground, way.of.map(find), set, terms);
    case 'framed': {
      const u = project.unitsPerEm / 1000;
      const glyph = find(way.of);
      const { contours, advance } = ground.outline(glyph);
      return workedDrawing(project, { ...emptyDrawing(advance), contours }, master.id, [], {
        kind: 'frame',
        margin: Math.round(60 * u),
        wall: Math.round(ground.stemsOf('capitals').horizontal * 0.5),
        radius: Math.round(70 * u),
        reversed: false,
        sides: 'around',
        least: Math.round(760 * u),
      });
    }
    case 'marked':
      return refused('It is put together with its marks.');
  }
}

const raised = (anchors: readonly Anchor[], by: number): Anchor[] => anchors.map((a) => ({ ...a, y: a.y + by }));

/** How far a part goes up. */
function liftOf(
  ground: Ground,
  glyph: Glyph,
  to: Extract<Way, { how: 'moved' }>['to'],
  set: SetFacts,
  terms: SetTerms,
): number {
  const box = ground.box(glyph);
  if (isEmptyBox(box)) return 0;
  const capital = ground.heightOf('capitals');
  if (to === 'middle') return capital / 2 - (box.yMin + box.yMax) / 2;
  if (to === 'baseline') return -box.yMin;
  if (to === 'hang') return ground.heightOf('small') * (terms.height / 100) - ground.heightOf('figures');
  if (to === 'foot') {
    // Rounds pass their line: the part stands with its line where the set stands.
    const line = heightIn(ground, set, terms);
    return (terms.foot * capital) / 100 - ((box.yMin + box.yMax) / 2 - line / 2);
  }
  return 0;
}

/** A drawing at another height, its strokes at the stems of the set, standing on its foot. */
function scaled(
  ground: Ground,
  glyph: Glyph,
  among: Kind,
  height: number,
  terms: SetTerms,
  foot: number,
  { beside = 1, stems }: { beside?: number; stems?: Stems | undefined } = {},
): Drawing {
  const { project, master } = ground;
  const { contours, advance, anchors } = ground.outline(glyph);
  const y = height / ground.heightOf(among);
  const x = (y * terms.width * beside) / 100;
  const from = ground.stemsOf(among);
  const text = ground.stemsOf(among === 'capitals' ? 'small' : among);
  const share = stems ? 1 : terms.weight / 100;
  const small: Drawing = {
    ...emptyDrawing(advance * x),
    contours: contours.map((c) => transformContour(c, [x, 0, 0, y, 0, 0])),
    anchors: anchors.map((a) => ({ ...a, x: a.x * x, y: a.y * y })),
  };
  const { drawing } = weighedContours(
    project,
    small,
    master,
    {
      from: { vertical: from.vertical * x, horizontal: from.horizontal * y },
      to: { vertical: (stems ?? text).vertical * share, horizontal: (stems ?? text).horizontal * share },
      width: 1,
      bearings: 'share',
      rounds: 1,
    },
    linesOf(small.contours, height),
  );
  const up = gridded(foot, project.settings.grid);
  if (up === 0) return drawing;
  return {
    ...drawing,
    contours: drawing.contours.map((c) => transformContour(c, [1, 0, 0, 1, 0, up])),
    anchors: raised(drawing.anchors, up),
  };
}

/** Heights at which a scaled drawing stays: where it ends, the baseline and its own height. */
function linesOf(contours: readonly Contour[], height: number): number[] {
  const ys = contours.flatMap((c) => c.points.filter((p) => p.type !== 'off').map((p) => p.y));
  return [0, height, Math.min(...ys), Math.max(...ys)];
}

/** Parts one after the other, as wide as they are. */
function row(ground: Ground, glyphs: readonly Glyph[]): Drawing {
  let x = 0;
  const components = glyphs.map((glyph) => {
    const made = part(glyph, x, 0);
    x += drawingOf(glyph, ground.master.id).advance;
    return made;
  });
  return { ...emptyDrawing(x), components };
}

/** A circle of four curves; the share that handles reach makes it round (4/3 of the tangent of an eighth of a turn). */
function circle(x: number, y: number, r: number, clockwise: boolean): Contour {
  const k = r * 0.5523;
  const at = (px: number, py: number, type: 'curve' | 'off') => ({
    x: Math.round(x + px),
    y: Math.round(y + py),
    type,
    ...(type === 'curve' && { smooth: true }),
  });
  const quarter = [
    at(0, -r, 'curve'),
    at(k, -r, 'off'),
    at(r, -k, 'off'),
    at(r, 0, 'curve'),
    at(r, k, 'off'),
    at(k, r, 'off'),
    at(0, r, 'curve'),
    at(-k, r, 'off'),
    at(-r, k, 'off'),
    at(-r, 0, 'curve'),
    at(-r, -k, 'off'),
    at(-k, -r, 'off'),
  ];
  return { closed: true, points: clockwise ? [quarter[0]!, ...quarter.slice(1).reverse()] : quarter };
}

/** Figures at the middle of a ring as high as capitals with room around. */
function ringed(ground: Ground, glyphs: readonly Glyph[], set: SetFacts, terms: SetTerms): Drawing {
  const capital = ground.heightOf('capitals');
  const height = heightIn(ground, set, terms);
  const narrow = glyphs.length > 1 ? 0.72 : 1;
  const parts = glyphs.map((g) => scaled(ground, g, 'figures', height, terms, 0, { beside: narrow }));
  const middle = capital / 2;
  let x = 0;
  const contours: Contour[] = [];
  for (const p of parts) {
    for (const c of p.contours) contours.push(transformContour(c, [1, 0, 0, 1, x, 0]));
    x += p.advance;
  }
  const all = drawingBounds({ ...emptyDrawing(x), contours }, () => undefined);
  const radius = Math.round(capital * 0.6);
  const side = Math.round(ground.project.unitsPerEm * 0.04);
  const wall = ground.stemsOf('figures').horizontal * 0.72;
  const [dx, dy] = [
    Math.round(side + radius - (all.xMin + all.xMax) / 2),
    Math.round(middle - (all.yMin + all.yMax) / 2),
  ];
  return {
    ...emptyDrawing(2 * (side + radius)),
    contours: [
      circle(side + radius, middle, radius, false),
      circle(side + radius, middle, radius - wall, true),
      ...contours.map((c) => transformContour(c, [1, 0, 0, 1, dx, dy])),
    ],
  };
}
