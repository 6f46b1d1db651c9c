import { besideScale, type Face } from '../../../core/fitting/beside';
import { glyphsOfLine } from '../../../core/fitting/lines';
import type { Project } from '../../../core/project/model';
import { masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { useBeside } from '../../state/beside';
import { placed } from '../../ui/placed';
import { SetGlyphs } from '../../ui/SetGlyphs';

/** The same lines in ours and in the font beside, one under the other, brought to one size; without kerning. */
export function BesideLines({ lines, size }: { lines: readonly string[]; size: number }) {
  const project = useBench((s) => s.project)!;
  const master = masterOf(
    project,
    useBench((s) => s.master),
  )!;
  const { face, by, name } = useBeside();
  if (!face) return <p className="p-8 text-quiet">No font lies beside yet: choose one under Beside at the right.</p>;
  const own = { project, master };
  const perUnit = size / project.unitsPerEm;
  return (
    <div className="min-h-0 flex-1 overflow-auto px-5 py-3" data-testid="beside-lines">
      {lines.map((text, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place among the lines.
        <div key={i} className="mb-4 border-b border-line pb-3">
          <Row face={own} text={text} perUnit={perUnit} label="ours" />
          <Row face={face} text={text} perUnit={perUnit * besideScale(own, face, by)} label={name ?? 'beside'} other />
        </div>
      ))}
    </div>
  );
}

function Row({
  face: { project, master },
  text,
  perUnit,
  label,
  other = false,
}: {
  face: Face;
  text: string;
  perUnit: number;
  label: string;
  other?: boolean;
}) {
  const { ids, missing } = idsOf(project, text);
  const { glyphs, width } = placed(project, master, ids, true);
  const { ascender, capHeight, descender } = master.zones;
  const top = Math.max(ascender.position, capHeight.position) + 0.08 * project.unitsPerEm;
  const bottom = descender.position - 0.03 * project.unitsPerEm;
  return (
    <figure className="flex items-center gap-3">
      <figcaption className="w-20 shrink-0 truncate text-[12px] text-quiet" title={label}>
        {label}
      </figcaption>
      <svg
        role="img"
        aria-label={`${text} in ${label}`}
        width={Math.max(1, width * perUnit)}
        height={(top - bottom) * perUnit}
        viewBox={`0 ${-top} ${Math.max(1, width)} ${top - bottom}`}
        className={other ? 'opacity-75' : ''}
      >
        <SetGlyphs project={project} master={master.id} glyphs={glyphs} />
      </svg>
      {missing > 0 && <span className="text-[12px] text-marigold">{missing} not in it</span>}
    </figure>
  );
}

function idsOf(project: Project, text: string) {
  const { glyphs, missing } = glyphsOfLine(project, text);
  return { ids: glyphs, missing: missing.length };
}
