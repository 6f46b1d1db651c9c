import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { addAnchor, moveAnchor, removeAnchor, renameAnchors } from '../../../../core/composing/anchorEdits';
import { placeAnchors } from '../../../../core/composing/edits';
import { ANCHOR_NAMES } from '../../../../core/composing/marks';
import type { Drawing } from '../../../../core/project/model';
import { run } from '../../../state/bench';
import { Button, EntryField, IconButton, NumberField, Section, TextField } from '../../../ui/parts';
import { place } from './place';

/** Where marks sit: the anchors of this glyph, which are shown and dragged on the sheet while this tab is open. */
export function AnchorSection({ drawing }: { drawing: Drawing }) {
  const { glyph, master } = place();
  const [name, setName] = useState('');
  return (
    <Section title="Anchors">
      {drawing.anchors.length === 0 && (
        <p className="mb-2 text-quiet">Marks sit where an anchor of the letter meets the same one of the mark.</p>
      )}
      {drawing.anchors.map((a) => (
        <div
          key={a.name}
          data-testid="anchor"
          className="mb-1.5 grid grid-cols-[minmax(0,1fr)_58px_58px_auto] items-center gap-1.5"
        >
          <EntryField
            aria-label={`Name of the anchor ${a.name}`}
            title="A new name reaches this anchor in every glyph, on letters and marks"
            value={a.name}
            onApply={(to) => to !== a.name && run((p) => renameAnchors(p, { from: a.name, to }))}
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
        </div>
      ))}
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
      </form>
    </Section>
  );
}
