import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import {
  addAnchor,
  copyAnchors,
  moveAnchor,
  removeAnchor,
  renameAnchors,
} from '../../../../core/composing/anchorEdits';
import { placeAnchors } from '../../../../core/composing/edits';
import { ANCHOR_NAMES } from '../../../../core/composing/marks';
import { glyphTyped } from '../../../../core/project/findGlyphs';
import type { Drawing } from '../../../../core/project/model';
import { run, say, useBench } from '../../../state/bench';
import { runFar } from '../../../state/far';
import { Button, CheckRow, EntryField, IconButton, NumberField, Section, TextField } from '../../../ui/parts';
import { AnchorMasters } from './AnchorMasters';
import { place } from './place';

/** Where marks sit: the anchors of this glyph, which are shown and dragged on the sheet while this tab is open. */
export function AnchorSection({ drawing }: { drawing: Drawing }) {
  const { glyph, master } = place();
  const project = useBench((s) => s.project)!;
  const [name, setName] = useState('');
  const [shown, setShown] = useState<string>();
  const [copying, setCopying] = useState(false);
  const beside = drawing.anchors.find((a) => a.name === shown) ?? drawing.anchors[0];
  return (
    <Section title="Anchors">
      {drawing.anchors.length === 0 && (
        <p className="mb-2 text-quiet">Marks sit where an anchor of the letter meets the same one of the mark.</p>
      )}
      {drawing.anchors.map((a) => (
        <fieldset
          key={a.name}
          aria-label={`The anchor ${a.name}`}
          data-testid="anchor"
          onFocus={() => setShown(a.name)}
          className="mb-1.5 grid grid-cols-[minmax(0,1fr)_58px_58px_auto] items-center gap-1.5"
        >
          <EntryField
            aria-label={`Name of the anchor ${a.name}`}
            title="A new name reaches this anchor in every glyph, on letters and marks"
            value={a.name}
            onApply={(to) =>
              to !== a.name &&
              void runFar(
                renameAnchors,
                { from: a.name, to },
                { glyphs: useBench.getState().settled!.glyphOrder.length },
              )
            }
          />
          <NumberField
            hideLabel
            label={`${a.name}, x`}
            value={a.x}
            onChange={(x) => run((p) => moveAnchor(p, { at: { glyph, master }, name: a.name, x, y: a.y }))}
          />
          <NumberField
            hideLabel
            label={`${a.name}, y`}
            value={a.y}
            onChange={(y) => run((p) => moveAnchor(p, { at: { glyph, master }, name: a.name, x: a.x, y }))}
          />
          <IconButton
            label={`Take the anchor ${a.name} away, in all masters`}
            onClick={() => run((p) => removeAnchor(p, { glyph, name: a.name }))}
          >
            <Trash2 size={14} />
          </IconButton>
        </fieldset>
      ))}
      {beside && <AnchorMasters glyph={project.glyphs[glyph]!} anchor={beside.name} />}
      <form
        className="mt-2 flex flex-wrap gap-1.5"
        onSubmit={(e) => {
          e.preventDefault();
          if (run((p) => addAnchor(p, { glyph, name }))) setName('');
        }}
      >
        <div className="min-w-24 flex-1">
          <TextField
            aria-label="Name of a new anchor"
            placeholder="top, _top…"
            list="anchor-names"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <datalist id="anchor-names">
            {ANCHOR_NAMES.flatMap((n) => [n, `_${n}`]).map((n) => (
              <option key={n} value={n} />
            ))}
          </datalist>
        </div>
        <Button type="submit" disabled={name.trim() === ''}>
          Add
        </Button>
        <Button
          title="Those that a glyph of this character has and that lack here, in all masters; those that are there stay"
          onClick={() => run((p) => placeAnchors(p, { glyphs: [glyph] }))}
        >
          By the shape
        </Button>
        {drawing.anchors.length > 0 && (
          <Button title="As they lie, in all masters" onClick={() => setCopying(!copying)}>
            To other glyphs…
          </Button>
        )}
      </form>
      {copying && <CopyAnchors names={drawing.anchors.map((a) => a.name)} onDone={() => setCopying(false)} />}
    </Section>
  );
}

/** Which glyphs get a copy of this glyph’s anchors. */
function CopyAnchors({ names, onDone }: { names: readonly string[]; onDone: () => void }) {
  const project = useBench((s) => s.project)!;
  const { glyph } = place();
  const [typed, setTyped] = useState('');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const wanted = names.filter((n) => !left.has(n));
  return (
    <form
      className="mt-1.5 grid gap-1.5 rounded-lg border border-line p-2"
      onSubmit={(e) => {
        e.preventDefault();
        const words = typed.split(/[\s,]+/).filter((w) => w !== '');
        const found = words.map((w) => glyphTyped(project, w));
        const missing = words.find((_, i) => !found[i]);
        if (missing !== undefined) return say(`There is no glyph “${missing}”.`);
        const to = found.flatMap((g) => g?.id ?? []);
        if (run((p) => copyAnchors(p, { from: glyph, names: wanted, to }))) onDone();
      }}
    >
      {names.map((n) => (
        <CheckRow
          key={n}
          label={n}
          checked={!left.has(n)}
          onChange={(on) => {
            const next = new Set(left);
            if (on) next.delete(n);
            else next.add(n);
            setLeft(next);
          }}
        />
      ))}
      <TextField
        aria-label="Glyphs that get these anchors"
        placeholder="characters or names, spaced"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      <Button type="submit" disabled={typed.trim() === '' || wanted.length === 0}>
        Copy {wanted.length === 1 ? 'the anchor' : 'the anchors'}
      </Button>
    </form>
  );
}
