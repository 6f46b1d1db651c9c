import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { PAGE_SIZES, type PageSize, PROOF_SECTIONS, type ProofSection } from '../../../core/casting/proofKinds';
import { thingKey } from '../../../core/casting/things';
import type { Project } from '../../../core/project/model';
import { filesWorker } from '../../../workers/clients';
import type { CastFile } from '../../../workers/files';
import { say } from '../../state/bench';
import { download } from '../../state/projectFiles';
import { Check, Pick } from '../../ui/controls';
import { Button } from '../../ui/parts';

/** Files of the same font in other formats would show the same line again. */
const onePerFont = (files: readonly CastFile[]): CastFile[] =>
  files.filter((f, i) => files.findIndex((o) => thingKey(o.thing) === thingKey(f.thing)) === i);

/** A printable proof of the file at hand: which sections, on which paper. */
export function Proof({
  file,
  files,
  project,
  text,
}: {
  file: CastFile;
  files: readonly CastFile[];
  project: Project;
  text: string;
}) {
  const [open, setOpen] = useState(false);
  const [sections, setSections] = useState<readonly ProofSection[]>(PROOF_SECTIONS.map((s) => s.key));
  const [size, setSize] = useState<PageSize>('A4');
  const isFew = (key: ProofSection) => key === 'family' && onePerFont(files).length < 2;
  const proof = useMutation({
    mutationFn: async () => {
      const { service, stop } = filesWorker();
      const title = (f: CastFile) => f.fileName.replace(/\.\w+$/, '');
      const told = (f: CastFile) => ({ bytes: f.bytes, title: title(f), glyphNames: f.glyphNames });
      try {
        const pages = await service.proof({
          font: told(file),
          family: onePerFont(files).map(told),
          sections: sections.filter((s) => !isFew(s)),
          size,
          text,
          created: project.created,
        });
        download(pages, `${title(file)} proof.pdf`, 'application/pdf');
      } finally {
        stop();
      }
    },
    onError: () => say('The proof could not be made from this file.'),
  });
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-3 gap-y-2">
      <Button aria-expanded={open} onClick={() => setOpen(!open)}>
        Printable proof (PDF)…
      </Button>
      {open && (
        <>
          {PROOF_SECTIONS.filter((s) => !isFew(s.key)).map((s) => (
            <span key={s.key} title={s.what}>
              <Check
                label={s.title}
                checked={sections.includes(s.key)}
                onChange={(on) =>
                  setSections(PROOF_SECTIONS.map((o) => o.key).filter((k) => (k === s.key ? on : sections.includes(k))))
                }
              />
            </span>
          ))}
          <Pick
            label="Paper"
            className="w-24"
            value={size}
            options={(Object.keys(PAGE_SIZES) as PageSize[]).map((s) => ({ value: s, text: s }))}
            onChange={setSize}
          />
          <Button kind="primary" disabled={proof.isPending || sections.length === 0} onClick={() => proof.mutate()}>
            {proof.isPending ? 'Making the proof…' : `Proof of ${file.fileName}`}
          </Button>
        </>
      )}
    </div>
  );
}
