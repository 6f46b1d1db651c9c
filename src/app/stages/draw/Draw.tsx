import { Toggle, Toolbar } from 'radix-ui';
import { type ReactNode, useEffect, useRef } from 'react';
import { addBackdrop } from '../../../core/drawing/backdrops';
import { pictureSize } from '../../../core/formats/pictures';
import { drawingOf, masterOf } from '../../../core/project/queries';
import { TOOLS } from '../../canvas/tools/registry';
import { isTyping } from '../../keys/keys';
import { isDialogOpen } from '../../keys/scopes';
import { run, say, useBench } from '../../state/bench';
import { closeDialog, useDialog } from '../../state/dialogs';
import { FileInput } from '../../ui/FileInput';
import { Tip } from '../../ui/Tip';
import { BetweenMark } from './BetweenMark';
import { DrawCanvas } from './DrawCanvas';
import { DrawDetails } from './DrawDetails';
import { forgetDrawing, setCompany, setTab, setTool, toggleCombs, toggleStems, useDrawBench } from './drawBench';
import { FindingMarks } from './FindingMarks';
import { bringOutlines, copyOutlines, cutOutlines, pasteOutlines } from './outlines';
import { TidyDialog } from './TidyDialog';
import { TrialDialog } from './TrialDialog';
import { WrongWay } from './WrongWay';

/** Puts a picture file behind the current drawing, as tall as ascender to descender, standing at the left edge. */
async function bringPicture(file: File): Promise<boolean> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const size = pictureSize(bytes);
  const readable = size && (await createImageBitmap(file).catch(() => undefined));
  if (!size || !readable) {
    say(`${file.name} is not a PNG or JPEG picture that can be read.`);
    return false;
  }
  const { glyph, master, project } = useBench.getState();
  const zones = project && masterOf(project, master)?.zones;
  if (!glyph || !zones) return false;
  const top = zones.ascender.position;
  const scale = (top - zones.descender.position) / size.height;
  const count = drawingOf(project.glyphs[glyph]!, master).backdrops.length;
  const key = `${project.nextId}-${count}-${file.name.replace(/[^\w.-]/g, '_')}`;
  return run((p) =>
    addBackdrop(
      { ...p, nextId: p.nextId + 1 },
      {
        at: { glyph, master },
        key,
        picture: { name: file.name, bytes, ...size },
        backdrop: {
          id: `b${p.nextId}`,
          picture: key,
          transform: [scale, 0, 0, -scale, 0, top],
          strength: 0.5,
          locked: false,
          visible: true,
        },
      },
    ),
  );
}

