import { BookOpen, Eye, Keyboard, Moon, Redo2, Search, Sun, Undo2, X } from 'lucide-react';
import { RadioGroup } from 'radix-ui';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { canRedo, canUndo } from '../../core/project/history';
import type { Master, Project } from '../../core/project/model';
import { placeInWords, shortPlace } from '../../core/project/places';
import { drawingOf, glyphForCodePoint, glyphNamed, masterOf } from '../../core/project/queries';
import { isWaypointId, waypointId } from '../../core/project/waypoints';
import { MOD } from '../keys/keys';
import { chooseMaster, redoEdit, undoEdit, useBench, watchPlace } from '../state/bench';
import { openDialog } from '../state/dialogs';
import { useKeeping } from '../state/keeping';
import { setBenchLight } from '../state/light';
import { GlyphShape } from '../ui/GlyphShape';
import { IconButton } from '../ui/parts';
import { Tip } from '../ui/Tip';

/** The letter a chip shows: the project's own a, else the first thing drawn in that master. */
function chipGlyph(project: Project, master: Master) {
  const isDrawn = (id: string | undefined) =>
    id !== undefined && drawingOf(project.glyphs[id]!, master.id).contours.some((c) => c.closed);
  const own = glyphForCodePoint(project, 0x61) ?? glyphNamed(project, 'a');
  if (own && isDrawn(own.id)) return own;
  const letter = (id: string) => project.glyphs[id]!.unicodes.some((c) => /\p{L}/u.test(String.fromCodePoint(c)));
  const drawn = project.glyphOrder.filter((id) => project.glyphs[id]!.name !== '.notdef' && isDrawn(id));
  const other = drawn.find(letter) ?? drawn[0];
  return other ? project.glyphs[other] : own;
}

function MasterChips() {
  const project = useBench((s) => s.settled)!;
  const current = useBench((s) => s.master);
  const open = useBench((s) => s.glyph);
  const glyph = open === undefined ? undefined : project.glyphs[open];
  return (
    <RadioGroup.Root
      aria-label="Masters"
      value={current}
      onValueChange={chooseMaster}
      style={{ scrollbarWidth: 'none' }}
      className="flex min-w-[88px] shrink items-center gap-1.5 overflow-x-auto"
    >
      {project.masters.map((m) => {
        const letter = chipGlyph(project, m);
        return (
          <Tip key={m.id} text={`${m.name} ([ and ] step through)`}>
            <RadioGroup.Item
              value={m.id}
              aria-label={m.name}
              className={`flex h-8 w-9 shrink-0 items-center justify-center rounded-lg border ${m.id === current ? 'border-kelp bg-kelp-tint' : 'border-edge bg-panel hover:bg-paper'}`}
            >
              {letter && <GlyphShape project={project} glyph={letter} master={m.id} size={28} />}
            </RadioGroup.Item>
          </Tip>
        );
      })}
      {glyph?.waypoints.map(({ place }) => {
        const id = waypointId(place);
        const said = `Waypoint of ${glyph.name}, ${placeInWords(project.axes, place)}`;
        return (
          <Tip key={id} text={said}>
            <RadioGroup.Item
              value={id}
              aria-label={said}
              className={`flex h-8 w-9 shrink-0 items-center justify-center rounded-lg border border-dashed ${id === current ? 'border-kelp bg-kelp-tint' : 'border-edge bg-panel hover:bg-paper'}`}
            >
              <GlyphShape project={project} glyph={glyph} master={id} size={28} />
            </RadioGroup.Item>
          </Tip>
        );
      })}
    </RadioGroup.Root>
  );
}

/** The place that is kept in sight, and the way to let it go. */
function Watched() {
  const axes = useBench((s) => s.settled!.axes);
  const watched = useBench((s) => s.watched);
  if (!watched) return null;
  return (
    <span
      className="flex h-7 shrink-0 items-center gap-1 rounded-lg border border-dashed border-edge pl-2 text-[12.5px] whitespace-nowrap text-ink"
      data-testid="watched"
    >
      <Eye size={14} className="text-quiet" />
      {shortPlace(axes, watched)}
      <IconButton label="Let this place go" onClick={() => watchPlace(undefined)}>
        <X size={13} />
      </IconButton>
    </span>
  );
}

function placeSentence(project: Project, master: Master): string {
  // A waypoint’s name tells its place.
  if (isWaypointId(master.id)) return master.name;
  const place = project.axes.map((a) => `${a.name.toLowerCase()} ${master.place[a.tag] ?? a.default}`);
  return [master.name, ...place].join(' · ');
}

