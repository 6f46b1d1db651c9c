import { ToggleGroup } from 'radix-ui';
import { type UIEvent, useEffect, useMemo, useState } from 'react';
import type { StrokeKind } from '../../core/drawing/strokes';
import { type ManyAsked, type ManyWorked, takeWorkedGlyphs } from '../../core/drawing/strokesOfMany';
import { plural } from '../../core/project/edit';
import type { Glyph, GlyphId, Project } from '../../core/project/model';
import { masterOf } from '../../core/project/queries';
import { chooseGlyph, run, useBench } from '../state/bench';
import { setChosen, useCaseBench } from '../state/chosen';
import { closeDialog } from '../state/dialogs';
import { useJob } from '../state/useJob';
import { Radios } from '../ui/controls';
import { GlyphShape } from '../ui/GlyphShape';
import { Modal } from '../ui/Modal';
import { Button, TextField } from '../ui/parts';
import { reachOf } from '../ui/reach';
import { toggled } from '../ui/toggled';
import { EdgeFields } from './EdgeFields';
import { EDGE_KINDS, type EdgeSettings, edgeSettings, edgeWork, rememberEdges } from './settings';

type Where = 'here' | 'copies';
type Found = ManyWorked & { of: string };

/** Work on the edges of all chosen glyphs, looked at before it is taken over, or given to copies of them. */
export default function EdgesDialog() {
  const project = useBench((s) => s.settled)!;
  const current = useBench((s) => s.glyph);
  const chosen = useCaseBench((s) => s.chosen);
  const glyphs = useMemo(() => {
    const wanted = chosen.size > 0 ? chosen : new Set(current ? [current] : []);
    return project.glyphOrder.filter((id) => wanted.has(id));
  }, [project, chosen, current]);
  return (
    <Modal open onClose={closeDialog} title={`Edges of ${plural(glyphs.length, 'glyph')}`} wide>
      <Working project={project} glyphs={glyphs} />
    </Modal>
  );
}

function Working({ project, glyphs }: { project: Project; glyphs: readonly GlyphId[] }) {
  const master = useBench((s) => s.master);
  const [kind, setKind] = useState<StrokeKind>('frame');
  const [asked, setAsked] = useState(edgeSettings);
  const [where, setWhere] = useState<Where>('here');
  const [suffix, setSuffix] = useState('key');
  const [reach, setReach] = useState<'this' | 'all'>('all');
  const [left, setLeft] = useState<ReadonlySet<GlyphId>>(new Set());
  const masters = reach === 'all' ? project.masters.map((m) => m.id) : [master];
  const request: ManyAsked = { glyphs, masters, work: edgeWork(kind, asked), copies: where === 'copies' };
  const { found, share, fault, stop } = useWorked(project, request);
  const taken = found?.made.filter((m) => !left.has(m.glyph)) ?? [];
  const set = (change: Partial<EdgeSettings>) => {
    const next = { ...asked, ...change };
    rememberEdges(next);
    setAsked(next);
  };
  const take = () => {
    const before = new Set(project.glyphOrder);
    const ending = where === 'copies' ? suffix.trim() : undefined;
    if (!run((p) => takeWorkedGlyphs(p, { kind, made: taken, suffix: ending }))) return;
    if (ending) {
      const added = useBench.getState().settled!.glyphOrder.filter((id) => !before.has(id));
      if (added[0]) chooseGlyph(added[0]);
      setChosen(new Set(added));
    }
    closeDialog();
  };
  return (
    <div className="grid gap-5 sm:grid-cols-[220px_1fr]">
      <div>
        <ToggleGroup.Root
          type="single"
          orientation="vertical"
          aria-label="Work on edges"
          value={kind}
          onValueChange={(v) => v !== '' && setKind(v as StrokeKind)}
          className="mb-3 grid grid-cols-2 gap-0.5"
        >
          {EDGE_KINDS.map((k) => (
            <ToggleGroup.Item
              key={k.kind}
              value={k.kind}
              title={k.hint}
              className={`rounded-md px-2.5 py-1.5 text-left ${kind === k.kind ? 'bg-kelp-tint font-semibold text-kelp' : 'hover:bg-kelp-tint'}`}
            >
              {k.title}
            </ToggleGroup.Item>
          ))}
        </ToggleGroup.Root>
        <EdgeFields kind={kind} asked={asked} onChange={set} />
        <p className="mb-1 text-quiet">Whose edges</p>
        <Radios
          label="Whose edges"
          value={where}
          options={[
            { value: 'here', text: 'These glyphs' },
            { value: 'copies', text: 'Copies of them' },
          ]}
          onChange={setWhere}
        />
        {where === 'copies' && (
          <label className="mt-1 grid grid-cols-[86px_1fr] items-center gap-2">
            <span className="text-quiet">Names end in</span>
            <TextField value={suffix} aria-label="Names end in" onChange={(e) => setSuffix(e.target.value)} />
          </label>
        )}
        {project.masters.length > 1 && (
          <>
            <p className="mt-3 mb-1 text-quiet">Masters</p>
            <Radios
              label="Masters"
              value={reach}
              options={[
                { value: 'all', text: 'All' },
                { value: 'this', text: `${masterOf(project, master)!.name} alone` },
              ]}
              onChange={setReach}
            />
          </>
        )}
      </div>
      <div className="flex min-h-[380px] min-w-0 flex-col">
        <p className="mb-2 text-quiet">{EDGE_KINDS.find((k) => k.kind === kind)!.hint}.</p>
        {share !== undefined && (
          <p role="status" className="mb-2 flex items-center justify-between gap-2 text-quiet">
            Working on the edges… {Math.round(share * 100)} %<Button onClick={stop}>Stop</Button>
          </p>
        )}
        {fault && (
          <p role="alert" className="mb-2 text-brick">
            {fault}
          </p>
        )}
        {found && <Made key={found.of} project={project} found={found} left={left} onLeave={setLeft} />}
        {found && <Remarks project={project} found={found} asked={request} />}
        <div className="mt-3 flex justify-end gap-2">
          <Button onClick={closeDialog}>Leave as it is</Button>
          <Button
            kind="primary"
            disabled={taken.length === 0 || (where === 'copies' && suffix.trim() === '')}
            onClick={take}
          >
            {where === 'copies'
              ? `Make ${plural(taken.length, 'copy', 'copies')}`
              : `Change ${plural(taken.length, 'glyph')}`}
          </Button>
        </div>
      </div>
    </div>
  );
}

