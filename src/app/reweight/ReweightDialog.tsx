import { useEffect, useMemo, useState } from 'react';
import { plural } from '../../core/project/edit';
import type { Glyph, GlyphId, Project } from '../../core/project/model';
import { designEnds } from '../../core/project/places';
import { drawingOf, glyphForCodePoint, isEmptyDrawing, masterOf } from '../../core/project/queries';
import { addReweighedMaster, takeReweighed } from '../../core/reweighting/edits';
import type { Stems } from '../../core/reweighting/goals';
import type { Reweighed, ReweightAsked } from '../../core/reweighting/many';
import { stemsOf } from '../../core/reweighting/standard';
import { REGISTERED_AXES } from '../../core/variation/registeredAxes';
import { cancelPreview, chooseMaster, preview, run, useBench } from '../state/bench';
import { useCaseBench } from '../state/chosen';
import { closeDialog } from '../state/dialogs';
import { Bar, Pick, Radios } from '../ui/controls';
import { Modal } from '../ui/Modal';
import { PlaceFields } from '../ui/PlaceFields';
import { Button, Choice, NumberField, TextField } from '../ui/parts';
import { toggled } from '../ui/toggled';
import { Eased, Kept, Others, Stem } from './fields';
import { AT_ONCE, Letters } from './Letters';
import { useReweighed, withParts } from './live';

/** So many glyphs more are worked out for the galley while the numbers change; of a larger font the first. */
const MOST_SEEN = 800;
const NEW = 'new';
const WEIGHT: Project['axes'][number] = { ...REGISTERED_AXES[0]!, map: [], hidden: false, labels: {} };
type Scope = 'chosen' | 'all';
type Width = 'keep' | 'counters' | 'share';

/** New stems for glyphs of a master: seen on letters and in the galley while the numbers change, then taken. */
export default function ReweightDialog() {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const stems = masterOf(project, master) && stemsOf(project, masterOf(project, master)!);
  return (
    <Modal open onClose={closeDialog} title={`Reweight ${masterOf(project, master)?.name ?? ''}`} over>
      {stems ? (
        <Working key={master} project={project} stems={stems} />
      ) : (
        <p>Nothing is drawn in this master yet that has strokes to measure.</p>
      )}
    </Modal>
  );
}

/** What is asked for, remembered while the app runs. */
let remembered: { width: Width; share: number; bearings: 'share' | 'kept'; rounds: number } = {
  width: 'keep',
  share: 100,
  bearings: 'share',
  rounds: 100,
};

