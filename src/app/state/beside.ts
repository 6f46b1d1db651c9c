import { proxy } from 'comlink';
import { create } from 'zustand';
import { besideScale, type Face, type SameSize } from '../../core/fitting/beside';
import { defaultMaster, masterOf } from '../../core/project/queries';
import { filesWorker } from '../../workers/clients';
import { useBench } from './bench';

/** Another font of one's own laid beside: looked at only, in this tab only; never part of the project, never cast. */
type BesideState = {
  name: string | undefined;
  face: Face | undefined;
  by: SameSize;
  /** Shown behind the drawing in Draw. */
  inDraw: boolean;
  opening: boolean;
  fault: string | undefined;
};

export const useBeside = create<BesideState>(() => ({
  name: undefined,
  face: undefined,
  by: 'x-height',
  inDraw: true,
  opening: false,
  fault: undefined,
}));
const set = useBeside.setState;

/** Lays a font file beside. What is no font is said; what lay there stays. */
export async function layBeside(file: File): Promise<void> {
  set({ opening: true, fault: undefined });
  const { service, stop } = filesWorker();
  try {
    const read = await service.open(
      new Uint8Array(await file.arrayBuffer()),
      file.name,
      0,
      proxy(() => {}),
    );
    if (!read.ok) return set({ fault: read.reason });
    const { project } = read.value;
    set({ name: project.family.name || file.name, face: { project, master: defaultMaster(project) } });
  } catch (error) {
    set({ fault: `${file.name} cannot be read. ${error instanceof Error ? error.message : ''}`.trim() });
  } finally {
    stop();
    set({ opening: false });
  }
}

export const takeBesideAway = (): void => set({ name: undefined, face: undefined, fault: undefined });
export const setBesideBy = (by: SameSize): void => set({ by });
export const setBesideInDraw = (inDraw: boolean): void => set({ inDraw });
export const setBesideMaster = (id: string): void => {
  const { face } = useBeside.getState();
  const master = face && masterOf(face.project, id);
  if (face && master) set({ face: { ...face, master } });
};

/** The face laid beside with the scale that brings it to the size of ours; undefined where none is. */
export function besideNow(): { face: Face; scale: number } | undefined {
  const { face, by } = useBeside.getState();
  const { project, master: id } = useBench.getState();
  const master = project && masterOf(project, id);
  return face && project && master ? { face, scale: besideScale({ project, master }, face, by) } : undefined;
}
