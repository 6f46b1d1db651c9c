import { codePointForm } from '../../../core/base/notation';
import { setGlyphNames, setGlyphStatus } from '../../../core/project/glyphEdits';
import type { Glyph } from '../../../core/project/model';
import { run, say } from '../../state/bench';
import { Choice, EntryField, Section } from '../../ui/parts';
import { readCodePoints } from './codePoints';

/** Name, code points, status and note of one glyph. */
export function GlyphFacts({ glyph }: { glyph: Glyph }) {
  const setCodes = (text: string) => {
    const unicodes = readCodePoints(text);
    if (!unicodes) return say('Code points are written as U+0061 or as the character itself.');
    run((p) => setGlyphNames(p, { id: glyph.id, name: glyph.name, unicodes }));
  };
  return (
    <Section title="Glyph">
      <div className="grid gap-1.5">
        <label className="grid grid-cols-[86px_1fr] items-center gap-2">
          <span className="text-quiet">Name</span>
          <EntryField
            value={glyph.name}
            disabled={glyph.name === '.notdef'}
            onApply={(name) => run((p) => setGlyphNames(p, { id: glyph.id, name, unicodes: glyph.unicodes }))}
          />
        </label>
        <label className="grid grid-cols-[86px_1fr] items-center gap-2">
          <span className="text-quiet">Code points</span>
          <EntryField value={glyph.unicodes.map(codePointForm).join(' ')} onApply={setCodes} />
        </label>
        <label className="grid grid-cols-[86px_1fr] items-center gap-2">
          <span className="text-quiet">Note</span>
          <EntryField
            value={glyph.note ?? ''}
            onApply={(note) => run((p) => setGlyphStatus(p, { id: glyph.id, status: glyph.status, note }))}
          />
        </label>
        {glyph.productionName !== undefined && (
          <p className="text-[12.5px] text-quiet">“{glyph.productionName}” in the files that are cast</p>
        )}
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
