import { Tabs } from 'radix-ui';
import { useMemo } from 'react';
import { codePointForms } from '../../../core/base/notation';
import { keyParts, type PointKey, pointOf } from '../../../core/drawing/points';
import { plural } from '../../../core/project/edit';
import type { Glyph } from '../../../core/project/model';
import { drawingOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { useCalmProject } from '../../state/calm';
import { BesideSection } from '../../ui/BesideNumbers';
import { Details } from '../../ui/Details';
import { GlyphShape } from '../../ui/GlyphShape';
import { reachOf } from '../../ui/reach';
import { Tip } from '../../ui/Tip';
import { AnchorSection } from './details/AnchorSection';
import { BackdropSection } from './details/BackdropSection';
import { ContourSection } from './details/ContourSection';
import { EdgeSection } from './details/EdgeSection';
import { GuideSection } from './details/GuideSection';
import { PartnerSection } from './details/PartnerSection';
import { PartsSection } from './details/PartsSection';
import { PointSection } from './details/PointSection';
import { ReachRow } from './details/ReachRow';
import { ShapeSection } from './details/ShapeSection';
import { SideSection } from './details/SideSection';
import { SizeSection } from './details/SizeSection';
import { TakesSection } from './details/TakesSection';
import { TraceSection } from './details/TraceSection';
import { DETAIL_TABS, setTab, useDrawBench } from './drawBench';
import { TransformSection } from './TransformSection';

function headingFor(glyph: Glyph, selection: ReadonlySet<PointKey>): string {
  if (selection.size === 0) return glyph.name;
  const contours = new Set([...selection].map((k) => keyParts(k)[0])).size;
  return `${plural(selection.size, 'point')} on ${contours === 1 ? 'one contour' : `${contours} contours`}`;
}

/** What applies to the selection in Draw, one column. */
export function DrawDetails({ bringPicture }: { bringPicture: () => void }) {
  const project = useCalmProject();
  const master = useBench((s) => s.master);
  const id = useBench((s) => s.glyph)!;
  const selection = useBench((s) => s.selection);
  const glyph = project.glyphs[id]!;
  const drawing = drawingOf(glyph, master);
  const reach = reachOf(project, master, [glyph]);
  const tab = useDrawBench((s) => s.tab);
  const edges = useDrawBench((s) => s.edges);
  const tool = useDrawBench((s) => s.tool);
  const tracing = useDrawBench((s) => drawing.backdrops.some((b) => b.id === s.tracing));
  // The same list while the same points are there, so that what shows only them is not drawn again.
  const there = [...selection].filter((k) => pointOf(drawing, k)).join(' ');
  const kept = useMemo(() => (there === '' ? [] : (there.split(' ') as PointKey[])), [there]);
  const codes = codePointForms(glyph.unicodes);
  return (
    <Details
      heading={headingFor(glyph, new Set(kept))}
      sub={`${kept.length > 0 ? `${glyph.name} · ` : ''}${codes} · advance ${Math.round(drawing.advance * 10) / 10}`}
    >
      <div className="mb-3.5 flex items-end gap-2 border-b border-line pb-2" title="At 12, 16, 24 and 48 pixels">
        {[12, 16, 24, 48].map((px) => (
          <GlyphShape
            key={px}
            project={project}
            glyph={glyph}
            master={master}
            size={(px * (reach.top - reach.bottom)) / project.unitsPerEm}
            reach={reach}
          />
        ))}
      </div>
      {tracing ? (
        <TraceSection drawing={drawing} />
      ) : edges ? (
        <EdgeSection keys={kept} />
      ) : (
        <Tabs.Root value={tab} onValueChange={(t) => setTab(t as typeof tab)}>
          <Tabs.List aria-label="Details of" className="mb-3.5 flex gap-0.5 rounded-lg bg-paper p-0.5">
            {DETAIL_TABS.map(({ name, title, hint }) => (
              <Tip key={name} text={hint}>
                <Tabs.Trigger
                  value={name}
                  className={`flex-1 rounded-md py-0.5 text-[13px] ${tab === name ? 'bg-panel font-semibold text-kelp shadow-sm' : 'text-quiet hover:text-ink'}`}
                >
                  {title}
                </Tabs.Trigger>
              </Tip>
            ))}
          </Tabs.List>
          <Tabs.Content value="shape">
            <ReachRow />
            {(tool === 'oval' || tool === 'box') && <SizeSection title={tool === 'oval' ? 'Oval' : 'Box'} />}
            {kept.length > 0 && <PointSection drawing={drawing} keys={kept} />}
            {kept.length === 0 && <SideSection />}
            <ContourSection drawing={drawing} keys={kept} />
            {drawing.contours.length > 0 && <ShapeSection contours={drawing.contours.length} keys={kept} />}
            {drawing.contours.length + drawing.components.length > 0 && <TransformSection keys={kept} />}
          </Tabs.Content>
          <Tabs.Content value="parts">
            <ReachRow />
            <PartsSection drawing={drawing} keys={kept} />
            <AnchorSection drawing={drawing} />
            <GuideSection drawing={drawing} keys={kept} />
          </Tabs.Content>
          <Tabs.Content value="takes">
            <TakesSection />
          </Tabs.Content>
          <Tabs.Content value="behind">
            <BackdropSection drawing={drawing} bringPicture={bringPicture} />
            <PartnerSection />
            <BesideSection glyph={glyph} inDraw />
          </Tabs.Content>
        </Tabs.Root>
      )}
    </Details>
  );
}
