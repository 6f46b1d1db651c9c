import { ToggleGroup } from 'radix-ui';
import { useEffect, useState } from 'react';
import { plural } from '../../../core/project/edit';
import type { Drawing, Project } from '../../../core/project/model';
import { drawingPath } from '../../../core/project/pathData';
import { defaultMaster, drawingOf, masterOf } from '../../../core/project/queries';
import {
  TIDY,
  TIDY_NAMES,
  type TidyName,
  type TidyOperation,
  type TidyProposal,
  takeTidying,
} from '../../../core/tidying/operations';
import { run, select, useBench } from '../../state/bench';
import { useJob } from '../../state/useJob';
import { Check, Radios } from '../../ui/controls';
import { Modal } from '../../ui/Modal';
import { Button, NumberField } from '../../ui/parts';

/** How many proposals are shown with pictures; all of them are carried out. */
const MOST_SHOWN = 60;

const bothOf = (one: string, all: string) =>
  [
    { value: 'this', text: one },
    { value: 'all', text: all },
  ] as const;

type Scope = { glyphs: 'this' | 'all'; masters: 'this' | 'all' };
type Work = { proposals: readonly TidyProposal[] | undefined; share: number };

/** Proposals of one tidying operation over one glyph or many, looked at before they are taken over. */
export function TidyDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal open={open} onClose={onClose} title="Tidy" wide>
      {open && <Tidying onClose={onClose} />}
    </Modal>
  );
}

function Tidying({ onClose }: { onClose: () => void }) {
  const project = useBench((s) => s.settled)!;
  const glyph = useBench((s) => s.glyph)!;
  const master = useBench((s) => s.master);
  const [operation, setOperation] = useState<TidyName>('extremes');
  const [amounts, setAmounts] = useState<Readonly<Record<string, number>>>({});
  const [scope, setScope] = useState<Scope>({ glyphs: 'this', masters: 'all' });
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const { option, hint } = TIDY[operation] as TidyOperation;
  const amount = amounts[operation] ?? option?.usual;
  const work = useProposals(project, glyph, master, operation, amount, scope);
  const taken = work.proposals?.filter((p) => !left.has(p.glyph)) ?? [];
  const total = (key: 'before' | 'after') => taken.reduce((sum, p) => sum + p[key], 0);

  return (
    <div className="grid grid-cols-[190px_1fr] gap-5">
      <div>
        <ToggleGroup.Root
          type="single"
          orientation="vertical"
          aria-label="Operations"
          value={operation}
          onValueChange={(name) => {
            if (name === '') return;
            setOperation(name as TidyName);
            setLeft(new Set());
          }}
          className="mb-3 grid gap-0.5"
        >
          {TIDY_NAMES.map((name) => (
            <ToggleGroup.Item
              key={name}
              value={name}
              title={TIDY[name].hint}
              className={`rounded-md px-2.5 py-1.5 text-left ${operation === name ? 'bg-kelp-tint font-semibold text-kelp' : 'hover:bg-kelp-tint'}`}
            >
              {TIDY[name].title}
            </ToggleGroup.Item>
          ))}
        </ToggleGroup.Root>
        {option && (
          <div className="mb-3">
            <NumberField
              label={`${option.label} (${option.unit})`}
              value={amount}
              onChange={(v) =>
                setAmounts({ ...amounts, [operation]: Math.max(option.least, Math.min(option.most, v)) })
              }
            />
          </div>
        )}
        <p className="mb-1 text-quiet">Glyphs</p>
        <Radios
          label="Glyphs"
          value={scope.glyphs}
          options={bothOf(`Only ${project.glyphs[glyph]!.name}`, 'All glyphs')}
          onChange={(glyphs) => setScope({ ...scope, glyphs })}
        />
        {project.masters.length > 1 && (
          <>
            <p className="mt-3 mb-1 text-quiet">Masters</p>
            <Radios
              label="Masters"
              value={scope.masters}
              options={bothOf(masterOf(project, master)!.name, 'All, kept agreeing')}
              onChange={(masters) => setScope({ ...scope, masters })}
            />
          </>
        )}
      </div>
      <div className="flex min-h-[380px] min-w-0 flex-col">
        <p className="mb-2 text-quiet">{hint}.</p>
        <div className="max-h-[52vh] min-h-0 flex-1 overflow-auto">
          {work.proposals === undefined && (
            <p role="status" className="text-quiet">
              Looking… {scope.glyphs === 'all' ? `${Math.round(work.share * 100)} %` : ''}
            </p>
          )}
          {work.proposals?.length === 0 && <p>There is nothing to tidy that way.</p>}
          <ul aria-label="Proposals" className="grid grid-cols-2 gap-2">
            {work.proposals?.slice(0, MOST_SHOWN).map((p) => (
              <li key={p.glyph} className="rounded-lg border border-line p-2" data-testid="tidy-proposal">
                <Proposal
                  project={project}
                  proposal={p}
                  master={p.drawings[master] ? master : (Object.keys(p.drawings)[0] ?? defaultMaster(project).id)}
                />
                <Check
                  label={project.glyphs[p.glyph]!.name}
                  className="mt-1 items-baseline"
                  checked={!left.has(p.glyph)}
                  onChange={(on) => setLeft(on ? without(left, p.glyph) : new Set([...left, p.glyph]))}
                >
                  <b className="font-semibold">{project.glyphs[p.glyph]!.name}</b>{' '}
                  <span className="text-quiet">
                    {p.before} → {p.after} points ·{' '}
                    {p.deviation < 0.005 ? 'same shape' : `at most ${p.deviation.toFixed(2)} units off`}
                    {p.apart ? ' · masters do not agree' : ''}
                  </span>
                </Check>
              </li>
            ))}
          </ul>
          {(work.proposals?.length ?? 0) > MOST_SHOWN && (
            <p className="mt-2 text-quiet">and {work.proposals!.length - MOST_SHOWN} more glyphs.</p>
          )}
        </div>
        <div className="mt-3 flex items-center justify-end gap-2">
          {taken.length > 0 && (
            <span className="mr-auto text-quiet">
              {plural(taken.length, 'glyph')}: {total('before')} → {total('after')} points
            </span>
          )}
          <Button onClick={onClose}>Leave as it is</Button>
          <Button
            kind="primary"
            disabled={taken.length === 0}
            onClick={() => {
              if (!run((p) => takeTidying(p, { operation, proposals: taken }))) return;
              select(new Set());
              onClose();
            }}
          >
            {taken.length < 2 ? 'Tidy' : `Tidy ${plural(taken.length, 'glyph')}`}
          </Button>
        </div>
      </div>
    </div>
  );
}

