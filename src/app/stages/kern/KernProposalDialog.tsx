import { useMemo, useState } from 'react';
import { counted, shownNumber } from '../../../core/base/notation';
import { glyphsOfLine } from '../../../core/fitting/lines';
import { setPairs } from '../../../core/kerning/edits';
import {
  type ProposalSettings,
  type ProposedKerning,
  type ProposedPair,
  usualSettings,
} from '../../../core/kerning/proposal';
import { textGlyphs } from '../../../core/kerning/text';
import { stepOf } from '../../../core/kerning/units';
import { plural } from '../../../core/project/edit';
import { membersOf, sideName } from '../../../core/project/kerningLookup';
import type { GlyphId, Project } from '../../../core/project/model';
import { pairKey } from '../../../core/project/pairs';
import { run, say, useBench } from '../../state/bench';
import { useJob } from '../../state/useJob';
import { Bar, Check } from '../../ui/controls';
import { Modal } from '../../ui/Modal';
import { PairLetters } from '../../ui/PairLetters';
import { Button, Choice, NumberField } from '../../ui/parts';
import { LabelledWords } from '../../ui/SetGlyphs';

const SCOPES = [
  { value: 'all', text: 'All letters', hint: 'Letters, figures and punctuation, each with each' },
  {
    value: 'words',
    text: 'Word list and galley',
    hint: 'Only the pairs that the word list and the galley’s text have',
  },
] as const;

/** Values that are listed, the most worthwhile first; the others are taken or left with them. */
const LISTED = 200;

/** A stretch of the project's own text to judge by, as long as a line of the dialog; pairs that are kerned most where there is none. */
function sampleOf({ texts }: Project): string {
  const own = [texts.galley, ...texts.pairs, ...texts.words].join('  ').trim();
  return own.length > 12 ? own.slice(0, 44) : `${own}  AV To Ty Va We LT P. r.`.trim();
}

/** Bounds of a setting, so that nothing odd is asked for. */
const within = (v: number, most: number): number => Math.max(1, Math.min(most, Math.round(v)));

/** Kerning for every pair, worked out beside the pointer, told before it is taken over. */
export function KernProposalDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [settings, setSettings] = useState<ProposalSettings>(() => usualSettings(project));
  const [scope, setScope] = useState<(typeof SCOPES)[number]['value']>('all');
  const { share, found: made, fault, start, stop, clear } = useJob<ProposedKerning>();
  const found = made?.pairs;
  const step = stepOf(project);
  const close = () => {
    clear();
    onClose();
  };
  const work = () => {
    const lines = [...project.texts.pairs, project.texts.galley].map((l) => glyphsOfLine(project, l).glyphs);
    const only =
      scope === 'words'
        ? lines.flatMap((ids) => ids.slice(1).map((b, i): [GlyphId, GlyphId] => [ids[i]!, b]))
        : undefined;
    const glyphs = only ? [...new Set(only.flat())] : textGlyphs(project);
    start((service, progress) =>
      service.proposeKerning(master, glyphs, { ...settings, step, ...(only ? { only } : {}) }, progress),
    );
  };
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const taken = useMemo(() => (found ?? []).filter((p) => !left.has(pairKey(p.first, p.second))), [found, left]);
  const after = useMemo(() => {
    const done = setPairs(project, { master, pairs: taken });
    return done.ok ? done.project : project;
  }, [project, master, taken]);
  const words = useMemo(() => sampleOf(project), [project]);
  const leadOf = (side: ProposedPair['first']) => membersOf(project, side)[0] ?? side.id;
  const covered = taken.reduce((n, p) => n + p.glyphs, 0);
  const exceptions = taken.filter((p) => p.first.kind === 'glyph' || p.second.kind === 'glyph').length;
  return (
    <Modal open={open} onClose={close} title="Kerning proposal" wide>
      <p className="mb-3 text-quiet">
        Every pair is held against the white that n, o, H and O leave in this master. A value goes to whole groups, by
        what text has of them; members that differ, as ï beside T, get their own.
      </p>
      <div className="mb-3 grid gap-1.5">
        <Choice label="For" value={scope} options={SCOPES} onChange={setScope} />
        <NumberField
          label="Smallest value worth keeping"
          value={settings.least}
          onChange={(v) => setSettings({ ...settings, least: within(v, 100) })}
        />
        <NumberField
          label="Values at most"
          value={settings.most}
          onChange={(v) => setSettings({ ...settings, most: within(v, 20000) })}
        />
      </div>
      {share !== undefined && <Bar label="Working" share={share} />}
      {fault && (
        <p role="alert" className="mb-3 text-brick">
          {fault}
        </p>
      )}
      {found && (
        <p className="mb-3" data-testid="kern-proposal">
          {found.length === 0
            ? 'Nothing would change.'
            : `${plural(taken.length, 'value')} on the step of ${step}, ${exceptions} of them for single glyphs, serve ${counted(covered)} pairs of glyphs: groups save ${counted(covered - taken.length)}.`}
          {made &&
            made.cut > 0 &&
            ` ${plural(made.cut, 'value')} worth less ${made.cut === 1 ? 'is' : 'are'} left out: more than may be.`}
        </p>
      )}
      {found && found.length > 0 && (
        <>
          <div className="mb-3 grid gap-1 rounded-lg border border-line bg-paper px-3 py-2">
            <LabelledWords project={project} master={master} label="Now" text={words} kerned />
            <LabelledWords project={after} master={master} label="Then" text={words} kerned />
          </div>
          <ul className="mb-3 grid max-h-[26vh] grid-cols-2 gap-x-4 overflow-auto" aria-label="Proposed values">
            {found.slice(0, LISTED).map((p) => {
              const key = pairKey(p.first, p.second);
              return (
                <li key={key}>
                  <Check
                    label={`${sideName(project, p.first)} · ${sideName(project, p.second)}`}
                    className="items-center py-0.5"
                    checked={!left.has(key)}
                    onChange={(on) => {
                      const next = new Set(left);
                      if (on) next.delete(key);
                      else next.add(key);
                      setLeft(next);
                    }}
                  >
                    <span className="flex items-center gap-2">
                      <PairLetters project={after} master={master} first={leadOf(p.first)} second={leadOf(p.second)} />
                      <span className="min-w-0 flex-1 truncate text-[11.5px] text-quiet">
                        {sideName(project, p.first)} · {sideName(project, p.second)}
                      </span>
                      <span className="text-quiet">
                        {shownNumber(p.now)} → {shownNumber(p.value)}
                      </span>
                    </span>
                  </Check>
                </li>
              );
            })}
            {found.length > LISTED && (
              <li className="py-0.5 text-quiet">and {counted(found.length - LISTED)} more, less worth a look</li>
            )}
          </ul>
        </>
      )}
      <div className="flex items-center justify-end gap-2">
        {taken.length === 0 && share === undefined && (
          <span className="mr-auto text-quiet">
            {!found ? 'Work it out first.' : found.length === 0 ? 'There is nothing to take over.' : 'None is ticked.'}
          </span>
        )}
        {share !== undefined ? (
          <Button onClick={stop}>Stop</Button>
        ) : (
          <Button onClick={work}>{found ? 'Work it out again' : 'Work it out'}</Button>
        )}
        <Button
          kind="primary"
          disabled={taken.length === 0}
          onClick={() => {
            if (run((p) => setPairs(p, { master, pairs: taken }))) {
              say('The proposal is taken over; the queue shows what still strays.');
              close();
            }
          }}
        >
          Take over
        </Button>
      </div>
    </Modal>
  );
}
