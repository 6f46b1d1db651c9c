import { useMemo } from 'react';
import type { Anchor, Glyph, Master, Project } from '../../../../core/project/model';
import { drawingBounds, drawingsOf } from '../../../../core/project/outline';
import { drawingPath } from '../../../../core/project/pathData';
import { drawingOf, glyphsInOrder } from '../../../../core/project/queries';
import { chooseMaster, useBench } from '../../../state/bench';

const SIZE = 66;

/** The first mark that sits at an anchor of this name, drawn in every master; combining ones before others. */
function markAt(project: Project, name: string): Glyph | undefined {
  const sits = `_${name}`;
  const found = glyphsInOrder(project).filter((g) =>
    project.masters.every((m) => drawingOf(g, m.id).anchors.some((a) => a.name === sits)),
  );
  return found.find((g) => g.unicodes.includes(0x301) || g.unicodes.includes(0x327)) ?? found[0];
}

/** A glyph’s anchors in every master, side by side: the letter with a mark at each, and the place in numbers of the one chosen. */
export function AnchorMasters({ glyph, anchor }: { glyph: Glyph; anchor: string }) {
  const project = useBench((s) => s.project)!;
  const current = useBench((s) => s.master);
  const mark = useMemo(() => (anchor.startsWith('_') ? undefined : markAt(project, anchor)), [project, anchor]);
  if (project.masters.length < 2) return null;
  return (
    <ul aria-label={`The anchor ${anchor} in every master`} className="mt-2 mb-2 flex flex-wrap gap-1.5">
      {project.masters.map((m) => {
        const at = drawingOf(glyph, m.id).anchors.find((a) => a.name === anchor);
        return (
          <li key={m.id}>
            <button
              type="button"
              title={`${m.name}: go to this master`}
              aria-label={`${m.name}: ${at ? `${Math.round(at.x)}, ${Math.round(at.y)}` : 'no such anchor'}`}
              onClick={() => chooseMaster(m.id)}
              className={`rounded-lg border bg-paper p-0.5 text-center ${m.id === current ? 'border-kelp' : 'border-line'}`}
            >
              <Placed project={project} master={m} glyph={glyph} anchor={at} mark={mark} />
              <span className={`block text-[11px] ${at ? 'text-quiet' : 'text-brick'}`}>
                {at ? `${Math.round(at.x)}, ${Math.round(at.y)}` : 'none'}
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}

function Placed({
  project,
  master,
  glyph,
  anchor,
  mark,
}: {
  project: Project;
  master: Master;
  glyph: Glyph;
  anchor: Anchor | undefined;
  mark: Glyph | undefined;
}) {
  const drawing = drawingOf(glyph, master.id);
  const source = drawingsOf(project, master.id);
  const box = drawingBounds(drawing, source);
  const { zones } = master;
  const top = Math.max(box.yMax, zones.xHeight.position) + project.unitsPerEm * 0.3;
  const bottom = Math.min(box.yMin, zones.descender.position * 0.6) - project.unitsPerEm * 0.05;
  const height = Math.max(1, top - bottom);
  const sits = mark && drawingOf(mark, master.id).anchors.find((a) => a.name === `_${anchor?.name}`);
  return (
    <svg
      aria-hidden
      width={SIZE}
      height={SIZE}
      viewBox={`${drawing.advance / 2 - height / 2} ${-top} ${height} ${height}`}
    >
      <path d={drawingPath(project, master.id, drawing)} transform="scale(1 -1)" fill="currentColor" />
      {anchor && mark && sits && (
        <path
          d={drawingPath(project, master.id, drawingOf(mark, master.id))}
          transform={`translate(${anchor.x - sits.x} ${-(anchor.y - sits.y)}) scale(1 -1)`}
          className="fill-marigold"
          opacity={0.75}
        />
      )}
      {anchor && <circle cx={anchor.x} cy={-anchor.y} r={height / 45} className="fill-brick" />}
    </svg>
  );
}
