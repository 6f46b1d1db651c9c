import { type FormEvent, useState } from 'react';
import { copyName, duplicateGlyph, FORM_PURPOSES, formName } from '../../core/project/duplicate';
import { glyphNamed } from '../../core/project/queries';
import { chooseGlyph, run, useBench } from '../state/bench';
import { setChosen } from '../state/chosen';
import { closeDialog, useDialog } from '../state/dialogs';
import { Pick, Radios } from '../ui/controls';
import { Modal } from '../ui/Modal';
import { Button, CheckRow, TextField } from '../ui/parts';

/** A copy or another form of the glyph at hand, in one step: what it is for, its name, and what goes along. */
export function DuplicateDialog() {
  const open = useDialog('duplicate');
  const glyph = useBench((s) => (s.glyph ? s.settled?.glyphs[s.glyph] : undefined));
  return (
    <Modal open={open && glyph !== undefined} onClose={closeDialog} title={`A copy of ${glyph?.name ?? ''}`}>
      {glyph && <Form key={glyph.id} id={glyph.id} />}
    </Modal>
  );
}

function Form({ id }: { id: string }) {
  const project = useBench((s) => s.settled)!;
  const [name, setName] = useState(() => copyName(project, project.glyphs[id]!));
  const [anchors, setAnchors] = useState(true);
  const [kerning, setKerning] = useState(true);
  const [blank, setBlank] = useState(false);
  const [follow, setFollow] = useState(false);
  const [purpose, setPurpose] = useState('alt');
  const choose = (suffix: string) => {
    setPurpose(suffix);
    setName(formName(project, project.glyphs[id]!, suffix));
  };
  const make = (e: FormEvent) => {
    e.preventDefault();
    if (!run((p) => duplicateGlyph(p, { glyph: id, name, anchors, kerning, blank, follow }))) return;
    const made = glyphNamed(useBench.getState().settled!, name.trim())!;
    chooseGlyph(made.id);
    setChosen(new Set([made.id]));
    closeDialog();
  };
  return (
    <form onSubmit={make}>
      <div className="mb-2 grid grid-cols-[64px_1fr] items-center gap-2">
        <span className="text-quiet">For</span>
        <Pick
          label="What the form is for"
          value={purpose}
          options={FORM_PURPOSES.map((f) => ({ value: f.suffix, text: f.text }))}
          onChange={choose}
        />
      </div>
      <label className="mb-3 grid grid-cols-[64px_1fr] items-center gap-2">
        <span className="text-quiet">Name</span>
        <TextField autoFocus value={name} onChange={(e) => setName(e.target.value)} />
      </label>
      <div className="mb-3">
        <Radios
          label="What it begins with"
          value={blank ? 'blank' : 'copy'}
          options={[
            { value: 'copy', text: 'Begins as a copy' },
            { value: 'blank', text: 'Begins blank, of the same width' },
          ]}
          onChange={(v) => setBlank(v === 'blank')}
        />
      </div>
      <p className="mb-1 text-quiet">
        {blank
          ? 'Its width goes along'
          : project.masters.length === 1
            ? 'Its drawing and sides go along'
            : `Its drawings in ${project.masters.length} masters and their sides go along`}
        ; also
      </p>
      <CheckRow label="Anchors" checked={anchors} onChange={setAnchors} />
      <CheckRow label="Kerning groups and pairs" checked={kerning} onChange={setKerning} />
      <CheckRow label="Sides follow the first form, until they are changed" checked={follow} onChange={setFollow} />
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={closeDialog}>Not now</Button>
        <Button kind="primary" type="submit" disabled={name.trim() === ''}>
          Make the copy
        </Button>
      </div>
    </form>
  );
}