function SaveSign() {
  const save = useBench((s) => s.save);
  const readOnly = useBench((s) => s.readOnly);
  const keeps = useKeeping((s) => s.keeps);
  if (readOnly) return <span className="text-marigold">Looking only</span>;
  if (save.kind === 'failed')
    return (
      <span role="alert" className="min-w-0">
        <Tip text="Press for the way to make room">
          <button
            type="button"
            onClick={() => openDialog('storage')}
            className="max-w-[340px] truncate rounded-md px-1 text-brick underline underline-offset-2"
          >
            Not saved ({save.waiting}): {save.sentence}
          </button>
        </Tip>
      </span>
    );
  if (!keeps) return <span className="whitespace-nowrap text-marigold">Only in this tab</span>;
  return (
    <span
      data-testid="save-state"
      data-state={save.kind}
      role="status"
      className="shrink-0 whitespace-nowrap text-quiet"
    >
      {save.kind === 'saving'
        ? 'Saving…'
        : `Saved ${new Date(save.at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}`}
    </span>
  );
}

/** Light or dark bench; the palette also has the system's own choice. */
function LightSwitch() {
  const [isDark, setDark] = useState(document.documentElement.dataset.bench === 'dark');
  useEffect(() => {
    const look = () => setDark(document.documentElement.dataset.bench === 'dark');
    window.addEventListener('benchlight', look);
    return () => window.removeEventListener('benchlight', look);
  }, []);
  const title = isDark ? 'Light bench' : 'Dark bench';
  return (
    <IconButton label={title} onClick={() => setBenchLight(isDark ? 'light' : 'dark')}>
      {isDark ? <Sun size={17} /> : <Moon size={17} />}
    </IconButton>
  );
}

/** Project, masters, the way to find things, undo and the state of saving. */
export function TopBar() {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const history = useBench((s) => s.history);
  const readOnly = useBench((s) => s.readOnly);
  const watched = useBench((s) => s.watched);
  const current = masterOf(project, master)!;
  const lastDone = history.done[history.done.length - 1];
  const lastUndone = history.undone[history.undone.length - 1];
  return (
    <header className="flex min-w-0 items-center gap-4 overflow-hidden border-b border-line bg-panel pr-4 pl-3">
      <Link
        to="/"
        title="To the start page"
        className="flex min-w-0 shrink-[2] items-center gap-2.5 rounded-md pr-1 text-[15px] font-semibold hover:text-kelp"
      >
        <img src="/mark.svg" alt="Start page" className="size-6 shrink-0" />
        <span className="max-w-[220px] truncate">{project.family.name}</span>
      </Link>
      <MasterChips />
      <Watched />
      <span className={`hidden min-w-0 truncate text-quiet ${watched ? 'min-[1500px]:block' : 'min-[1100px]:block'}`}>
        {placeSentence(project, current)}
      </span>
      <button
        type="button"
        onClick={() => openDialog('palette')}
        className="ml-auto flex h-7.5 w-[280px] min-w-[110px] shrink items-center gap-2 rounded-full border border-edge bg-paper px-3 text-quiet hover:border-kelp"
      >
        <Search size={14} />
        <span className="truncate">Find a glyph or a command</span>
        <span className="ml-auto text-[12px] whitespace-nowrap">{MOD} K</span>
      </button>
      <div className="flex shrink-0 items-center">
        <IconButton
          label="Undo"
          tip={lastDone ? `Undo: ${lastDone.sentence}` : canUndo(history) ? 'Undo' : 'Nothing to undo'}
          disabled={!canUndo(history) || readOnly}
          onClick={undoEdit}
        >
          <Undo2 size={17} />
        </IconButton>
        <IconButton
          label="Redo"
          tip={lastUndone ? `Do again: ${lastUndone.sentence}` : canRedo(history) ? 'Do again' : 'Nothing to do again'}
          disabled={!canRedo(history) || readOnly}
          onClick={redoEdit}
        >
          <Redo2 size={17} />
        </IconButton>
        <LightSwitch />
        <IconButton label="Guide" tip="Guide (F1)" onClick={() => openDialog('guide')}>
          <BookOpen size={17} />
        </IconButton>
        <IconButton label="Sheet of keys" tip="Sheet of keys (?)" onClick={() => openDialog('keys')}>
          <Keyboard size={17} />
        </IconButton>
      </div>
      <SaveSign />
    </header>
  );
}
