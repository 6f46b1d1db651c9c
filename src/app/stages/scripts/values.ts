import { shownNumber } from '../../../core/base/notation';
import { sidesOf } from '../../../core/fitting/sides';
import type { GlyphId, MasterId, Project } from '../../../core/project/model';
import { drawingOf } from '../../../core/project/queries';

/** What of a glyph is other than before, in words and numbers, in a master; and in which others where nothing is in this one. */
export function valuesChanged(before: Project, after: Project, id: GlyphId, master: MasterId): string[] {
  const [was, is] = [before.glyphs[id]!, after.glyphs[id]!];
  const [old, now] = [drawingOf(was, master), drawingOf(is, master)];
  const out: string[] = [];
  if (was.name !== is.name) out.push(`${was.name} → ${is.name}`);
  if (was.unicodes.join() !== is.unicodes.join()) out.push('code points');
  if (old !== now) {
    const [a, b] = [sidesOf(before, was, master), sidesOf(after, is, master)];
    const change = (word: string, from: number, to: number) => {
      if (Math.abs(from - to) > 0.005) out.push(`${word} ${shownNumber(from)} → ${shownNumber(to)}`);
    };
    if ('left' in a && 'left' in b) {
      change('left', a.left, b.left);
      change('right', a.right, b.right);
    }
    change('wide', old.advance, now.advance);
    const points = (d: typeof old) => d.contours.reduce((sum, c) => sum + c.points.length, 0);
    if (old.contours !== now.contours && points(old) !== points(now))
      out.push(`${points(old)} → ${points(now)} points`);
    if (old.anchors !== now.anchors && old.contours === now.contours) out.push('anchors');
    if (old.components.length !== now.components.length) out.push('parts');
  }
  if (out.length > 0) return out;
  const others = after.masters.filter((m) => drawingOf(was, m.id) !== drawingOf(is, m.id)).map((m) => m.name);
  return old === now && others.length > 0
    ? [`in ${others.slice(0, 2).join(', ')}${others.length > 2 ? ' …' : ''}`]
    : [];
}