function Working({ project, stems }: { project: Project; stems: Stems }) {
  const masterId = useBench((s) => s.master);
  const master = masterOf(project, masterId)!;
  const current = useBench((s) => s.glyph);
  const chosen = useCaseBench((s) => s.chosen);
  const some = useMemo(() => {
    const wanted = chosen.size > 1 ? chosen : new Set(current ? [current] : []);
    return project.glyphOrder.filter((id) => wanted.has(id));
  }, [project, chosen, current]);
  const [scope, setScope] = useState<Scope>(chosen.size > 1 ? 'chosen' : 'all');
  const [from, setFrom] = useState(stems);
  const [to, setTo] = useState<Stems>(stems);
  const [how, setHow] = useState(remembered);
  const [into, setInto] = useState(masterId);
  const [name, setName] = useState('');
  const [place, setPlace] = useState<Readonly<Record<string, number>>>({});
  const [left, setLeft] = useState<ReadonlySet<GlyphId>>(new Set());
  const [own, setOwn] = useState<Readonly<Record<GlyphId, number>>>({});
  const [count, setCount] = useState(AT_ONCE);
  const glyphs = useMemo(
    () => lettersFirst(project, scope === 'all' ? project.glyphOrder : some, masterId),
    [project, scope, some, masterId],
  );
  const shown = useMemo(() => glyphs.slice(0, count), [glyphs, count]);
  const inSight = useMemo(
    () =>
      withParts(
        project,
        shown.map((g) => g.id),
      ),
    [project, shown],
  );
  const rest = useMemo(() => {
    const done = new Set(inSight);
    return glyphs
      .map((g) => g.id)
      .filter((id) => !done.has(id))
      .slice(0, MOST_SEEN);
  }, [glyphs, inSight]);
  const asked: ReweightAsked = {
    glyphs: inSight,
    master: masterId,
    from,
    to,
    width: how.width === 'counters' ? undefined : how.width === 'keep' ? 1 : how.share / 100,
    bearings: how.bearings,
    rounds: how.rounds / 100,
    own,
  };
  const { found, fault, share, all, late } = useReweighed(project, isSame(asked) ? undefined : asked, rest);
  const now = isSame(asked) ? undefined : found;
  const made = useMemo(() => new Map(now?.made.map((m) => [m.glyph, m]) ?? []), [now]);
  useSeenInGalley(masterId, now?.made, left);
  const set = (change: Partial<typeof how>) => {
    remembered = { ...how, ...change };
    setHow(remembered);
  };
  const taking = glyphs.filter((g) => !left.has(g.id));
  const take = async () => {
    const done = await all({ ...asked, glyphs: taking.map((g) => g.id) });
    if (!done) return;
    cancelPreview();
    const list = done.made.map(({ glyph, drawing }) => ({ glyph, drawing }));
    const called = name.trim() || `${master.name} reweighted`;
    const ok =
      into === NEW
        ? run((p) => addReweighedMaster(p, { name: called, place: at, copy: masterId, made: list }))
        : run((p) => takeReweighed(p, { of: masterId, master: into, made: list }));
    if (!ok) return;
    closeDialog();
    if (into === NEW) chooseMaster(useBench.getState().settled!.masters.at(-1)!.id);
    else if (into !== masterId) chooseMaster(into);
  };
  // A project of one master gets the axis of weight with its second one.
  const axes = project.axes.length > 0 ? project.axes : [WEIGHT];
  const at = Object.fromEntries(axes.map((a) => [a.tag, place[a.tag] ?? designEnds(a).most]));
  const contrast = Math.round((to.horizontal / to.vertical) * 100);
  const most = Math.round(project.unitsPerEm * 0.32);
  const eased = [...made.values()].filter((m) => m.eased.length > 0 && !left.has(m.glyph));
  return (
    <div className="grid h-[calc(100vh-270px)] min-h-[300px] grid-cols-[250px_minmax(0,1fr)] gap-5">
      <div className="min-h-0 overflow-auto pr-1">
        <p className="mb-1 font-semibold">Stems now</p>
        <div className="mb-1 grid gap-1.5">
          <NumberField
            label="Vertical"
            value={from.vertical}
            onChange={(v) => v > 0 && setFrom({ ...from, vertical: v })}
          />
          <NumberField
            label="Horizontal"
            value={from.horizontal}
            onChange={(v) => v > 0 && setFrom({ ...from, horizontal: v })}
          />
        </div>
        <Kept project={project} masterId={masterId} from={from} />
        <p className="mt-3 mb-1 font-semibold">Stems to be</p>
        <div className="grid grid-cols-[1fr_74px] items-center gap-x-2 gap-y-1.5">
          <Stem
            label="Vertical"
            value={to.vertical}
            most={most}
            onChange={(v) => setTo({ vertical: v, horizontal: Math.max(1, Math.round((v * contrast) / 100)) })}
          />
          <Stem
            label="Horizontal"
            value={to.horizontal}
            most={most}
            onChange={(v) => setTo({ ...to, horizontal: v })}
          />
        </div>
        <p className="mt-1 text-quiet">
          Level strokes have {contrast} % of upright ones
          {Math.round((from.horizontal / from.vertical) * 100) === contrast
            ? ', as now.'
            : `, now ${Math.round((from.horizontal / from.vertical) * 100)} %.`}
        </p>
        <Others project={project} masterId={masterId} onTake={setTo} />
        <p className="mt-3 mb-1 text-quiet">Width</p>
        <Choice
          label="Width"
          value={how.width}
          options={[
            { value: 'keep', text: 'Kept', hint: 'Advances stay; counters give way' },
            { value: 'counters', text: 'Grows', hint: 'Counters and sides stay; the letter grows with its strokes' },
            { value: 'share', text: 'A share', hint: 'Advances become a share of what they are' },
          ]}
          onChange={(width) => set({ width })}
        />
        {how.width === 'share' && (
          <NumberField label="Percent" value={how.share} onChange={(v) => v >= 30 && v <= 300 && set({ share: v })} />
        )}
        <p className="mt-3 mb-1 text-quiet">Sides</p>
        <Radios
          label="Sides"
          value={how.bearings}
          options={[
            { value: 'share', text: 'Give way as counters do' },
            { value: 'kept', text: 'Stay' },
          ]}
          onChange={(bearings) => set({ bearings })}
        />
        <div className="mt-2">
          <NumberField
            label="Rounds, %"
            value={how.rounds}
            onChange={(v) => v >= 50 && v <= 200 && set({ rounds: v })}
          />
        </div>
      </div>
      <div className="flex min-h-0 min-w-0 flex-col">
        <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
          <span className="w-52">
            <Choice
              label="Which glyphs"
              value={scope}
              options={[
                {
                  value: 'chosen',
                  text: some.length === 1 ? `Only ${project.glyphs[some[0]!]!.name}` : `${some.length} chosen`,
                  hint: 'The glyphs that are chosen',
                },
                { value: 'all', text: 'All', hint: 'Every glyph of this master' },
              ]}
              onChange={setScope}
            />
          </span>
          <span className="text-quiet">
            Press a letter to leave it; − and + make one lighter or heavier than the others.
          </span>
        </div>
        <Letters
          project={project}
          master={masterId}
          glyphs={shown}
          total={glyphs.length}
          {...{ made, left, own }}
          onLeave={(id) => setLeft(toggled(left, id))}
          onOwn={(id, by) => setOwn({ ...own, [id]: (own[id] ?? 0) + by })}
          onMore={() => setCount(count + AT_ONCE)}
        />
        <div role="status" className="mt-2 min-h-5 text-[13px] text-quiet">
          {fault ? (
            <span className="text-brick">{fault}</span>
          ) : share !== undefined ? (
            <Bar label="Reweighting" share={share} />
          ) : late && !isSame(asked) ? (
            'Working…'
          ) : (
            <Eased project={project} eased={eased} />
          )}
        </div>
        <div className="mt-2 flex flex-wrap items-center justify-end gap-2">
          <span className="text-quiet">Goes to</span>
          <Pick
            label="Goes to"
            className="w-44"
            value={into}
            options={[
              ...project.masters.map((m) => ({
                value: m.id,
                text: m.id === masterId ? `${m.name}, in place` : m.name,
              })),
              { value: NEW, text: 'a new master' },
            ]}
            onChange={setInto}
          />
          {into === NEW && (
            <>
              <TextField
                aria-label="Name of the new master"
                className="!w-32"
                placeholder="its name"
                value={name}
                onChange={(e) => setName(e.target.value)}
              />
              <span className="grid w-36 gap-1">
                <PlaceFields axes={axes} place={at} onChange={(change) => setPlace({ ...place, ...change })} />
              </span>
            </>
          )}
          <Button onClick={closeDialog}>Leave as it is</Button>
          <Button
            kind="primary"
            disabled={taking.length === 0 || share !== undefined || (isSame(asked) && into === masterId)}
            onClick={() => void take()}
          >
            {into === NEW ? 'Add the master' : `Reweight ${plural(taking.length, 'glyph')}`}
          </Button>
        </div>
      </div>
    </div>
  );
}

