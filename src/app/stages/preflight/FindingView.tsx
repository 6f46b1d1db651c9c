import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { pointKey } from '../../../core/drawing/points';
import type { Family, Finding } from '../../../core/preflight/finding';
import { acceptFindings, unacceptFindings } from '../../../core/preflight/judged';
import { kindOf } from '../../../core/preflight/kinds';
import type { MasterId } from '../../../core/project/model';
import { masterOf } from '../../../core/project/queries';
import { layHands } from '../../keys/hands';
import { chooseGlyph, chooseMaster, run, select, useBench } from '../../state/bench';
import { usePreflight } from '../../state/preflight';
import type { StageKey } from '../../state/stages';
import { GlyphShape } from '../../ui/GlyphShape';
import { PairLetters } from '../../ui/PairLetters';
import { Button, Choice, TextField } from '../../ui/parts';
import { FindingPicture } from './FindingPicture';
import { MendWays, takeWay } from './MendWays';
import { setBench, usePreflightBench } from './preflightBench';
import { SeveritySign } from './signs';
import { pairOf } from './spots';

/** Where findings of a family are worked on. */
const WORKPLACE: Readonly<Record<Family, StageKey>> = {
  outlines: 'draw',
  heights: 'draw',
  parts: 'draw',
  fitting: 'fit',
  kerning: 'kern',
  masters: 'masters',
  characters: 'case',
  names: 'plan',
  lines: 'plan',
  features: 'features',
  files: 'cast',
};
const STAGE_NAMES: Partial<Record<StageKey, string>> = {
  draw: 'Draw',
  fit: 'Fit',
  kern: 'Kern',
  masters: 'Masters',
  case: 'the Case',
  plan: 'Plan',
  features: 'Features',
  cast: 'Cast',
};

/** One finding, large: the letter with the place, why it matters, its mends drawn beside it, and whether it is meant. */
export function FindingView({ finding }: { finding: Finding }) {
  const project = useBench((s) => s.settled)!;
  const shown = useBench((s) => s.master);
  const accepting = usePreflightBench((s) => s.accepting);
  const showAccepted = usePreflightBench((s) => s.showAccepted);
  const navigate = useNavigate();
  const facts = kindOf(finding.kind)!;
  const glyph = finding.glyph ? project.glyphs[finding.glyph] : undefined;
  const [why, setWhy] = useState(false);
  const [picked, setPicked] = useState<MasterId>();
  // Masters in which it is; the one that is shown on the bench, if it is among them.
  const masters = finding.masters.filter((m) => masterOf(project, m));
  const usual = masters.includes(shown)
    ? shown
    : (masters[0] ?? (masterOf(project, shown) ? shown : project.masters[0]!.id));
  // A waypoint is no master of the bench; it is looked at here only.
  const master = picked !== undefined && masters.includes(picked) ? picked : usual;
  const stage = WORKPLACE[facts.family];
  const pair = pairOf(finding);
  const open = () => {
    if (glyph) chooseGlyph(glyph.id);
    if (project.masters.some((m) => m.id === master)) chooseMaster(master);
    if (stage === 'draw' && glyph && finding.contour !== undefined && finding.point !== undefined && finding.point >= 0)
      select(new Set([pointKey(finding.contour, finding.point)]));
    const to = facts.kind.startsWith('names/') && facts.kind !== 'names/class' ? '../cast' : `../${stage}`;
    void navigate(`${to}${glyph ? `?glyph=${encodeURIComponent(glyph.name)}` : ''}`, { relative: 'path' });
  };
  useEffect(() =>
    layHands('finding', {
      mend: () => finding.mends[0] && void takeWay(finding.mends[0], master),
      accept: () => setBench({ accepting: !accepting }),
      open,
    }),
  );
  return (
    <section
      aria-label="The finding"
      className="flex min-w-0 flex-1 flex-col overflow-y-auto p-4 max-[760px]:overflow-visible"
    >
      <div className="mb-1 flex flex-wrap items-start gap-x-3 gap-y-1">
        <div className="min-w-0 flex-1">
          <p className="text-[13px] text-quiet">
            <SeveritySign severity={facts.severity} /> {facts.title}
            {glyph && (
              <>
                {' · '}
                <button
                  type="button"
                  className="text-kelp underline"
                  title="All findings of this glyph"
                  onClick={() => setBench({ glyph: glyph.id })}
                >
                  {glyph.name}
                </button>
              </>
            )}
          </p>
          <p className="text-[15px] font-semibold" data-testid="finding-reason">
            {finding.reason}
          </p>
        </div>
        <Button title="O" onClick={open}>
          Open in {STAGE_NAMES[stage]}
        </Button>
      </div>
      <p className="mb-2 text-[13.5px]">
        {why ? (
          facts.why
        ) : (
          <button type="button" className="text-kelp underline" onClick={() => setWhy(true)}>
            Why it matters
          </button>
        )}
      </p>
      {masters.length > 1 && glyph && (
        <div className="mb-2">
          <Choice
            label="Master"
            value={master}
            options={masters.map((m) => ({ value: m, text: masterOf(project, m)!.name }))}
            onChange={(m) => {
              const isMaster = project.masters.some((o) => o.id === m);
              setPicked(isMaster ? undefined : m);
              if (isMaster) chooseMaster(m);
            }}
          />
        </div>
      )}
      {masters.length === 1 && glyph && project.masters.length > 1 && (
        <p className="mb-2 text-[13px] text-quiet">In {masterOf(project, master)!.name}</p>
      )}
      <div className="flex flex-wrap gap-3">
        <div className="min-w-[280px] flex-1">
          {pair ? (
            <div className="flex justify-center rounded-xl border border-line bg-panel p-5">
              <PairLetters project={project} master={master} first={pair[0]} second={pair[1]} size={210} />
            </div>
          ) : glyph ? (
            <FindingPicture finding={finding} glyph={glyph} master={master} />
          ) : (
            <Others finding={finding} />
          )}
        </div>
        {!showAccepted && <MendWays key={`${finding.reason} ${master}`} finding={finding} master={master} />}
      </div>
      {showAccepted ? <AcceptedBar finding={finding} /> : <AcceptBar finding={finding} />}
    </section>
  );
}

