import { type FormEvent, useMemo, useState } from 'react';
import { plural } from '../../../core/project/edit';
import { renameFault, renameGlyphs } from '../../../core/project/glyphEdits';
import type { Glyph } from '../../../core/project/model';
import { glyphsInOrder } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { closeDialog, useDialog } from '../../state/dialogs';
import { runFar } from '../../state/far';
import { GlyphShape } from '../../ui/GlyphShape';
import { Modal } from '../../ui/Modal';
import { Button, CheckRow, TextField } from '../../ui/parts';

/** So many changes are shown; the others are counted. */
const MOST = 60;

/** Finds a piece of glyph names and puts another in its place, in the chosen glyphs or in all; shown before it is done. */
export function RenameDialog({ chosen }: { chosen: readonly string[] }) {
  const open = useDialog('rename');
  return (
    <Modal open={open} onClose={closeDialog} title="Find and replace in names">
      {open && <Form chosen={chosen} />}
    </Modal>
  );
}

function Form({ chosen }: { chosen: readonly string[] }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const [find, setFind] = useState('');
  const [into, setInto] = useState('');
  const [onlyChosen, setOnlyChosen] = useState(chosen.length > 1);
  const [atEnd, setAtEnd] = useState(false);
  const renames = useMemo(() => {
    if (find === '') return [];
    const among = onlyChosen ? chosen.flatMap((id) => project.glyphs[id] ?? []) : glyphsInOrder(project);
    const renamed = ({ name }: Glyph) =>
      atEnd
        ? name.endsWith(find)
          ? name.slice(0, name.length - find.length) + into
          : name
        : name.replaceAll(find, into);
    return among
      .map((glyph) => ({ glyph, name: renamed(glyph) }))
      .filter((r) => r.name !== r.glyph.name && r.glyph.name !== '.notdef');
  }, [project, chosen, find, into, onlyChosen, atEnd]);
  const asked = renames.map((r) => ({ id: r.glyph.id, name: r.name.trim() }));
  const fault = renameFault(project, asked);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    void runFar(renameGlyphs, { renames: asked }, { glyphs: asked.length }).then((done) => done && closeDialog());
  };
  return (
    <form onSubmit={submit}>
      <div className="mb-2 grid grid-cols-[90px_1fr] items-center gap-x-2 gap-y-1.5">
        <label htmlFor="rename-find" className="text-quiet">
          Find
        </label>
        <TextField id="rename-find" autoFocus value={find} onChange={(e) => setFind(e.target.value)} />
        <label htmlFor="rename-into" className="text-quiet">
          Put in place
        </label>
        <TextField id="rename-into" value={into} onChange={(e) => setInto(e.target.value)} />
      </div>
      {chosen.length > 1 && (
        <CheckRow label={`Only in the ${chosen.length} chosen glyphs`} checked={onlyChosen} onChange={setOnlyChosen} />
      )}
      <CheckRow label="Only at the end of a name" checked={atEnd} onChange={setAtEnd} />
      <ul
        aria-label="Names that change"
        className="mt-2 max-h-64 min-h-24 overflow-y-auto rounded-lg border border-line bg-paper p-1"
      >
        {renames.slice(0, MOST).map(({ glyph, name }) => (
          <li key={glyph.id} className="flex items-center gap-2 px-1">
            <GlyphShape project={project} glyph={glyph} master={master} size={30} />
            <span className="min-w-0 flex-1 truncate text-quiet">{glyph.name}</span>
            <span aria-hidden>→</span>
            <span className="min-w-0 flex-1 truncate">{name}</span>
          </li>
        ))}
        {renames.length > MOST && <li className="px-1 text-quiet">and {renames.length - MOST} more</li>}
        {renames.length === 0 && (
          <li className="px-1 py-1 text-quiet">{find === '' ? 'What changes is shown here.' : 'No name has that.'}</li>
        )}
      </ul>
      <p role={fault ? 'alert' : undefined} className={`mt-1.5 min-h-5 ${fault ? 'text-brick' : 'text-quiet'}`}>
        {fault ??
          (renames.length > 0
            ? 'Lines, lists, recipes and feature text that write these names follow; code points stay.'
            : '')}
      </p>
      <div className="mt-3 flex justify-end gap-2">
        <Button onClick={closeDialog}>Not now</Button>
        <Button kind="primary" type="submit" disabled={renames.length === 0 || fault !== undefined}>
          {renames.length > 0 ? `Rename ${plural(renames.length, 'glyph')}` : 'Rename'}
        </Button>
      </div>
    </form>
  );
}
