import { numberOfText } from '../base/fingerprint';
import { listed } from '../base/text';
import { plural } from '../project/edit';
import type { Project } from '../project/model';

/** What a project was like when fonts were cast, short enough to be kept: a number for each thing that may change. */
export type Fingerprint = {
  /** By glyph name, of its drawings in all masters. */
  glyphs: Readonly<Record<string, number>>;
  /** By master name: how many pairs, and a number for what they are. */
  kerning: Readonly<Record<string, readonly [pairs: number, all: number]>>;
  /** By the title of a section of rules. */
  rules: Readonly<Record<string, number>>;
};

export function fingerprintOf(project: Project): Fingerprint {
  const glyphs: Record<string, number> = {};
  for (const id of project.glyphOrder) {
    const g = project.glyphs[id]!;
    if (!g.cast) continue;
    const drawn = project.masters.map((m) => {
      const d = g.drawings[m.id];
      return d && [d.advance, d.contours, d.components, d.anchors];
    });
    glyphs[g.name] = numberOfText(JSON.stringify([drawn, g.waypoints, g.handovers]));
  }
  const kerning = Object.fromEntries(
    project.masters.map((m) => {
      const entries = Object.entries(m.kerning).sort(([a], [b]) => (a < b ? -1 : 1));
      return [m.name, [entries.length, numberOfText(JSON.stringify(entries))] as const];
    }),
  );
  const rules: Record<string, number> = {};
  for (const s of project.features.sections)
    rules[s.title] = numberOfText(JSON.stringify([rules[s.title] ?? 0, s.text, s.automatic ?? '', s.options]));
  return { glyphs, kerning, rules };
}

/** What has changed between two fingerprints, a sentence for each kind of thing; none where nothing has. */
export function changesBetween(before: Fingerprint, now: Fingerprint): string[] {
  const out: string[] = [];
  const names = Object.keys(now.glyphs);
  const fresh = names.filter((n) => before.glyphs[n] === undefined);
  const drawn = names.filter((n) => before.glyphs[n] !== undefined && before.glyphs[n] !== now.glyphs[n]);
  const gone = Object.keys(before.glyphs).filter((n) => now.glyphs[n] === undefined);
  if (drawn.length > 0) out.push(`${plural(drawn.length, 'glyph')} drawn or spaced anew: ${listed(drawn, 12)}.`);
  if (fresh.length > 0) out.push(`${plural(fresh.length, 'glyph')} more: ${listed(fresh, 12)}.`);
  if (gone.length > 0) out.push(`${plural(gone.length, 'glyph')} fewer: ${listed(gone, 12)}.`);
  const masters = Object.keys(now.kerning);
  const kerned = masters.filter((m) => before.kerning[m] && before.kerning[m]![1] !== now.kerning[m]![1]);
  for (const m of kerned) {
    const more = now.kerning[m]![0] - before.kerning[m]![0];
    out.push(
      more === 0
        ? `Kerning changed in ${m}.`
        : `Kerning changed in ${m}: ${plural(Math.abs(more), 'pair')} ${more > 0 ? 'more' : 'fewer'}.`,
    );
  }
  const added = masters.filter((m) => !before.kerning[m]);
  if (added.length > 0) out.push(`Masters that are new: ${listed(added)}.`);
  const rules = [...new Set([...Object.keys(before.rules), ...Object.keys(now.rules)])].filter(
    (t) => before.rules[t] !== now.rules[t],
  );
  if (rules.length > 0) out.push(`Rules changed: ${listed(rules, 8)}.`);
  return out;
}
