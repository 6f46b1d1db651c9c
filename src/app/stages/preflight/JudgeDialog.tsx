import { FAMILIES, type Family, type KindFacts } from '../../../core/preflight/finding';
import { amountsOf, isJudged, judgeKinds } from '../../../core/preflight/judged';
import { KINDS } from '../../../core/preflight/kinds';
import { run, useBench } from '../../state/bench';
import { usePreflight } from '../../state/preflight';
import { Check } from '../../ui/controls';
import { Modal } from '../../ui/Modal';
import { Button, NumberField } from '../../ui/parts';
import { setBench, usePreflightBench } from './preflightBench';

/** What is looked for in this project, and how strictly. */
export function JudgeDialog() {
  const open = usePreflightBench((s) => s.judging);
  return (
    <Modal open={open} onClose={() => setBench({ judging: false })} title="What is looked for, and how strictly" wide>
      <Measures />
    </Modal>
  );
}

function Measures() {
  const project = useBench((s) => s.settled)!;
  const own = project.settings.preflight?.kinds ?? {};
  const changed = Object.keys(own).length;
  return (
    <div className="grid gap-3">
      {(Object.keys(FAMILIES) as Family[])
        .filter((f) => f !== 'files')
        .map((family) => (
          <FamilyMeasures key={family} family={family} />
        ))}
      {changed > 0 && (
        <div>
          <Button
            onClick={() =>
              run((p) => judgeKinds(p, { kinds: Object.fromEntries(Object.keys(own).map((k) => [k, null])) }))
            }
          >
            Back to the usual measures
          </Button>
        </div>
      )}
    </div>
  );
}

function FamilyMeasures({ family }: { family: Family }) {
  const project = useBench((s) => s.settled)!;
  const kinds = KINDS.filter((k) => k.family === family);
  const on = kinds.filter((k) => isJudged(project, k.kind)).length;
  const setAll = (value: boolean) =>
    run((p) => judgeKinds(p, { kinds: Object.fromEntries(kinds.map((k) => [k.kind, { on: value }])) }));
  return (
    <details className="rounded-lg border border-line">
      <summary className="cursor-pointer px-3 py-1.5">
        <span className="font-semibold">{FAMILIES[family]}</span>{' '}
        <span className="text-quiet">
          {on === kinds.length ? 'all' : on === 0 ? 'none' : `${on} of ${kinds.length}`} looked for
        </span>
      </summary>
      <div className="grid gap-1 border-t border-line px-3 py-2">
        {kinds.map((k) => (
          <KindMeasure key={k.kind} facts={k} />
        ))}
        <div className="mt-1">
          <Button kind="quiet" onClick={() => setAll(on < kinds.length)}>
            {on < kinds.length ? 'Look for all of these' : 'Look for none of these'}
          </Button>
        </div>
      </div>
    </details>
  );
}

function KindMeasure({ facts }: { facts: KindFacts }) {
  const project = useBench((s) => s.settled)!;
  const count = usePreflight((s) => s.standing.filter((f) => f.kind === facts.kind).length);
  const on = isJudged(project, facts.kind);
  const { amount } = facts;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <span className="min-w-0 flex-1" title={facts.why}>
        <Check
          label={facts.title}
          checked={on}
          onChange={(value) => run((p) => judgeKinds(p, { kinds: { [facts.kind]: { on: value } } }))}
        />
      </span>
      {amount && on && (
        <span className="flex items-center gap-2 text-[13px] text-quiet">
          {amount.label}
          <span className="w-20">
            <NumberField
              label={`${facts.title}: ${amount.label.toLowerCase()}`}
              hideLabel
              value={amountsOf(project)(facts.kind)}
              onChange={(value) => run((p) => judgeKinds(p, { kinds: { [facts.kind]: { amount: value } } }))}
            />
          </span>
          {amount.unit}
        </span>
      )}
      <span className="w-10 text-right text-[13px] text-quiet">{count > 0 ? count : ''}</span>
    </div>
  );
}
