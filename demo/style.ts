// biome-ignore-all format: one line to a kind of measure.

/** One master of the family: where it stands on the axes, and the weights and measures every letter is drawn by. */
export type Style = {
  readonly name: string;
  /** Places on the axes: weight 300–800, width 75–100. */
  readonly weight: number;
  readonly width: number;
  readonly xHeight: number;
  /** Overshoot of round shapes. */
  readonly over: number;
  /** Upright and level strokes of the lowercase, and of the capitals and figures. */
  readonly stem: number;
  readonly level: number;
  readonly capStem: number;
  readonly capLevel: number;
  /** Width of counters, of lowercase and of capitals, to those of the Regular. */
  readonly gap: number;
  readonly capGap: number;
  /** Side bearings to those of the Regular. */
  readonly side: number;
  /** How much straighter the sides of bowls run than in the Regular, 0 to 1: narrow bowls are squarer. */
  readonly square: number;
};

export const REGULAR: Style = {
  name: 'Regular', weight: 400, width: 100, xHeight: 520, over: 11,
  stem: 84, level: 73, capStem: 91, capLevel: 78, gap: 1, capGap: 1, side: 1, square: 0,
};
const LIGHT: Style = { ...REGULAR, name: 'Light', weight: 300, xHeight: 516, over: 10, stem: 54, level: 49, capStem: 59, capLevel: 53, gap: 1.06, capGap: 1.05, side: 1.08 };
const HEAVY: Style = { ...REGULAR, name: 'Heavy', weight: 800, xHeight: 532, over: 13, stem: 162, level: 122, capStem: 176, capLevel: 131, gap: 0.76, capGap: 0.8, side: 0.62 };
const narrow = (s: Style, stem: number, level: number, gap: number, square: number): Style => ({
  ...s,
  name: s === REGULAR ? 'Narrow' : `Narrow ${s.name}`, width: 75, stem, level,
  capStem: Math.round((stem * s.capStem) / s.stem), capLevel: Math.round((level * s.capLevel) / s.level),
  gap, capGap: gap, side: s.side * 0.84, square,
});

/** The masters, the default first. */
export const STYLES: readonly Style[] = [REGULAR, LIGHT, HEAVY, narrow(REGULAR, 77, 68, 0.66, 0.16), narrow(LIGHT, 50, 46, 0.71, 0.12), narrow(HEAVY, 132, 106, 0.5, 0.2)];

/** What a letter is drawn to: the strokes, counters and lines of one kind of sign in one style. */
export type Measure = {
  /** Stroke widths to those drawn in the Regular. */
  readonly stemBy: number;
  readonly levelBy: number;
  readonly gapBy: number;
  readonly sideBy: number;
  readonly square: number;
  /** Where a height of the Regular lies: base line, x-height, capitals, and their overshoots. */
  line(y: number): number;
};

/** The lines letters of the Regular stand on and reach to, with what each becomes in a style. */
const lines = (s: Style): Record<number, number> => ({
  [-11]: -s.over, 0: 0, 520: s.xHeight, 531: s.xHeight + s.over, 690: 690, 701: 690 + s.over, 700: 700, 711: 700 + s.over, 742: 742,
});

function measure(s: Style, stemBy: number, levelBy: number, gapBy: number, place: (y: number) => number = (y) => y): Measure {
  const known = lines(s);
  return { stemBy, levelBy, gapBy, sideBy: s.side, square: s.square, line: (y) => place(known[y] ?? y) };
}

export const lowerMeasure = (s: Style): Measure => measure(s, s.stem / REGULAR.stem, s.level / REGULAR.level, s.gap);
export const capitalMeasure = (s: Style): Measure => measure(s, s.capStem / REGULAR.capStem, s.capLevel / REGULAR.capLevel, s.capGap);

/** Small capitals: a little taller than the x-height, as heavy as the lowercase, wider than capitals made smaller. */
export const smallCapMeasure = (s: Style): Measure => {
  const height = (s.xHeight + 22) / 700;
  const m = measure(s, (s.stem * 0.985) / REGULAR.capStem, (s.level * 0.98) / REGULAR.capLevel, s.capGap * 0.8, (y) =>
    y < 0 ? y * 0.9 : y > 700 ? 700 * height + (y - 700) * 0.9 : y * height,
  );
  return { ...m, sideBy: s.side * 0.9 };
};

/** Weight of small figures beside that of figures: heavy ones have less room. */
export const smallWeight = (s: Style): number => (s.weight > 600 ? 0.63 : 0.72);

/** Small figures and letters for superiors, inferiors and fractions, drawn again at their size and then raised. */
export const smallMeasure = (s: Style, raise: number): Measure => {
  const weight = smallWeight(s);
  const m = measure(s, (s.capStem * weight) / REGULAR.capStem, (s.capLevel * weight) / REGULAR.capLevel, s.capGap * 0.6, (y) => y * 0.6 + raise);
  return { ...m, sideBy: s.side * 0.62 };
};
