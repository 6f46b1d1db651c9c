import { FeatureFault } from './cursor';
import type { DraftLookup } from './lookups';
import type { Names } from './resolve';
import type { Statement } from './tree';

/**
 * What \`aalt\` gathers: its own rules and those of the features that it names, as one lookup of single replacements and one of
 * choices (specification, “The all-alternates feature”).
 */
export class Alternates {
  readonly features = new Set<string>();
  private readonly rules = new Map<number, number[]>();

  /** A rule within \`aalt\` itself. */
  add(s: Extract<Statement, { kind: 'sub' }>, names: Names): void {
    if (s.pattern.isContext || s.pattern.input.length !== 1)
      throw new FeatureFault('aalt replaces one glyph by another, or by one of several.', s);
    const from = names.glyphs(s.pattern.input[0]!.set);
    const to = s.choice || s.by?.[0] ? names.glyphs(s.choice ?? s.by![0]!) : [];
    from.forEach((g, i) => {
      const list: number[] = this.rules.get(g) ?? [];
      this.rules.set(g, list);
      list.push(...(s.choice ? to : [to[to.length === 1 ? 0 : i] ?? g]));
    });
  }

  /** The lookups that all of it makes; \`of\` gives the lookups of a feature. */
  lookups(of: (tag: string) => readonly DraftLookup[]): DraftLookup[] {
    const all = new Map<number, number[]>([...this.rules].map(([g, list]) => [g, [...list]]));
    const add = (g: number, to: number) => {
      const list = all.get(g) ?? [];
      all.set(g, list);
      if (!list.includes(to)) list.push(to);
    };
    for (const tag of this.features)
      for (const { parts } of of(tag.trimEnd()))
        for (const part of parts) {
          if (part.kind === 'single') for (const [g, to] of part.by) add(g, to);
          if (part.kind === 'alternate') for (const [g, list] of part.by) for (const to of list) add(g, to);
        }
    const single = new Map([...all].filter(([, l]) => l.length === 1).map(([g, l]) => [g, l[0]!]));
    const several = new Map([...all].filter(([, l]) => l.length > 1));
    const draft = (part: DraftLookup['parts'][number]): DraftLookup => ({
      table: 'GSUB',
      flag: { flags: 0 },
      parts: [part],
      from: { from: 0, to: 0 },
      feature: 'aalt',
    });
    return [
      ...(single.size > 0 ? [draft({ kind: 'single', by: single })] : []),
      ...(several.size > 0 ? [draft({ kind: 'alternate', by: several })] : []),
    ];
  }
}