/** One glyph's outline on the bench, between its neighbours from the galley. */
export default function Draw() {
  const hasGlyph = useBench((s) => s.glyph !== undefined && s.project?.glyphs[s.glyph] !== undefined);
  const hasPicture = useBench((s) =>
    s.glyph && s.project ? drawingOf(s.project.glyphs[s.glyph]!, s.master).backdrops.some((b) => !b.outline) : false,
  );
  const tool = useDrawBench((s) => s.tool);
  const words = useDrawBench((s) => s.company);
  const combs = useDrawBench((s) => s.combs);
  const stems = useDrawBench((s) => s.stems);
  const tidying = useDialog('tidy');
  const input = useRef<HTMLInputElement>(null);
  const glyph = useBench((s) => s.glyph);
  const master = useBench((s) => s.master);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another drawing ends what was looked at in the last one.
  useEffect(forgetDrawing, [glyph, master]);
  const active = tool === 'picture' && !hasPicture ? 'select' : tool;

  const bring = async (files: FileList | File[] | null | undefined) => {
    const file = [...(files ?? [])][0];
    if (!file) return;
    if (/\.svg$/i.test(file.name) || file.type === 'image/svg+xml') await bringOutlines(file);
    else if (await bringPicture(file)) {
      setTool('picture');
      setTab('behind');
    }
  };

  useEffect(() => {
    const taken = (e: ClipboardEvent) => !isTyping(e.target) && !isDialogOpen();
    const copy = (e: ClipboardEvent) => {
      if (!taken(e) || !e.clipboardData || !window.getSelection()?.isCollapsed || !copyOutlines(e.clipboardData))
        return;
      e.preventDefault();
      if (e.type === 'cut') cutOutlines();
    };
    const paste = (e: ClipboardEvent) => {
      if (!taken(e) || !e.clipboardData) return;
      const pictures = [...e.clipboardData.files].filter((f) => f.type.startsWith('image/'));
      if (pictures.length > 0) void bring(pictures);
      else pasteOutlines(e.clipboardData);
    };
    window.addEventListener('copy', copy);
    window.addEventListener('cut', copy);
    window.addEventListener('paste', paste);
    return () => {
      window.removeEventListener('copy', copy);
      window.removeEventListener('cut', copy);
      window.removeEventListener('paste', paste);
    };
  });

  if (!hasGlyph)
    return <p className="p-8 text-quiet">No glyph is chosen. Pick one in the Case, in the galley, or with ⌘K.</p>;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: pictures are dropped here; a button does the same.
    <div
      className="flex h-full"
      data-testid="draw"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void bring(e.dataTransfer.files);
      }}
    >
      <div className="relative min-w-0 flex-1">
        <DrawCanvas tool={active} />
        <div className="pointer-events-none absolute inset-x-4 top-3 flex flex-wrap items-center justify-between gap-1.5 [&>*]:pointer-events-auto">
          <Toolbar.Root aria-label="Tools" className="flex flex-wrap gap-1.5">
            <Toolbar.ToggleGroup
              type="single"
              value={active}
              onValueChange={(v) => v !== '' && setTool(v as typeof tool)}
              className="contents"
            >
              {TOOLS.filter((t) => t.name !== 'picture' || hasPicture).map((t) => (
                <Tip key={t.name} text={`${t.hint} (${TOOLS.indexOf(t) + 1})`}>
                  <Toolbar.ToggleItem
                    value={t.name}
                    aria-pressed={active === t.name}
                    className={`h-7.5 rounded-full border px-2.5 text-[13.5px] min-[1150px]:px-3.5 ${active === t.name ? 'border-kelp bg-kelp-tint font-semibold text-kelp' : 'border-edge bg-panel hover:bg-kelp-tint'}`}
                  >
                    {t.title}
                  </Toolbar.ToggleItem>
                </Tip>
              ))}
            </Toolbar.ToggleGroup>
          </Toolbar.Root>
          <div className="flex items-center gap-2">
            <input
              type="text"
              aria-label="Words around the glyph"
              title="Words that the glyph stands in; empty for its neighbours in the galley"
              placeholder="in words…"
              spellCheck={false}
              value={words}
              onChange={(e) => setCompany(e.target.value)}
              className="h-7.5 w-28 rounded-full focus:w-44 border border-edge bg-panel px-3 text-[13.5px] placeholder:text-quiet"
            />
            <Aid tip="Curvature combs: how the outline bends (K)" pressed={combs} onPressed={toggleCombs}>
              Combs
            </Aid>
            <Aid
              tip="Stems: how thick strokes are, in red what misses its fellows by a little (W)"
              pressed={stems}
              onPressed={toggleStems}
            >
              Stems
            </Aid>
          </div>
        </div>
        <WrongWay />
        <FindingMarks />
        <BetweenMark />
        <HintLine />
      </div>
      <TrialDialog />
      <TidyDialog open={tidying} onClose={closeDialog} />
      <DrawDetails bringPicture={() => input.current?.click()} />
      <FileInput
        ref={input}
        name="picture-file"
        accept="image/png,image/jpeg,image/svg+xml"
        onFiles={(files) => void bring(files)}
      />
    </div>
  );
}

/** What the keys do just now, at the foot of the sheet. */
function HintLine() {
  const hints = useDrawBench((s) => s.hints);
  return (
    <p
      data-testid="hints"
      className="pointer-events-none absolute bottom-1.5 left-3 flex flex-wrap gap-x-3.5 gap-y-0.5 rounded bg-paper/85 px-1 text-[12.5px] text-quiet"
    >
      {hints.map(([key, does]) => (
        <span key={key}>
          <b className="font-semibold text-ink">{key}</b> {does}
        </span>
      ))}
      <span>
        <b className="font-semibold text-ink">Q held</b> letters only
      </span>
    </p>
  );
}

/** Something measured that is shown on the letter while it is pressed. */
function Aid({
  tip,
  pressed,
  onPressed,
  children,
}: {
  tip: string;
  pressed: boolean;
  onPressed: () => void;
  children: ReactNode;
}) {
  return (
    <Tip text={tip}>
      <Toggle.Root
        pressed={pressed}
        onPressedChange={onPressed}
        className={`h-7.5 rounded-full border px-3 text-[13.5px] ${pressed ? 'border-violet font-semibold text-violet' : 'border-line bg-panel hover:bg-kelp-tint'}`}
      >
        {children}
      </Toggle.Root>
    </Tip>
  );
}
