import { useState } from 'react';
import { codePointForm } from '../../../core/base/notation';
import { setGlyphNames, setGlyphStatus } from '../../../core/project/glyphEdits';
import type { Glyph } from '../../../core/project/model';
import { run, say } from '../../state/bench';
import { Choice, Section, TextField } from '../../ui/parts';
import { readCodePoints } from './codePoints';

/** Name, code points, status and note of one glyph. */
export function GlyphFacts({ glyph }: { glyph: Glyph }) {
  const [name, setName] = useState(glyph.name);
  const [codes, setCodes] = useState(glyph.unicodes.map(codePointForm).join(' '));
  const [note, setNote] = useState(glyph.note ?? '');
  const apply = () => {
    const unicodes = readCodePoints(codes);
    if (!unicodes) return say('Code points are written as U+0061 or as the character itself.');
    const same = unicodes.length === glyph.unicodes.length && unicodes.every((c, i) => c === glyph.unicodes[i]);
    if (name === glyph.name && same) return;
    if (!run((p) => setGlyphNames(p, { id: glyph.id, name, unicodes }))) {
      setName(glyph.name);
      setCodes(glyph.unicodes.map(codePointForm).join(' '));
    }
  };
  const onKeyDown = (e: React.KeyboardEvent<HTMLInputElement>) => {
    if (e.key === 'Enter') apply();
  };
  return (
    <Section title="Glyph">
      <div className="grid gap-1.5">
        <label className="grid grid-cols-[86px_1fr] items-center gap-2">
          <span className="text-quiet">Name</span>
          <TextField
            value={name}
            disabled={glyph.name === '.notdef'}
            onChange={(e) => setName(e.target.value)}
            onBlur={apply}
            onKeyDown={onKeyDown}
          />
        </label>
        <label className="grid grid-cols-[86px_1fr] items-center gap-2">
          <span className="text-quiet">Code points</span>
          <TextField value={codes} onChange={(e) => setCodes(e.target.value)} onBlur={apply} onKeyDown={onKeyDown} />
        </label>
        <label className="grid grid-cols-[86px_1fr] items-center gap-2">
          <span className="text-quiet">Note</span>
          <TextField
            value={note}
            onChange={(e) => setNote(e.target.value)}
            onBlur={() =>
              note !== (glyph.note ?? '') && run((p) => setGlyphStatus(p, { id: glyph.id, status: glyph.status, note }))
            }
          />
        </label>
        <Choice
          label="Status"
          value={glyph.status ?? 'open'}
          options={[
            { value: 'open', text: 'Open' },
            { value: 'sketched', text: 'Sketched' },
            { value: 'done', text: 'Done' },
          ]}
          onChange={(v) => run((p) => setGlyphStatus(p, { id: glyph.id, status: v === 'open' ? undefined : v }))}
        />
      </div>
    </Section>
  );
}
