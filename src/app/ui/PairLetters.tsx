import { memo } from 'react';
import type { GlyphId, MasterId, Project } from '../../core/project/model';
import { drawingOf, isEmptyDrawing, masterOf } from '../../core/project/queries';
import { characterOf } from './GlyphShape';
import { placed } from './placed';
import { SetGlyphs } from './SetGlyphs';

/** Two glyphs as they stand together, kerned: what a pair is, before what it is called. */
export const PairLetters = memo(function PairLetters({
  project,
  master: masterId,
  first,
  second,
  size = 26,
}: {
  project: Project;
  master: MasterId;
  first: GlyphId;
  second: GlyphId;
  size?: number;
}) {
  const master = masterOf(project, masterId);
  const [a, b] = [project.glyphs[first], project.glyphs[second]];
  if (!master || !a || !b) return null;
  const { ascender, capHeight, descender } = master.zones;
  const top = Math.max(ascender.position, capHeight.position) + project.unitsPerEm * 0.06;
  const bottom = descender.position - project.unitsPerEm * 0.03;
  const { glyphs, width } = placed(project, master, [first, second], false);
  const undrawn = [a, b].filter((g) => isEmptyDrawing(drawingOf(g, masterId)));
  if (undrawn.length === 2)
    return <span className="font-light text-quiet">{`${characterOf(a) || a.name} ${characterOf(b) || b.name}`}</span>;
  return (
    <svg
      aria-hidden="true"
      height={size}
      viewBox={`0 ${-top} ${Math.max(1, width)} ${top - bottom}`}
      className="shrink-0 overflow-visible"
    >
      <SetGlyphs project={project} master={masterId} glyphs={glyphs} />
    </svg>
  );
});