/** What the work comes to, worked out beside the hand; numbers that follow each other quickly are worked out once. */
function useWorked(project: Project, asked: ManyAsked) {
  const { share, found, fault, start, stop } = useJob<Found>();
  const of = JSON.stringify(asked);
  // biome-ignore lint/correctness/useExhaustiveDependencies: begun anew for what it is about.
  useEffect(() => {
    const timer = setTimeout(
      () =>
        start(async (service, progress) => ({ of, ...((await service.edgesOfMany(asked, progress)) as ManyWorked) })),
      120,
    );
    return () => clearTimeout(timer);
  }, [of, project]);
  return { share, found: found?.of === of ? found : undefined, fault, stop };
}

/** The letters as they would be; a press leaves one out. */
function Made({
  project,
  found,
  left,
  onLeave,
}: {
  project: Project;
  found: Found;
  left: ReadonlySet<GlyphId>;
  onLeave: (left: ReadonlySet<GlyphId>) => void;
}) {
  const here = useBench((s) => s.master);
  const [shown, setShown] = useState(96);
  const more = ({ currentTarget: box }: UIEvent<HTMLElement>) => {
    if (box.scrollTop + box.clientHeight > box.scrollHeight - 80 && shown < found.made.length) setShown(shown + 96);
  };
  const made = found.made.map((m): Glyph => {
    const glyph = project.glyphs[m.glyph]!;
    return { ...glyph, drawings: { ...glyph.drawings, ...m.drawings } };
  });
  const master = found.made[0]?.drawings[here] ? here : (Object.keys(found.made[0]?.drawings ?? {})[0] ?? here);
  const inSight = made.slice(0, shown);
  const height = reachOf(project, master, inSight);
  return (
    <ul
      aria-label="Letters as they would be"
      onScroll={more}
      className="grid max-h-[48vh] min-h-0 flex-1 grid-cols-[repeat(auto-fill,minmax(84px,1fr))] content-start gap-1.5 overflow-auto"
    >
      {inSight.map((g) => (
        <li key={g.id}>
          <button
            type="button"
            aria-pressed={!left.has(g.id)}
            title={
              left.has(g.id) ? `${g.name} stays as it is; press to change it too` : `Press to leave ${g.name} as it is`
            }
            data-testid="edges-made"
            onClick={() => onLeave(toggled(left, g.id))}
            className={`flex w-full flex-col items-center rounded-lg border p-1 ${left.has(g.id) ? 'border-line opacity-40' : 'border-edge'}`}
          >
            <GlyphShape project={project} glyph={g} master={master} size={68} reach={height} />
            <span className="w-full truncate text-center text-[11px] text-quiet">{g.name}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** What stays as it is and why, what else changes, and masters that would not agree any more. */
function Remarks({ project, found, asked }: { project: Project; found: Found; asked: ManyAsked }) {
  const made = new Set(found.made.map((m) => m.glyph));
  const also = asked.copies
    ? 0
    : project.glyphOrder.filter(
        (id) =>
          !made.has(id) &&
          Object.values(project.glyphs[id]!.drawings).some((d) => d.components.some((c) => made.has(c.glyph))),
      ).length;
  const reasons = [...new Set(found.left.map((l) => l.reason))];
  return (
    <div role="status" className="mt-2 grid gap-1 text-[13px] text-quiet">
      {reasons.map((reason) => {
        const of = found.left.filter((l) => l.reason === reason);
        return (
          <p key={reason}>
            {of.length === 1 ? 'Stays as it is' : `${of.length} stay as they are`}: {namesOf(project, of)}. {reason}
          </p>
        );
      })}
      {also > 0 && <p>{plural(also, 'more glyph is', 'more glyphs are')} built on these and will change with them.</p>}
      {found.apart.length > 0 && (
        <p className="text-ink">
          The masters of {found.apart.length === 1 ? 'one glyph' : `${found.apart.length} glyphs`} would no longer
          agree.
        </p>
      )}
    </div>
  );
}

function namesOf(project: Project, of: readonly { glyph: GlyphId }[]): string {
  const names = of.slice(0, 6).map((l) => project.glyphs[l.glyph]!.name);
  return names.join(', ') + (of.length > 6 ? ` and ${of.length - 6} more` : '');
}
