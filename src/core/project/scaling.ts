import type { Affine } from '../geometry/affine';
import { gridded, tidy } from '../geometry/tidy';
import type { Backdrop, Drawing, Glyph, Guide, Lib, Master, Project } from './model';

/** Facts of a source that are lengths in font units. */
const LENGTHS =
  /^(openTypeOS2(Typo|Win|Sub|Super|Strikeout)|openTypeHhea(Ascender|Descender|LineGap|CaretOffset)|openTypeVhea\w*(Ascender|Descender|LineGap|CaretOffset)|postscriptUnderline|postscript(Blue|Other|Family)\w*|postscriptStemSnap|postscriptDefaultWidthX|postscriptNominalWidthX)/;

/**
 * The project with every length in it multiplied by a factor: outlines, parts, anchors, guides, pictures, advances, metrics
 * and zones, stems, kerning and follow rules, of all masters, waypoints and takes. Places of points, anchors and parts land
 * on a grid of so many units.
 */
export function scaledProject(project: Project, factor: number, grid: number): Project {
  const land = (v: number) => gridded(v * factor, grid);
  const exact = (v: number) => tidy(v * factor);
  const guide = (g: Guide): Guide => ({ ...g, x: exact(g.x), y: exact(g.y) });
  const moved = ([a, b, c, d, x, y]: Affine): Affine => [a, b, c, d, land(x), land(y)];
  const exactly = (v: number) => Math.round(v * factor * 1e6) / 1e6;
  const place = <T extends { readonly x: number; readonly y: number }>(p: T): T => ({
    ...p,
    x: land(p.x),
    y: land(p.y),
  });
  const backdrop = (b: Backdrop): Backdrop => ({
    ...b,
    ...(b.outline?.kind === 'copy'
      ? { outline: { ...b.outline, contours: b.outline.contours.map((c) => ({ ...c, points: c.points.map(place) })) } }
      : {}),
    transform: b.outline ? moved(b.transform) : (b.transform.map(exactly) as unknown as Affine),
  });
  const drawing = (d: Drawing): Drawing => ({
    ...d,
    advance: land(d.advance),
    ...(d.verticalAdvance === undefined ? {} : { verticalAdvance: land(d.verticalAdvance) }),
    contours: d.contours.map((c) => ({ ...c, points: c.points.map(place) })),
    components: d.components.map((c) => ({ ...c, transform: moved(c.transform) })),
    anchors: d.anchors.map(place),
    guides: d.guides.map(guide),
    backdrops: d.backdrops.map(backdrop),
  });
  const rules = (all: Glyph['follows']['left']) => all.map((f) => ({ ...f, offset: exact(f.offset) }));
  const glyph = (g: Glyph): Glyph => ({
    ...g,
    drawings: Object.fromEntries(Object.entries(g.drawings).map(([m, d]) => [m, drawing(d)])),
    waypoints: g.waypoints.map((w) => ({ ...w, drawing: drawing(w.drawing) })),
    takes: g.takes.map((t) => ({ ...t, drawing: drawing(t.drawing) })),
    follows: { left: rules(g.follows.left), right: rules(g.follows.right) },
  });
  const info = (facts: Lib): Lib =>
    Object.fromEntries(
      Object.entries(facts).map(([key, v]) => {
        if (!LENGTHS.test(key)) return [key, v];
        if (typeof v === 'number') return [key, Math.round(v * factor)];
        return [key, Array.isArray(v) ? v.map((n) => (typeof n === 'number' ? Math.round(n * factor) : n)) : v];
      }),
    );
  const zone = <T extends { readonly position: number; readonly overshoot: number }>(z: T): T => ({
    ...z,
    position: land(z.position),
    overshoot: land(z.overshoot),
  });
  const master = (m: Master): Master => ({
    ...m,
    zones: {
      baseline: zone(m.zones.baseline),
      xHeight: zone(m.zones.xHeight),
      capHeight: zone(m.zones.capHeight),
      ascender: zone(m.zones.ascender),
      descender: zone(m.zones.descender),
      own: m.zones.own.map(zone),
    },
    verticalMetrics: Object.fromEntries(Object.entries(m.verticalMetrics).map(([k, v]) => [k, land(v as number)])),
    stems: m.stems.map((s) => ({ ...s, value: exact(s.value) })),
    guides: m.guides.map(guide),
    kerning: Object.fromEntries(Object.entries(m.kerning).map(([k, v]) => [k, land(v)])),
    ...(m.info ? { info: info(m.info) } : {}),
  });
  return {
    ...project,
    masters: project.masters.map(master),
    glyphs: Object.fromEntries(Object.entries(project.glyphs).map(([id, g]) => [id, glyph(g)])),
  };
}
