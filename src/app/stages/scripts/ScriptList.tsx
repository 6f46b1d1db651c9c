import { Plus } from 'lucide-react';
import { useRef } from 'react';
import { say } from '../../state/bench';
import { Button } from '../../ui/parts';
import { readTextFile } from '../../ui/textFile';
import { newSheet, openSheet, type Sheet } from './sheets';

const BEGINNING = `// What is chosen, in the masters that it runs on.
for (const glyph of chosen) {
  for (const m of masters) {
    const drawing = glyph.drawing(m);
    say(glyph, drawing.left, drawing.right);
  }
}
`;

/** The scripts of the project, new ones, and those that come with Wendril. Files are brought in by a press or dropped. */
export function ScriptList({ sheets, open }: { sheets: readonly Sheet[]; open: string }) {
  const file = useRef<HTMLInputElement>(null);
  const bring = async (files: Iterable<File>) => {
    for (const f of files) {
      const read = await readTextFile(f, 'a script', 200_000);
      if (read.ok) newSheet(f.name.replace(/\.\w+$/, ''), read.value.text);
      else say(read.reason);
    }
  };
  const groups = [
    { title: 'Of this project', own: sheets.filter((s) => s.of !== 'wendril') },
    { title: 'With Wendril', own: sheets.filter((s) => s.of === 'wendril') },
  ];
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: files may be dropped here; the button does the same.
    <div
      className="flex w-[214px] shrink-0 flex-col border-r border-line px-2 py-3 max-[900px]:w-[168px] max-[760px]:hidden"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void bring([...e.dataTransfer.files]);
      }}
    >
      <div className="mb-2 flex gap-1.5 px-1">
        <Button className="flex-1" onClick={() => newSheet(freeTitle(sheets), BEGINNING)}>
          <Plus size={15} aria-hidden className="mr-1 inline" />
          New
        </Button>
        <Button
          className="flex-1"
          title="A script from a file (.js); dropping it here does the same"
          onClick={() => file.current?.click()}
        >
          Open…
        </Button>
        <input
          ref={file}
          type="file"
          accept=".js,.mjs,.txt"
          multiple
          hidden
          data-testid="open-script"
          onChange={(e) => {
            void bring([...(e.target.files ?? [])]);
            e.target.value = '';
          }}
        />
      </div>
      <div className="min-h-0 flex-1 overflow-auto">
        {groups.map(({ title, own }) => (
          <section key={title} aria-label={title} className="mb-3">
            <h3 className="px-2 pb-1 text-[12.5px] text-quiet">{title}</h3>
            {own.length === 0 && (
              <p className="px-2 text-[13px] text-quiet">None yet: begin a new one, or keep one of those below.</p>
            )}
            {own.map((s) => (
              <button
                key={s.id}
                type="button"
                aria-pressed={s.id === open}
                title={s.does ?? s.name}
                onClick={() => openSheet(s.id)}
                className={`flex w-full items-baseline gap-2 rounded-md px-2 py-1.5 text-left ${s.id === open ? 'bg-kelp-tint font-semibold text-kelp' : 'hover:bg-kelp-tint'}`}
              >
                <span className="min-w-0 flex-1 break-words">{s.name || 'without a name'}</span>
                {s.newer && (
                  <span title="Written since it was kept" className="text-marigold">
                    ●
                  </span>
                )}
              </button>
            ))}
          </section>
        ))}
      </div>
    </div>
  );
}

function freeTitle(sheets: readonly Sheet[]): string {
  let title = 'My script';
  for (let i = 2; sheets.some((s) => s.name === title); i++) title = `My script ${i}`;
  return title;
}
