import { useState } from 'react';
import { glyphsOfLine } from '../../../core/fitting/lines';
import { setPairs } from '../../../core/kerning/edits';
import { type ProposalSettings, type ProposedPair, stepOf, textGlyphs, USUAL } from '../../../core/kerning/proposal';
import { plural } from '../../../core/project/edit';
import type { GlyphId } from '../../../core/project/model';
import { run, say, useBench } from '../../state/bench';
import { useWork } from '../../state/useWork';
import { Modal } from '../../ui/Modal';
import { Button, Choice, NumberField } from '../../ui/parts';

const SCOPES = [
  { value: 'all', text: 'All letters', hint: 'Letters, figures and punctuation, each with each' },
  { value: 'words', text: 'Word list and galley', hint: 'Only the pairs that the word list and the galley’s text have' },
] as const;

/** Bounds of a setting, so that nothing odd is asked for. */
const within = (v: number, most: number): number => Math.max(1, Math.min(most, Math.round(v)));

/** Kerning for every pair, worked out beside the pointer, told before it is taken over. */
export function KernProposalDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [settings, setSettings] = useState<ProposalSettings>(USUAL);
  const [scope, setScope] = useState<(typeof SCOPES)[number]['value']>('all');
  const { share, found, start, stop, clear } = useWork<readonly ProposedPair[]>();
  const step = stepOf(project);
  const close = () => {
    clear();
    onClose();
  };
  const work = () => {
    const lines = [...project.texts.pairs, project.texts.galley].map((l) => glyphsOfLine(project, l).glyphs);
    const only = scope === 'words' ? lines.flatMap((ids) => ids.slice(1).map((b, i): [GlyphId, GlyphId] => [ids[i]!, b])) : undefined;
    const glyphs = only ? [...new Set(only.flat())] : textGlyphs(project);
    void start((service, progress) => service.proposeKerning(project, master, glyphs, { ...settings, step, ...(only ? { only } : {}) }, progress));
  };
  const covered = found?.reduce((n, p) => n + p.glyphs, 0) ?? 0;
  const exceptions = found?.filter((p) => p.first.kind === 'glyph' || p.second.kind === 'glyph').length ?? 0;
  return (
    <Modal open={open} onClose={close} title="Kerning proposal">
      <p className="mb-3 text-quiet">
        Every pair is held against the white that n, o, H and O leave in this master. A value goes to whole groups, by what text has of them; members that differ, as ï beside T,
        get their own.
      </p>
      <div className="mb-3 grid gap-1.5">
        <Choice label="For" value={scope} options={SCOPES} onChange={setScope} />
        <NumberField label="Smallest value worth keeping" value={settings.least} onChange={(v) => setSettings({ ...settings, least: within(v, 100) })} />
        <NumberField label="Values at most" value={settings.most} onChange={(v) => setSettings({ ...settings, most: within(v, 20000) })} />
      </div>
      {share !== undefined && <progress className="mb-3 h-2 w-full accent-kelp" aria-label="Working" max={1} value={share} />}
      {found && (
        <p className="mb-3" data-testid="kern-proposal">
          {found.length === 0
            ? 'Nothing would change.'
            : `${plural(found.length, 'value')} on the step of ${step}, ${exceptions} of them for single glyphs, serve ${covered.toLocaleString('en')} pairs of glyphs: groups save ${(covered - found.length).toLocaleString('en')}.`}
        </p>
      )}
      <div className="flex justify-end gap-2">
        {share !== undefined ? <Button onClick={stop}>Stop</Button> : <Button onClick={work}>{found ? 'Work it out again' : 'Work it out'}</Button>}
        <Button
          kind="primary"
          disabled={!found || found.length === 0}
          onClick={() => {
            if (run((p) => setPairs(p, { master, pairs: found! }))) {
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
