import { type ReactNode, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { glyphOf, termsOf } from '../../../core/deriving/derive';
import { SETS, type SetFacts } from '../../../core/deriving/sets';
import type { SetItem } from '../../../core/deriving/view';
import { masterOf } from '../../../core/project/queries';
import { layHands } from '../../keys/hands';
import { chooseGlyph, say, useBench } from '../../state/bench';
import { type MadeBeside, takeMade } from '../../state/steps';
import { useJob } from '../../state/useJob';
import { Bar } from '../../ui/controls';
import { Button } from '../../ui/parts';
import { toggled } from '../../ui/toggled';
import { SetDetails } from './SetDetails';
import { SetTile } from './SetTile';

let lastSet = SETS[0]!.key;

type Looked = { key: string; items: SetItem[]; counts: Readonly<Record<string, { drawn: number; all: number }>> };

/** The glyphs of a set as they stand; what was found before stays in sight while it is looked at anew. */
function useSet(set: SetFacts) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const { found, share, fault, start } = useJob<Looked>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at anew for what it is about.
  useEffect(() => {
    start(async (service, progress) => ({ key: set.key, ...(await service.derivedSet(set.key, master, progress)) }));
  }, [project, master, set]);
  const held = useRef<Looked>(undefined);
  if (found) held.current = found;
  const items = held.current?.key === set.key ? held.current.items : undefined;
  return { items, counts: held.current?.counts, share, fault };
}

/** Sets of glyphs that are made from others: what there is, what can be made, and drafts of it. */
export function Sets({ views }: { views: ReactNode }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const navigate = useNavigate();
  const [key, setKey] = useState(lastSet);
  const set = SETS.find((s) => s.key === key)!;
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const { items, counts, share, fault } = useSet(set);
  const making = useJob<MadeBeside>();
  const ready = items?.filter((i) => i.state === 'can' || i.state === 'changed') ?? [];
  const picked = items?.filter((i) => chosen.has(i.name)) ?? [];
  const asked = picked.filter((i) => i.state === 'can' || i.state === 'changed');
  const list = asked.length > 0 ? asked : ready;
  const fresh = list.filter((i) => i.state === 'can').length;
  const choose = (next: string) => {
    lastSet = next;
    setKey(next);
    setChosen(new Set());
  };
  const make = (names?: readonly string[]) => {
    const before = useBench.getState().settled;
    making.start(async (service, progress) => {
      const made = (await service.madeSet(set.key, names, progress)) as MadeBeside;
      if (takeMade(before, made, 'press again.') && made.ok) say(made.value.sentence);
      return made;
    });
  };
  const space = () => {
    const before = useBench.getState().settled;
    making.start(async (service) => {
      const made = (await service.spacedSet(set.key)) as MadeBeside;
      if (takeMade(before, made, 'press again.') && made.ok) say(made.value.sentence);
      return made;
    });
  };
  const open = (name: string): boolean => {
    const item = items?.find((i) => i.name === name);
    const glyph = item && glyphOf(project, item);
    if (!glyph) return false;
    chooseGlyph(glyph.id);
    void navigate(`../draw?glyph=${encodeURIComponent(glyph.name)}`, { relative: 'path' });
    return true;
  };
  const makeListed = () => make(asked.length > 0 ? asked.map((i) => i.name) : undefined);
  useEffect(() =>
    layHands('compose', {
      enter: () => {
        if (asked.length > 0) makeListed();
        else if (picked.length === 1) open(picked[0]!.name);
        return true;
      },
      all: () => {
        setChosen(new Set(items?.map((i) => i.name)));
        return true;
      },
      anew: () => false,
      apart: () => false,
    }),
  );
  const zones = masterOf(project, master)!.zones;
  const reach = {
    top: Math.max(zones.capHeight.position, zones.ascender.position) + project.unitsPerEm * 0.16,
    bottom: zones.descender.position - project.unitsPerEm * 0.06,
  };
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 pt-3 pb-2">
          {views}
          <Button
            kind="primary"
            className="ml-auto"
            disabled={list.length === 0 || making.share !== undefined}
            title="In all masters, from what is drawn; nothing that is drawn or corrected by hand is touched"
            onClick={makeListed}
          >
            {list.length === 0
              ? 'Nothing to make'
              : fresh > 0
                ? `Make ${asked.length > 0 ? `${fresh} chosen` : fresh}`
                : `Bring ${list.length} up to date`}
          </Button>
        </div>
        <div className="grid min-h-0 flex-1 grid-cols-[210px_minmax(0,1fr)]">
          <ul aria-label="Sets" className="min-h-0 overflow-auto py-1 pr-1 pl-3">
            {SETS.map((s) => {
              const count = counts?.[s.key];
              return (
                <li key={s.key}>
                  <button
                    type="button"
                    aria-pressed={s.key === key}
                    title={s.does}
                    onClick={() => choose(s.key)}
                    className={`flex w-full items-baseline justify-between gap-2 rounded-md px-2.5 py-1.5 text-left ${s.key === key ? 'bg-kelp-tint font-semibold text-kelp' : 'hover:bg-kelp-tint'}`}
                  >
                    <span>{s.title}</span>
                    <span className="shrink-0 text-[12.5px] font-normal text-quiet tabular-nums">
                      {count && countIn(count)}
                    </span>
                  </button>
                </li>
              );
            })}
          </ul>
          <div className="flex min-h-0 min-w-0 flex-col px-4">
            <p className="mb-2 text-quiet">{set.does}.</p>
            {(fault ?? making.fault) && (
              <p role="alert" className="mb-2 text-brick">
                {fault ?? making.fault}
              </p>
            )}
            {making.share !== undefined && <Bar label={`Making ${set.title}`} share={making.share} className="mb-2" />}
            {!items && share !== undefined && <Bar label={`Looking at ${set.title}`} share={share} className="mb-2" />}
            <ul
              aria-label={set.title}
              className="grid min-h-0 flex-1 grid-cols-[repeat(auto-fill,minmax(78px,1fr))] content-start gap-1.5 overflow-auto pb-3"
            >
              {items?.map((item) => (
                <SetTile
                  key={item.name}
                  {...{ item, project, master, reach }}
                  chosen={chosen.has(item.name)}
                  onPick={(also) => setChosen(also ? toggled(chosen, item.name) : new Set([item.name]))}
                  onOpen={() =>
                    item.state === 'can' || item.state === 'changed' ? make([item.name]) : open(item.name)
                  }
                />
              ))}
            </ul>
            {items?.length === 0 && (
              <p className="text-quiet">{set.none ?? 'Nothing is drawn yet that this set could come from.'}</p>
            )}
          </div>
        </div>
      </div>
      <SetDetails
        key={set.key}
        set={set}
        terms={termsOf(project, set)}
        items={items}
        picked={picked}
        onMake={(names) => make(names)}
        onSpace={space}
        onOpen={open}
      />
    </div>
  );
}

const countIn = ({ drawn, all }: { drawn: number; all: number }): string =>
  all === 0 ? '–' : drawn === all ? 'all' : `${drawn} of ${all}`;
