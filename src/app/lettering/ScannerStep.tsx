import { ToggleGroup } from 'radix-ui';
import { useEffect, useState } from 'react';
import { Bar } from '../ui/controls';
import { Button, Choice } from '../ui/parts';
import { type ScanSettings, useScan, useTray } from './useScanner';

const TONES = [
  { value: 'grey', text: 'Grey', hint: 'As it is: edges come out finest' },
  { value: 'strong', text: 'Strong', hint: 'More contrast between ink and paper' },
  { value: 'line', text: 'Black and white', hint: 'Two levels only: edges are as coarse as the pixels' },
] as const;
const DPI = ['100', '150', '300', '600'] as const;

type Props = { onSheet: (bytes: Uint8Array, name: string) => void; problem: string | undefined };

/** Chooses a sheet from the scanner's tray or a file of one's own. */
export function ScannerStep({ onSheet, problem }: Props) {
  const tray = useTray();
  const [sheet, setSheet] = useState<string>();
  const [dpi, setDpi] = useState<(typeof DPI)[number]>('300');
  const [tone, setTone] = useState<ScanSettings['tone']>('grey');
  const titleOf = (name: string) => tray.data?.find((s) => s.name === name)?.title ?? name;
  const scan = useScan((bytes, settings) => onSheet(bytes, titleOf(settings.sheet)));
  const { stop } = scan;
  useEffect(() => stop, [stop]);
  const chosen = sheet ?? tray.data?.[0]?.name;
  const scanning = scan.progress !== undefined;
  const wrong = scan.problem ?? tray.error?.message ?? problem;
  return (
    <div>
      <p className="mb-3 text-quiet">
        Sheets of lettering in the scanner. One sheet can feed many glyphs: its letters are found, made straight and put
        on the baseline.
      </p>
      <ToggleGroup.Root
        type="single"
        aria-label="Sheets in the scanner"
        value={chosen ?? ''}
        disabled={scanning}
        onValueChange={(name) => name !== '' && setSheet(name)}
        className="mb-4 grid grid-cols-3 gap-3"
      >
        {(tray.data ?? []).map((s) => (
          <ToggleGroup.Item
            key={s.name}
            value={s.name}
            className={`w-full overflow-hidden rounded-lg border text-left ${s.name === chosen ? 'border-kelp bg-kelp-tint text-kelp' : 'border-line hover:bg-kelp-tint'}`}
          >
            <img src={`/demo/sheets/${s.name}.png`} alt="" className="block h-44 w-full object-cover object-left-top" />
            <span className="block px-2.5 py-1.5">{s.title}</span>
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      <div className="mb-4 flex flex-wrap items-center gap-x-6 gap-y-2">
        <span className="flex items-center gap-2">
          <span className="text-quiet">Dots to the inch</span>
          <Choice
            label="Dots to the inch"
            value={dpi}
            options={DPI.map((v) => ({ value: v, text: v }))}
            onChange={setDpi}
          />
        </span>
        <span className="flex items-center gap-2">
          <span className="text-quiet">Tone</span>
          <Choice label="Tone" value={tone} options={TONES} onChange={setTone} />
        </span>
      </div>
      {wrong && (
        <p role="alert" className="mb-3 rounded-lg bg-marigold-tint px-3 py-2">
          ▲ {wrong}
        </p>
      )}
      <div className="flex items-center justify-end gap-2">
        {scanning ? (
          <>
            <Bar label="Scanning" share={scan.progress ?? 0} className="mr-auto flex-1" />
            <span className="w-12 text-right text-quiet">{Math.round((scan.progress ?? 0) * 100)} %</span>
            <Button onClick={stop}>Stop</Button>
          </>
        ) : (
          <>
            <label className="mr-auto inline-flex h-7.5 items-center rounded-lg border border-line bg-panel px-3 text-[13.5px] hover:bg-kelp-tint">
              A picture of your own…
              <input
                type="file"
                accept="image/png,image/jpeg"
                className="sr-only"
                onChange={async (e) => {
                  const file = e.target.files?.[0];
                  if (file) onSheet(new Uint8Array(await file.arrayBuffer()), file.name);
                }}
              />
            </label>
            <Button
              kind="primary"
              disabled={!chosen}
              onClick={() => chosen && scan.start({ sheet: chosen, dpi: Number(dpi) as ScanSettings['dpi'], tone })}
            >
              Scan
            </Button>
          </>
        )}
      </div>
    </div>
  );
}
