import { useRef } from 'react';
import { shownNumber } from '../../core/base/notation';
import { besideScale, counterpart, heightFacts, letterFacts } from '../../core/fitting/beside';
import type { Glyph } from '../../core/project/model';
import { masterOf } from '../../core/project/queries';
import { useBench } from '../state/bench';
import { layBeside, setBesideBy, setBesideInDraw, setBesideMaster, takeBesideAway, useBeside } from '../state/beside';
import { useCalmProject } from '../state/calm';
import { Check, Pick } from './controls';
import { FileInput } from './FileInput';
import { Button, Choice, Section } from './parts';

const LETTER = [
  ['left', 'Left'],
  ['right', 'Right'],
  ['advance', 'Advance'],
  ['stem', 'Stem'],
  ['counter', 'Counter'],
  ['share', 'Sides to counter %'],
  ['top', 'Top'],
  ['bottom', 'Foot'],
] as const;
const SIZES = [
  { value: 'x-height', text: 'Same x-height', hint: 'Scaled until both are as tall' },
  { value: 'em', text: 'Same em', hint: 'As both stand in text of one size' },
] as const;

/** Another font of one's own beside: the same letter measured in both, in our units. */
export function BesideSection({ glyph, inDraw = false }: { glyph: Glyph; inDraw?: boolean }) {
  const project = useCalmProject();
  const master = masterOf(
    project,
    useBench((s) => s.master),
  )!;
  const { name, face, by, inDraw: shown, opening, fault } = useBeside();
  const input = useRef<HTMLInputElement>(null);
  const open = (
    <>
      <Button
        disabled={opening}
        title="Only looked at, in this tab; never stored in the project, never cast"
        onClick={() => input.current?.click()}
      >
        {opening ? 'Opening…' : face ? 'Another…' : 'Lay a font beside…'}
      </Button>
      <FileInput
        ref={input}
        name="beside-file"
        accept=".otf,.ttf,.woff,.woff2,.ttc,.otc"
        onFiles={([file]) => void layBeside(file)}
      />
      {fault && (
        <p role="alert" className="text-brick">
          {fault}
        </p>
      )}
    </>
  );
  if (!face)
    return (
      <Section title="Beside">
        <p className="mb-2 text-quiet">Measure against a face that you know: any font file of your own.</p>
        {open}
      </Section>
    );
  const own = { project, master };
  const scale = besideScale(own, face, by);
  const other = counterpart(glyph, face);
  const [ours, theirs] = [letterFacts(own, glyph), other && letterFacts(face, other, scale)];
  const number = (key: string, v: number | undefined) =>
    v === undefined ? '–' : shownNumber(key === 'share' ? v * 100 : v, 0);
  const heights = heightFacts(face, scale);
  return (
    <Section
      title={`Beside: ${name}`}
      action={
        <button type="button" className="text-[12.5px] text-quiet hover:text-brick" onClick={takeBesideAway}>
          take away
        </button>
      }
    >
      <div className="mb-2 grid gap-1.5">
        <Choice label="Brought to the same" value={by} options={SIZES} onChange={setBesideBy} />
        {face.project.masters.length > 1 && (
          <Pick
            label="Its master"
            value={face.master.id}
            options={face.project.masters.map((m) => ({ value: m.id, text: m.name }))}
            onChange={setBesideMaster}
          />
        )}
        {inDraw && <Check label="Behind the drawing" checked={shown} onChange={setBesideInDraw} />}
      </div>
      {!other && <p className="mb-1 text-marigold">▲ It has no such letter.</p>}
      <table aria-label="Measures side by side" className="mb-2 w-full text-right" data-testid="beside">
        <thead className="text-[12px] text-quiet">
          <tr>
            <th aria-label="What" />
            <th className="font-normal">ours</th>
            <th className="font-normal">beside</th>
          </tr>
        </thead>
        <tbody>
          {LETTER.map(([key, what]) => (
            <tr key={key}>
              <th scope="row" className="text-left font-normal text-quiet">
                {what}
              </th>
              <td>{number(key, ours[key])}</td>
              <td>{number(key, theirs?.[key])}</td>
            </tr>
          ))}
          {heightFacts(own).map(([what, value], i) => (
            <tr key={what}>
              <th scope="row" className="text-left font-normal text-quiet">
                {what}
              </th>
              <td>{shownNumber(value, 0)}</td>
              <td>{shownNumber(heights[i]![1], 0)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {open}
    </Section>
  );
}
