import { useState } from 'react';
import { ALIKE_ENOUGH, type GroupProposal, takeGroups } from '../../../core/kerning/groups';
import { plural } from '../../../core/project/edit';
import { run, useBench } from '../../state/bench';
import { useJob } from '../../state/useJob';
import { Bar, Check, Slide } from '../../ui/controls';
import { GlyphShape } from '../../ui/GlyphShape';
import { Modal } from '../../ui/Modal';
import { Button } from '../../ui/parts';

const keyOf = (p: GroupProposal): string => `${p.side} ${p.leader}`;

/** Groups proposed from the shapes of sides, for glyphs that are in none; each is looked at and taken or left. */
export function GroupsDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [atLeast, setAtLeast] = useState(ALIKE_ENOUGH);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const { share, found, fault, start, stop, clear } = useJob<readonly GroupProposal[]>();
  const close = () => {
    clear();
    setLeft(new Set());
    onClose();
  };
  const taken = (found ?? []).filter((p) => !left.has(keyOf(p)));
  return (
    <Modal open={open} onClose={close} title="Groups from shapes" wide>
      <p className="mb-3 text-quiet">
        Glyphs in no group are held against the first glyph of each, side by side. What looks alike there can be kerned
        as one.
      </p>
      <div className="mb-3 flex items-center gap-3">
        <span className="flex flex-1 items-center gap-2">
          <span className="shrink-0">At least this alike</span>
          <Slide
            label="At least this alike"
            min={80}
            max={99}
            value={Math.round(atLeast * 100)}
            className="min-w-0 flex-1"
            onChange={(v) => setAtLeast(v / 100)}
          />
          <span className="w-12 text-right">{Math.round(atLeast * 100)} %</span>
        </span>
        {share === undefined ? (
          <Button onClick={() => start((service, progress) => service.proposeGroups(master, atLeast, progress))}>
            {found ? 'Look again' : 'Look for groups'}
          </Button>
        ) : (
          <Button onClick={stop}>Stop</Button>
        )}
      </div>
      {share !== undefined && <Bar label="Working" share={share} />}
      {fault && (
        <p role="alert" className="mb-3 text-brick">
          {fault}
        </p>
      )}
      {found?.length === 0 && <p className="mb-3">Nothing that is in no group is as alike as that.</p>}
      {found && found.length > 0 && (
        <ul className="mb-3 grid max-h-[46vh] gap-1.5 overflow-auto" aria-label="Proposed groups">
          {found.map((p) => (
            <li key={keyOf(p)} className="flex items-center gap-3 rounded-lg border border-line px-2.5 py-1">
              <Check
                label={p.name}
                className="w-44 shrink-0 items-center"
                checked={!left.has(keyOf(p))}
                onChange={(on) => {
                  const next = new Set(left);
                  if (on) next.delete(keyOf(p));
                  else next.add(keyOf(p));
                  setLeft(next);
                }}
              >
                <span className="min-w-0">
                  <b className="block truncate font-semibold">{p.name}</b>
                  <span className="text-[12.5px] text-quiet">
                    as {p.side}
                    {p.group === undefined ? ', new' : `, ${p.members.length} more`}
                  </span>
                </span>
              </Check>
              <span className="flex min-w-0 flex-wrap gap-x-2">
                {[{ glyph: p.leader, likeness: 1 }, ...p.members].slice(0, 24).map(({ glyph, likeness }, i) => (
                  <span
                    key={glyph}
                    className={`flex flex-col items-center ${i === 0 ? 'border-r border-line pr-2' : ''}`}
                    title={project.glyphs[glyph]?.name}
                  >
                    <GlyphShape project={project} glyph={project.glyphs[glyph]!} master={master} size={34} />
                    <span className="text-[11px] text-quiet">
                      {i === 0 ? p.side : `${Math.floor(likeness * 100)} %`}
                    </span>
                  </span>
                ))}
                {p.members.length > 23 && (
                  <span className="self-center text-quiet">and {p.members.length - 23} more</span>
                )}
              </span>
            </li>
          ))}
        </ul>
      )}
      <div className="flex items-center justify-end">
        {taken.length === 0 && share === undefined && (
          <span className="mr-auto text-quiet">
            {!found ? 'Look for groups first.' : found.length === 0 ? 'There is nothing to take.' : 'None is ticked.'}
          </span>
        )}
        <Button
          kind="primary"
          disabled={taken.length === 0}
          onClick={() => {
            if (run((p) => takeGroups(p, { proposals: taken }))) close();
          }}
        >
          Take {plural(taken.length, 'group')}
        </Button>
      </div>
    </Modal>
  );
}
