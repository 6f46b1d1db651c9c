import { useMemo, useState } from 'react';
import type { Format } from '../../../core/casting/outputs';
import { type CastThing, namesOfThing, thingKey } from '../../../core/casting/things';
import type { StyleNames } from '../../../core/fontfacts/names';
import { type LongName, longNames } from '../../../core/fontnames/length';
import { plannedFaults } from '../../../core/fontnames/planned';
import type { Glyph } from '../../../core/project/model';
import { setStyleName } from '../../../core/project/styleNameEdits';
import { run, useBench } from '../../state/bench';
import { characterOf } from '../../ui/GlyphShape';
import { PlannedNames } from './PlannedNames';

/** What a font is called among others in sentences; two masters or instances may have one style. */
const labelOf = (names: StyleNames, thing: CastThing): string =>
  `${names.family} ${names.style}${'instance' in thing ? '' : ' (master)'}`;

/** What will be made, file by file, with the names that programs will show; faults of names before anything is made. */
export function Planned({
  things,
  formats,
  glyphs,
  undrawn,
  blanks,
}: {
  things: readonly CastThing[];
  formats: readonly Format[];
  glyphs: number | undefined;
  undrawn: readonly Glyph[];
  blanks: boolean;
}) {
  const project = useBench((s) => s.settled)!;
  const [open, setOpen] = useState<string>();
  const rows = things.flatMap((thing) => {
    const told = namesOfThing(project, thing);
    return told ? [{ key: thingKey(thing), thing, ...told }] : [];
  });
  const faults = useMemo(() => {
    const single = things.flatMap((thing) => {
      const told = namesOfThing(project, thing);
      // A font of all styles stands for itself beside those of one.
      return told && !('variable' in thing) ? [[labelOf(told.names, thing), told.names] as const] : [];
    });
    return plannedFaults(Object.fromEntries(single));
  }, [project, things]);
  if (rows.length === 0 || formats.length === 0)
    return <p className="text-quiet">Choose at least one format, and a master, an instance or the whole family.</p>;
  const count = undrawn.length;
  return (
    <>
      {count > 0 && (
        <p className="mb-3 text-marigold">
          ▲ {count === 1 ? 'One character is' : `${count} characters are`} not drawn yet and{' '}
          {blanks ? 'cast as blanks' : 'left out'}:
          <span className="block max-h-16 overflow-auto text-ink">{undrawn.map((g) => characterOf(g)).join(' ')}</span>
        </p>
      )}
      <div className="overflow-hidden rounded-xl border border-line bg-panel">
        <table aria-label="What will be made" className="w-full text-left">
          <thead className="text-[12.5px] text-quiet">
            <tr className="border-b border-line">
              <th className="px-3 py-2 font-normal">File</th>
              <th className="px-3 py-2 font-normal">Shown in menus as</th>
              <th className="px-3 py-2 font-normal max-md:hidden">Of the four styles of</th>
              <th className="px-3 py-2 font-normal max-md:hidden">Weight</th>
              {glyphs !== undefined && <th className="px-3 py-2 font-normal max-md:hidden">Glyphs</th>}
              <th className="px-3 py-2 font-normal">
                <span className="sr-only">Names</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ key, thing, names: n, fileName }) => {
              const wrong = faults[labelOf(n, thing)] ?? [];
              return (
                <PlannedRow
                  key={key}
                  thing={thing}
                  wrong={wrong}
                  long={'variable' in thing ? [] : longNames(n)}
                  isOpen={open === key}
                  onOpen={() => setOpen(open === key ? undefined : key)}
                  cells={[
                    { of: 'file', text: `${fileName}.${formats.join(' .')}` },
                    { of: 'style', text: 'variable' in thing ? `${n.family}, all styles` : `${n.family} ${n.style}` },
                    { of: 'link', text: 'variable' in thing ? '' : `${n.linkedFamily}: ${n.linkedStyle}` },
                    { of: 'weight', text: 'variable' in thing ? '' : String(n.weightClass) },
                    ...(glyphs === undefined
                      ? []
                      : [{ of: 'glyphs', text: String(blanks ? glyphs : glyphs - undrawn.length) }]),
                  ]}
                />
              );
            })}
          </tbody>
        </table>
      </div>
    </>
  );
}

function PlannedRow({
  thing,
  cells,
  wrong,
  long,
  isOpen,
  onOpen,
}: {
  thing: CastThing;
  cells: readonly { of: string; text: string }[];
  wrong: readonly string[];
  long: readonly LongName[];
  isOpen: boolean;
  onOpen: () => void;
}) {
  return (
    <>
      <tr className={isOpen ? '' : 'border-b border-line last:border-0'}>
        {cells.map(({ of, text }) => (
          <td
            key={of}
            className={`px-3 py-2.5 [overflow-wrap:anywhere] ${of === 'file' ? 'min-w-36' : 'text-quiet'} ${of === 'file' || of === 'style' ? '' : 'max-md:hidden'}`}
          >
            {text}
            {of === 'file' &&
              wrong.map((w) => (
                <p key={w} role="alert" className="text-[12.5px] text-marigold">
                  ▲ {w}
                </p>
              ))}
            {of === 'file' &&
              long.map(({ reason, mend }) => (
                <p key={reason} className="text-[12.5px] text-marigold">
                  ▲ {reason}{' '}
                  {mend && (
                    <button
                      type="button"
                      className="text-kelp underline"
                      onClick={() => run((p) => setStyleName(p, { ...thing, fact: mend.fact, value: mend.value }))}
                    >
                      take “{mend.value}”
                    </button>
                  )}
                </p>
              ))}
          </td>
        ))}
        <td className="px-3 py-2.5 text-right">
          {!('variable' in thing) && (
            <button
              type="button"
              aria-expanded={isOpen}
              className="text-[12.5px] whitespace-nowrap text-kelp underline"
              onClick={onOpen}
            >
              {isOpen ? 'close' : 'names'}
            </button>
          )}
        </td>
      </tr>
      {isOpen && !('variable' in thing) && (
        <tr className="border-b border-line last:border-0">
          <td colSpan={cells.length + 1} className="px-3 pb-3">
            <PlannedNames thing={thing} />
          </td>
        </tr>
      )}
    </>
  );
}