/** Proposals from a worker; a change of what is asked for ends the work on what was asked before. */
function useProposals(
  project: Project,
  glyph: string,
  master: string,
  operation: TidyName,
  amount: number | undefined,
  scope: Scope,
): Work {
  const { share, found, start, stop } = useJob<readonly TidyProposal[]>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: a job is begun anew for what it is about.
  useEffect(() => {
    const glyphs = scope.glyphs === 'all' ? project.glyphOrder : [glyph];
    const masters = scope.masters === 'all' ? project.masters.map((m) => m.id) : [master];
    start((service, progress) => service.tidy({ operation, glyphs, masters, amount }, progress));
    return stop;
  }, [project, operation, glyph, master, scope, amount]);
  return { proposals: found, share: share ?? 0 };
}

/** Before and after, each with its points. */
function Proposal({ project, proposal, master }: { project: Project; proposal: TidyProposal; master: string }) {
  const before = drawingOf(project.glyphs[proposal.glyph]!, master);
  const after = proposal.drawings[master] ?? before;
  return (
    <div className="flex justify-around">
      <Sketch project={project} master={master} drawing={before} other={after} label="Before" />
      <Sketch project={project} master={master} drawing={after} other={before} label="After" />
    </div>
  );
}

/** An outline with its points; those that the other drawing has not are set off. */
function Sketch({
  project,
  master,
  drawing,
  other,
  label,
}: {
  project: Project;
  master: string;
  drawing: Drawing;
  other: Drawing;
  label: string;
}) {
  const { zones } = masterOf(project, master)!;
  const [top, bottom] = [
    Math.max(zones.ascender.position, zones.capHeight.position) + 60,
    zones.descender.position - 40,
  ];
  const height = top - bottom;
  const width = Math.max(height * 0.7, drawing.advance);
  const dot = height / 60;
  const known = new Set(other.contours.flatMap((c) => c.points.map((p) => `${p.type === 'off'} ${p.x} ${p.y}`)));
  return (
    <svg
      role="img"
      aria-label={label}
      className="h-32 max-w-[48%]"
      viewBox={`${drawing.advance / 2 - width / 2} ${-top} ${width} ${height}`}
    >
      <title>{label}</title>
      <g transform="scale(1 -1)">
        <path d={drawingPath(project, master, drawing)} className="fill-ink/12 stroke-ink" strokeWidth={dot / 2.5} />
        {drawing.contours.flatMap((c, i) =>
          c.points
            .map((p) => ({ ...p, own: !known.has(`${p.type === 'off'} ${p.x} ${p.y}`) }))
            .filter((p) => p.type !== 'off' || p.own)
            .map((p, k) => (
              <circle
                // biome-ignore lint/suspicious/noArrayIndexKey: a point is its place in the order.
                key={`${i} ${k}`}
                cx={p.x}
                cy={p.y}
                r={p.own ? dot * 1.5 : dot}
                className={p.own ? 'fill-marigold' : 'fill-kelp'}
              />
            )),
        )}
      </g>
    </svg>
  );
}

const without = (set: ReadonlySet<string>, key: string): Set<string> => new Set([...set].filter((k) => k !== key));
