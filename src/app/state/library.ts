import localforage from 'localforage';
import { glyphsOfLine } from '../../core/fitting/lines';
import { translation } from '../../core/geometry/affine';
import { transformContour } from '../../core/geometry/contour';
import type { Project } from '../../core/project/model';
import { drawingsOf, flattened } from '../../core/project/outline';
import { defaultMaster, drawingOf } from '../../core/project/queries';
import { pathData } from '../canvas/outlinePaths';
import { type KeyValue, ProjectRecords } from './records';

/** A project in this browser, as the start page lists it. */
export type LibraryEntry = {
  id: string;
  name: string;
  updated: number;
  glyphs: number;
  /** The family’s name in its own letters: path data in font units, y up, and its extent. */
  specimen?: Specimen;
};

export type Specimen = { path: string; width: number; top: number; bottom: number };

const list = localforage.createInstance({ name: 'wendril', storeName: 'library' });
const stores = new Map<string, LocalForage>();

/** Each project has a database of its own, so that opening reads it in one sweep and removing drops it whole. */
function storeOf(id: string): LocalForage {
  const store = stores.get(id) ?? localforage.createInstance({ name: `wendril-${id}`, storeName: 'records' });
  stores.set(id, store);
  return store;
}

const keyValue = (store: LocalForage): KeyValue => ({
  async set(key, value) {
    await store.setItem(key, value);
  },
  remove: (key) => store.removeItem(key),
  async all(prefix) {
    const found = new Map<string, unknown>();
    await store.iterate((value, key) => {
      if (key.startsWith(prefix)) found.set(key, value);
    });
    return found;
  },
});

export const recordsOf = (id: string): ProjectRecords => new ProjectRecords(keyValue(storeOf(id)), `project/${id}/`);

export async function listProjects(): Promise<LibraryEntry[]> {
  const entries: LibraryEntry[] = [];
  await list.iterate<LibraryEntry, void>((entry, key) => {
    if (key.startsWith('project/')) entries.push(entry);
  });
  return entries.sort((a, b) => b.updated - a.updated);
}

/** The family's name set in its own letters, as far as they are drawn. */
function specimenOf(project: Project): Specimen | undefined {
  const master = defaultMaster(project);
  let width = 0;
  const paths: string[] = [];
  for (const id of glyphsOfLine(project, project.family.name).glyphs) {
    const drawing = drawingOf(project.glyphs[id]!, master.id);
    const contours = flattened(drawing, drawingsOf(project, master.id)).filter((c) => c.closed);
    paths.push(pathData(contours.map((c) => transformContour(c, translation(width, 0)))));
    width += drawing.advance;
  }
  const path = paths.join('');
  return path === ''
    ? undefined
    : { path, width, top: master.zones.ascender.position, bottom: master.zones.descender.position };
}

const entryOf = (id: string, project: Project): LibraryEntry => {
  const specimen = specimenOf(project);
  return {
    id,
    name: project.family.name,
    updated: Date.now(),
    glyphs: project.glyphOrder.length,
    ...(specimen ? { specimen } : {}),
  };
};

/** Stores a new project and lists it. */
export async function storeProject(project: Project, id: string = crypto.randomUUID().slice(0, 8)): Promise<string> {
  await recordsOf(id).create(project);
  await list.setItem(`project/${id}`, entryOf(id, project));
  return id;
}

export async function touchProject(id: string, project: Project): Promise<void> {
  await list.setItem(`project/${id}`, entryOf(id, project));
}

export async function deleteProject(id: string): Promise<void> {
  await list.removeItem(`project/${id}`);
  stores.delete(id);
  await localforage.dropInstance({ name: `wendril-${id}` });
}

/** Was the demo put into this browser before? It is offered once; a removed demo stays removed. */
export const demoWasStored = async (): Promise<boolean> => (await list.getItem('demo')) === true;
export const rememberDemo = async (): Promise<void> => {
  await list.setItem('demo', true);
};

/** A storage failure as a sentence. */
export function storageSentence(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  return name === 'QuotaExceededError'
    ? 'The browser’s storage is full: save the project to a file now, then remove projects you no longer need.'
    : 'The browser could not store the change: save the project to a file now.';
}
