import { useState } from 'react';
import { useNavigate } from 'react-router';
import { createProject } from '../../core/project/create';
import { parseGlyphList } from '../../core/project/edits';
import { storeProject } from '../state/library';
import { storageSentence } from '../state/stores';
import { Radios } from '../ui/controls';
import { Modal } from '../ui/Modal';
import { Button, TextField } from '../ui/parts';

const SETS = [
  { key: 'letters', name: 'Letters, figures, punctuation', characters: () => range(0x21, 0x7e) },
  {
    key: 'europe',
    name: 'The languages of western and central Europe',
    characters: () => [
      ...range(0x21, 0x7e),
      ...range(0xa1, 0xff).filter((c) => c !== 0xad),
      ...range(0x100, 0x17e),
      0x2013,
      0x2014,
      0x2018,
      0x2019,
      0x201a,
      0x201c,
      0x201d,
      0x201e,
      0x2026,
      0x20ac,
    ],
  },
  { key: 'own', name: 'Only these characters', characters: () => [] },
] as const;

const range = (first: number, last: number): number[] => Array.from({ length: last - first + 1 }, (_, i) => first + i);

/** Starts a family: a name is enough, everything else has a sensible default. */
export function NewFamily({ open, onClose }: { open: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const [family, setFamily] = useState('');
  const [style, setStyle] = useState('Regular');
  const [em, setEm] = useState('1000');
  const [set, setSet] = useState<(typeof SETS)[number]['key']>('letters');
  const [own, setOwn] = useState('');
  const [fault, setFault] = useState<string | undefined>();

  const start = async () => {
    const unitsPerEm = Number(em);
    if (family.trim() === '') return setFault('Give the family a name.');
    if (!Number.isInteger(unitsPerEm) || unitsPerEm < 16 || unitsPerEm > 16384)
      return setFault('Units per em must be a whole number from 16 to 16,384.');
    const listed = parseGlyphList(own).requests.flatMap((r) => r.unicodes);
    const characters = [...(SETS.find((s) => s.key === set)?.characters() ?? []), ...(set === 'own' ? listed : [])];
    const project = createProject({
      family: family.trim(),
      masterName: style.trim() || 'Regular',
      unitsPerEm,
      characters,
      created: Math.floor(Date.now() / 1000),
    });
    try {
      const id = await storeProject(project);
      await navigate(`/p/${id}/plan`);
    } catch (error) {
      setFault(storageSentence(error));
    }
  };

  return (
    <Modal open={open} onClose={onClose} title="New family">
      <form
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          void start();
        }}
      >
        <label className="grid gap-1">
          <span className="text-quiet">Family name</span>
          <TextField autoFocus value={family} onChange={(e) => setFamily(e.target.value)} />
        </label>
        <div className="grid grid-cols-2 gap-3">
          <label className="grid gap-1">
            <span className="text-quiet">First master</span>
            <TextField value={style} onChange={(e) => setStyle(e.target.value)} />
          </label>
          <label className="grid gap-1">
            <span className="text-quiet">Units per em</span>
            <TextField value={em} inputMode="numeric" onChange={(e) => setEm(e.target.value)} />
          </label>
        </div>
        <fieldset className="grid gap-1">
          <legend className="mb-1 text-quiet">Glyphs to begin with (more can be added any time)</legend>
          <Radios
            label="Glyphs to begin with"
            value={set}
            options={SETS.map((s) => ({ value: s.key, text: s.name }))}
            onChange={setSet}
          />
          {set === 'own' && (
            <TextField
              aria-label="Characters to begin with"
              value={own}
              placeholder="hamburgefonts"
              onChange={(e) => setOwn(e.target.value)}
            />
          )}
        </fieldset>
        {fault && (
          <p role="alert" className="text-brick">
            {fault}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Not now</Button>
          <Button kind="primary" type="submit">
            Start
          </Button>
        </div>
      </form>
    </Modal>
  );
}
