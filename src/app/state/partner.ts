import { create } from 'zustand';
import { type Result, refused } from '../../core/base/result';
import type { MasterId, Project } from '../../core/project/model';
import { fellowOf, type Partner, partnerMaster, partnerPlace } from '../../core/project/partner';
import { type Place, wholePlace } from '../../core/project/places';
import { defaultMaster } from '../../core/project/queries';
import type { Setting } from '../../core/project/setting';
import { waypointPlace } from '../../core/project/waypoints';
import { startCompiler } from '../../workers/clients';
import type { SetLine, SetLines } from '../../workers/compile';
import { say, useBench } from './bench';
import { listProjects } from './library';
import { goTo, stageNow } from './navigation';

/** The partner of the project at hand, as it lies in storage: looked at beside it, never changed from here. */
type PartnerState = {
  /** The project that it was read for, and when that one was stored. */
  id: string;
  stamp: number;
  told: Partner | undefined;
  fault: string | undefined;
  /** Behind the drawing in Draw; a line of its own in the galley. */
  inDraw: boolean;
  inGalley: boolean;
  /** The glyph at hand as the partner has it. */
  outline: { glyph: string; path: string } | undefined;
};

export const usePartner = create<PartnerState>(() => ({
  id: '',
  stamp: 0,
  told: undefined,
  fault: undefined,
  inDraw: false,
  inGalley: false,
  outline: undefined,
}));
const set = usePartner.setState;
const get = usePartner.getState;
export const setPartnerInDraw = (inDraw: boolean): void => set({ inDraw });
export const setPartnerInGalley = (inGalley: boolean): void => set({ inGalley });

let running: ReturnType<typeof startCompiler> | undefined;
let bringing: Promise<Partner | undefined> | undefined;

/** The partner of the project at hand as it was stored last; undefined where there is none or it cannot be read, which is told. */
export function bringPartner(): Promise<Partner | undefined> {
  bringing ??= bring().finally(() => {
    bringing = undefined;
  });
  return bringing;
}

async function bring(): Promise<Partner | undefined> {
  const partner = useBench.getState().settled?.settings.partner;
  if (!partner) {
    running?.stop();
    running = undefined;
    set({ id: '', told: undefined, fault: undefined, outline: undefined });
    return undefined;
  }
  const entry = (await listProjects()).find((e) => e.id === partner.id);
  const stamp = entry?.updated ?? 0;
  if (get().id === partner.id && get().stamp === stamp && get().told) return get().told;
  running ??= startCompiler(() => {
    running = undefined;
  });
  try {
    const told: Result<Partner> = entry
      ? ((await running.service.loadStored(partner.id)) as Result<Partner>)
      : refused('It is not among the projects of this browser.');
    set({
      id: partner.id,
      stamp,
      told: told.ok ? told.value : undefined,
      fault: told.ok ? undefined : `${partner.name}: ${told.reason}`,
      outline: undefined,
    });
    return get().told;
  } catch (error) {
    set({ id: partner.id, stamp: 0, told: undefined, fault: `${partner.name}: ${String(error)}` });
    return undefined;
  }
}

/** The place that is looked at now, in design units. */
function placeNow(project: Project, master: MasterId, visit: Place | undefined): Place {
  const own = project.masters.find((m) => m.id === master) ?? defaultMaster(project);
  return wholePlace(project.axes, visit ?? waypointPlace(master) ?? own.place);
}

/** The same place in the partner. */
function placeThere(told: Partner): Place | undefined {
  const { settled, master, visit } = useBench.getState();
  return settled && partnerPlace(settled.axes, placeNow(settled, master, visit), told);
}

/** A line of text in the partner at the same place; undefined where it cannot be set. */
export async function partnerLine(text: string, setting: Setting): Promise<SetLine | undefined> {
  const told = await bringPartner();
  const place = told && placeThere(told);
  if (!place || !running) return undefined;
  const lines = (await running.service.setLines({
    texts: [text],
    place: { design: place, name: 'partner' },
    setting,
  })) as Result<SetLines>;
  return lines.ok ? lines.value.lines[0] : undefined;
}

/** Brings the outline of the glyph at hand as the partner has it. */
export async function bringOutline(): Promise<void> {
  const told = await bringPartner();
  const { project, glyph: id } = useBench.getState();
  const glyph = id === undefined ? undefined : project?.glyphs[id];
  const fellow = told && glyph && fellowOf(glyph, told);
  const place = told && placeThere(told);
  const drawn = fellow && place && running ? await running.service.outline(fellow.id, place) : undefined;
  set({ outline: drawn && glyph ? { glyph: glyph.id, path: drawn.path } : undefined });
}

/** Goes to the same glyph in the partner, or to one of its own, in the same stage, at the nearest master. */
export async function goToPartner(own?: string): Promise<void> {
  const told = await bringPartner();
  const { settled, master, visit, glyph: id, projectId } = useBench.getState();
  const partner = settled?.settings.partner;
  if (!settled || !partner) return;
  if (!told) return say(get().fault ?? `${partner.name} cannot be read.`);
  const glyph = id === undefined ? undefined : settled.glyphs[id];
  const fellow = told.glyphs.find((g) => g.id === own) ?? (glyph && fellowOf(glyph, told));
  const search = new URLSearchParams({
    ...(fellow && { glyph: fellow.name }),
    master: partnerMaster(settled.axes, placeNow(settled, master, visit), told).id,
    partner: projectId,
  });
  if (glyph && !fellow) say(`${partner.name} has no ${glyph.name}.`);
  goTo(`/p/${partner.id}/${stageNow() ?? 'draw'}?${search}`);
}
