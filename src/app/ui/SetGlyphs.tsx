import { glyphsOfLine } from '../../core/fitting/lines';
import type { MasterId, Project } from '../../core/project/model';
import { drawingIn } from '../../core/project/outline';
import { drawingPath } from '../../core/project/pathData';
import { masterOf } from '../../core/project/queries';
import { type Placed, placed } from './placed';

/** Glyphs where they are placed, in font units, y up: for the inside of a picture. */
export function SetGlyphs({
  project,
  master,
  glyphs,
}: {
  project: Project;
  master: MasterId;
  glyphs: readonly Placed[];
}) {
  return (
    <g transform="scale(1 -1)" className="fill-ink">
      {glyphs.map(({ id, x }, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: a glyph is its place in the line.
          key={i}
          transform={`translate(${x} 0)`}
          d={drawingPath(project, master, drawingIn(project, project.glyphs[id]!, master))}
        />
      ))}
    </g>
  );
}

/** A line of words after its label: now and then, to be compared. */
export function LabelledWords({
  project,
  master: masterId,
  label,
  text,
  kerned,
}: {
  project: Project;
  master: MasterId;
  label: string;
  text: string;
  kerned: boolean;
}) {
  const master = masterOf(project, masterId)!;
  const { glyphs, width } = placed(project, master, glyphsOfLine(project, text).glyphs, !kerned);
  const [top, bottom] = [master.zones.ascender.position + 30, master.zones.descender.position - 10];
  return (
    <div className="flex items-center gap-3">
      <span className="w-10 shrink-0 text-quiet">{label}</span>
      <svg
        role="img"
        aria-label={`${label}: ${text}`}
        className="h-10 w-full min-w-0"
        viewBox={`0 ${-top} ${Math.max(1, width)} ${top - bottom}`}
        preserveAspectRatio="xMinYMid meet"
      >
        <SetGlyphs project={project} master={masterId} glyphs={glyphs} />
      </svg>
    </div>
  );
}
