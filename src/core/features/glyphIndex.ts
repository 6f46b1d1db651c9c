import { distance } from './parse';

/** Glyphs of the font that rules speak of: their indices by name, and how to say that one is not there. */
export class GlyphIndex {
  private readonly byName: ReadonlyMap<string, number>;

  /**
   * `waiting` are glyphs of the project that are not in the font, as they are not drawn yet; `away` those that are left out of this
   * font on purpose, so that nothing is to be said of them.
   */
  constructor(
    readonly names: readonly string[],
    private readonly waiting: ReadonlySet<string> = new Set(),
    private readonly away: ReadonlySet<string> = new Set(),
  ) {
    const byName = new Map<string, number>();
    names.forEach((name, i) => {
      if (!byName.has(name)) byName.set(name, i);
    });
    this.byName = byName;
  }

  isWaiting = (name: string): boolean => this.waiting.has(name);

  isAway = (name: string): boolean => this.away.has(name);

  /** Is it a glyph of the project, in this font or not? */
  isKnown = (name: string): boolean => this.byName.has(name) || this.waiting.has(name) || this.away.has(name);

  find = (name: string): number | undefined => this.byName.get(name);

  /** The glyphs whose names a misspelt one may mean: those that share its beginning or differ in few letters. */
  near(name: string): string[] {
    const first = name.split(/[._-]/, 1)[0]!;
    const scored: [string, number][] = [];
    for (const n of this.names) {
      if (Math.abs(n.length - name.length) > 4 && !n.startsWith(first)) continue;
      const score = distance(n.slice(0, 40), name.slice(0, 40)) - (n.startsWith(first) ? 1 : 0);
      if (score <= Math.max(2, name.length / 3)) scored.push([n, score]);
    }
    return scored
      .sort((a, b) => a[1] - b[1] || (a[0] < b[0] ? -1 : 1))
      .slice(0, 3)
      .map(([n]) => n);
  }

  /** “Glyph f_j is not in the project. Near: f_f_j, fj.” */
  missing(name: string): string {
    if (this.isWaiting(name)) return `Glyph ${name} is not drawn yet; what names it waits.`;
    const near = this.near(name);
    return `Glyph ${name} is not in the project.${near.length > 0 ? ` Near: ${near.join(', ')}.` : ''}`;
  }
}
