import { useMemo, useState } from 'react';
import { unevenFigures } from '../../../core/fitting/figures';
import { glyphsOfLine } from '../../../core/fitting/lines';
import { type FitProposal, takeFit } from '../../../core/fitting/proposal';
import { ManySides } from '../../../core/fitting/sides';
import { plural } from '../../../core/project/edit';
import { glyphTyped } from '../../../core/project/findGlyphs';
import type { GlyphId } from '../../../core/project/model';
import { useBench } from '../../state/bench';
import { runFar } from '../../state/far';
import { useMeasured } from '../../state/workedOut';
import { Modal } from '../../ui/Modal';
import { Button, TextField } from '../../ui/parts';
import { useRested } from '../../ui/rested';
import { LabelledWords } from '../../ui/SetGlyphs';
import { toggled } from '../../ui/toggled';
import { ProposedSides } from './ProposedSides';

const WORDS = 'hamburg station Velmarrow Halt';

/** Side bearings proposed from those that are kept, looked at in words before they are taken, glyph by glyph. */
export function FitProposalDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal open={open} onClose={onClose} title="Fit proposal" wide>
      {open && <Proposing onClose={onClose} />}
    </Modal>
  );
}

function Proposing({ onClose }: { onClose: () => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [keep, setKeep] = useState('n o H O');
  const [left, setLeft] = useState<ReadonlySet<GlyphId>>(new Set());
  const kept = useMemo(() => {
    const words = keep.split(/[\s,]+/).filter((w) => w !== '');
    const named = words.map((w) => glyphTyped(project, w));
    return { ids: new Set(named.flatMap((g) => g?.id ?? [])), missing: words.filter((_, i) => !named[i]) };
  }, [keep, project]);
  const keeping = [...kept.ids].join(' ');
  const asked = useRested(keeping, 300);
  const {
    data: all,
    isFetching,
    isError,
  } = useMeasured<FitProposal[]>(
    'sides proposed',
    { same: [master], by: [project.glyphs, project.masters, asked] },
    (s) => s.proposeFit(master, asked.split(' ')),
  );
  // Until what is typed has been measured, what is shown is of what was kept before.
  const isLate = asked !== keeping || isFetching;
  const proposals = useMemo(() => [...(all ?? [])].sort((a, b) => change(b) - change(a)), [all]);
  const taken = useMemo(() => proposals.filter((p) => !left.has(p.glyph)), [proposals, left]);
  const after = useMemo(() => {
    const wanted = new Set(glyphsOfLine(project, WORDS).glyphs);
    const sides = new ManySides(project);
    for (const { glyph, left: l, right } of taken)
      if (wanted.has(glyph)) sides.set({ at: { glyph, master }, left: l, right });
    return sides.done();
  }, [project, master, taken]);
  const uneven = unevenFigures(project, master);
  return (
    <div>
      <p className="mb-2 text-quiet">
        From the white that the kept glyphs leave, each of the others gets as much. Sides that follow another stay with
        it; figures keep their width.
      </p>
      <label className="mb-3 flex items-center gap-2">
        <span className="shrink-0 text-quiet">Keep as they are</span>
        <TextField value={keep} onChange={(e) => setKeep(e.target.value)} />
      </label>
      {uneven && (
        <p className="mb-2 rounded-lg bg-marigold-tint px-3 py-1">
          ▲ The figures are {uneven.width} wide but for {uneven.odd.map((id) => project.glyphs[id]!.name).join(', ')}.
        </p>
      )}
      <div className="mb-3 grid gap-1 rounded-lg border border-line bg-paper px-3 py-2">
        <LabelledWords project={project} master={master} label="Now" text={WORDS} kerned={false} />
        <LabelledWords project={after} master={master} label="Then" text={WORDS} kerned={false} />
      </div>
      <ProposedSides {...{ project, master, proposals, left }} onTick={(glyph) => setLeft(toggled(left, glyph))} />
      {all && proposals.length === 0 && <p className="mb-3">Every glyph has the white that the kept ones leave.</p>}
      <div className="flex items-center justify-end gap-2">
        {kept.missing.length > 0 ? (
          <span className="mr-auto text-brick">There is no glyph “{kept.missing[0]}” to keep.</span>
        ) : (
          <span role="status" className="mr-auto text-quiet">
            {isError
              ? 'The proposals could not be worked out.'
              : isLate
                ? 'Measuring the white that they leave…'
                : proposals.length > 0 && taken.length === 0 && 'None is ticked.'}
          </span>
        )}
        <Button onClick={onClose}>Leave as it is</Button>
        <Button
          kind="primary"
          disabled={taken.length === 0 || kept.missing.length > 0 || isLate}
          onClick={async () => {
            if (await runFar(takeFit, { master, proposals: taken }, { glyphs: taken.length })) onClose();
          }}
        >
          Fit {plural(taken.length, 'glyph')}
        </Button>
      </div>
    </div>
  );
}

const change = (p: FitProposal): number => Math.abs(p.left - p.now.left) + Math.abs(p.right - p.now.right);