/** Does reweighting change nothing, since stems and widths are to be what they are? */
const isSame = ({ from, to, width, own, rounds }: ReweightAsked): boolean =>
  from.vertical === to.vertical &&
  from.horizontal === to.horizontal &&
  rounds === 1 &&
  (width === undefined || width === 1) &&
  Object.values(own).every((v) => v === 0);

/** Glyphs that have something to reweight; letters that tell a weight first. */
function lettersFirst(project: Project, ids: readonly GlyphId[], master: string): Glyph[] {
  const telling = [...'nohamegsHOEAR', ...project.texts.galley.slice(0, 200)].flatMap(
    (c) => glyphForCodePoint(project, c.codePointAt(0)!)?.id ?? [],
  );
  const wanted = new Set(ids);
  const order = [...telling.filter((id) => wanted.has(id)), ...ids];
  return [...new Set(order)].flatMap((id) => {
    const glyph = project.glyphs[id]!;
    return isEmptyDrawing(drawingOf(glyph, master)) ? [] : [glyph];
  });
}

/** Shows the letters in the galley and everywhere else while they are looked at. */
function useSeenInGalley(master: string, made: readonly Reweighed[] | undefined, left: ReadonlySet<GlyphId>) {
  useEffect(() => {
    const list = made?.flatMap(({ glyph, drawing }) => (left.has(glyph) ? [] : [{ glyph, drawing }])) ?? [];
    if (list.length > 0) preview((p) => takeReweighed(p, { master, made: list }));
    else cancelPreview();
  }, [master, made, left]);
  useEffect(() => cancelPreview, []);
}