/** So many glyphs are shown before one asks for the rest. */
const FIRST_OTHERS = 200;

/** The glyphs that a finding of the whole project names. */
function Others({ finding }: { finding: Finding }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [all, setAll] = useState(false);
  const glyphs = (finding.others ?? []).flatMap((id) => project.glyphs[id] ?? []);
  if (glyphs.length === 0) return null;
  const shown = all ? glyphs : glyphs.slice(0, FIRST_OTHERS);
  return (
    <ul
      aria-label="Glyphs that it is about"
      className="mb-3 flex max-h-56 flex-wrap gap-1 overflow-y-auto rounded-lg border border-line bg-panel p-2"
    >
      {shown.map((g) => (
        <li key={g.id} style={{ contentVisibility: 'auto', containIntrinsicSize: '46px 46px' }}>
          <button
            type="button"
            title={g.name}
            className="rounded-md p-1 hover:bg-kelp-tint"
            onClick={() => chooseGlyph(g.id)}
          >
            <GlyphShape
              project={project}
              glyph={g}
              master={masterOf(project, master) ? master : project.masters[0]!.id}
              size={38}
            />
          </button>
        </li>
      ))}
      {shown.length < glyphs.length && (
        <li className="self-center">
          <Button kind="quiet" onClick={() => setAll(true)}>
            Show {glyphs.length - shown.length} more
          </Button>
        </li>
      )}
    </ul>
  );
}

/** Says that a finding is a choice, not a fault: in this glyph or in all, with the reason. */
function AcceptBar({ finding }: { finding: Finding }) {
  const accepting = usePreflightBench((s) => s.accepting);
  const project = useBench((s) => s.settled)!;
  const { standing } = usePreflight();
  const [reason, setReason] = useState('');
  const glyph = finding.glyph ? project.glyphs[finding.glyph] : undefined;
  const own = useMemo(
    () => standing.filter((f) => f.kind === finding.kind && f.glyph === finding.glyph).length,
    [standing, finding],
  );
  const all = useMemo(() => standing.filter((f) => f.kind === finding.kind).length, [standing, finding]);
  const accept = (name: string | undefined, count: number) => {
    if (
      run((p) => acceptFindings(p, { kind: finding.kind, count, reason, ...(name !== undefined && { glyph: name }) }))
    )
      setBench({ accepting: false });
  };
  if (!accepting)
    return (
      <div className="mt-3">
        <Button kind="quiet" title="A choice, not a fault (A)" onClick={() => setBench({ accepting: true })}>
          It is meant…
        </Button>
      </div>
    );
  return (
    <form
      className="mt-3 flex flex-wrap items-center gap-2 rounded-lg border border-line bg-panel p-2"
      onSubmit={(e) => {
        e.preventDefault();
        accept(glyph?.name, Math.max(1, own));
      }}
    >
      <TextField
        aria-label="Why it is meant"
        placeholder="Why it is meant"
        maxLength={400}
        className="min-w-40 flex-1"
        autoFocus
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') setBench({ accepting: false });
        }}
      />
      {glyph && (
        <Button kind="primary" type="submit">
          Accept in {glyph.name}
          {own > 1 ? ` (${own})` : ''}
        </Button>
      )}
      <Button
        kind={glyph ? 'plain' : 'primary'}
        type={glyph ? 'button' : 'submit'}
        onClick={glyph ? () => accept(undefined, all) : undefined}
      >
        Accept in all{all > 1 ? ` (${all})` : ''}
      </Button>
      <Button kind="quiet" onClick={() => setBench({ accepting: false })}>
        Leave it
      </Button>
    </form>
  );
}

function AcceptedBar({ finding }: { finding: Finding }) {
  const project = useBench((s) => s.settled)!;
  const name = finding.glyph ? project.glyphs[finding.glyph]?.name : undefined;
  const list = project.settings.preflight?.accepted ?? [];
  const held =
    list.find((a) => a.kind === finding.kind && a.glyph === name) ??
    list.find((a) => a.kind === finding.kind && a.glyph === undefined);
  if (!held) return null;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3">
      <p className="min-w-0">
        Accepted {held.glyph === undefined ? 'in all glyphs' : `in ${held.glyph}`}
        {held.reason ? `: “${held.reason}”` : ', without a reason'}.
      </p>
      <Button
        onClick={() =>
          run((p) => unacceptFindings(p, { kind: held.kind, ...(held.glyph !== undefined && { glyph: held.glyph }) }))
        }
      >
        Bring it back
      </Button>
    </div>
  );
}
