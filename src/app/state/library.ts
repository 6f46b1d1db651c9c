import { z } from 'zod';
import { dropStore, list, recordsOf } from '../../browser/stores';
import { glyphsOfLine } from '../../core/fitting/lines';
import { translation } from '../../core/geometry/affine';
import { transformContour } from '../../core/geometry/contour';
import type { Project } from '../../core/project/model';
import { drawingsOf, flattened } from '../../core/project/outline';
import { pathData } from '../../core/project/pathData';
import { defaultMaster, drawingOf } from '../../core/project/queries';
import { takeProject } from './tabLock';

const specimen = z.object({ path: z.string(), width: z.number(), top: z.number(), bottom: z.number() });
/** The family’s name in its own letters: path data in font units, y up, and its extent. */
export type Specimen = z.infer<typeof specimen>;

const entrySchema = z.object({
  id: z.string(),
  name: z.string(),
  updated: z.number(),
  glyphs: z.number(),
  specimen: specimen.optional(),
  /** When it was put into the bin, in milliseconds since 1970. */
  binned: z.number().optional(),
});
/** A project in this browser, as the start page lists it. */
export type LibraryEntry = z.infer<typeof entrySchema>;

const PROJECT = 'project/';
/** Removed projects are kept this long. */
const BIN_DAYS = 30;
const DAY = 24 * 60 * 60 * 1000;

/** Projects, newest first, those in the bin as well. A record that cannot be read hides no other. */
async function entries(): Promise<LibraryEntry[]> {
  const keys = (await list.keys()).filter((key) => key.startsWith(PROJECT));
  const found = await Promise.all(
    keys.map(async (key): Promise<LibraryEntry> => {
      const parsed = entrySchema.safeParse(await list.get(key));
      const id = key.slice(PROJECT.length);
      return parsed.success ? parsed.data : { id, name: `A project without a name (${id})`, updated: 0, glyphs: 0 };
    }),
  );
  return found.sort((a, b) => b.updated - a.updated);
}

export const listProjects = async (): Promise<LibraryEntry[]> =>
  (await entries()).filter((e) => e.binned === undefined);

/** What lies in the bin; what has lain there for 30 days goes for good. */
export async function listBin(): Promise<(LibraryEntry & { daysLeft: number })[]> {
  const all = (await entries()).flatMap((e) => (e.binned === undefined ? [] : [{ ...e, binned: e.binned }]));
  const now = Date.now();
  const due = all.filter((e) => now - e.binned > BIN_DAYS * DAY);
  for (const { id } of due) await forgetProject(id);
  return all
    .filter((e) => !due.includes(e))
    .map((e) => ({ ...e, daysLeft: Math.max(1, Math.ceil(BIN_DAYS - (now - e.binned) / DAY)) }));
}

/** The family's name set in its own letters, as far as they are drawn. */
function specimenOf(project: Project): Specimen | undefined {
  const master = defaultMaster(project);
  let width = 0;
  const paths: string[] = [];
  for (const id of glyphsOfLine(project, project.family.name.slice(0, 60)).glyphs) {
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

/** What a project is called among others: its family, and its style where that is an italic. */
export function listedName(project: Project): string {
  const { name, italicAngle } = defaultMaster(project);
  const { name: family } = project.family;
  return italicAngle === 0 || family.endsWith(name) ? family : `${family} ${name}`;
}

const entryOf = (id: string, project: Project): LibraryEntry => {
  const specimen = specimenOf(project);
  return {
    id,
    name: listedName(project),
    updated: Date.now(),
    glyphs: project.glyphOrder.length,
    ...(specimen ? { specimen } : {}),
  };
};

/** A name for a new project that no other has: eight hexadecimal digits, which addresses that are not safe have as well. */
const newId = (): string =>
  [...crypto.getRandomValues(new Uint8Array(4))].map((b) => b.toString(16).padStart(2, '0')).join('');

/** Stores a new project and lists it. */
export async function storeProject(project: Project, id: string = newId()): Promise<string> {
  await recordsOf(id).create(project);
  await touchProject(id, project);
  return id;
}

/** Lists a project as it is now. */
export async function touchProject(id: string, project: Project): Promise<void> {
  await list.set(PROJECT + id, entryOf(id, project));
}

const change = async (id: string, changes: Partial<LibraryEntry>) => {
  const entry = (await entries()).find((e) => e.id === id);
  if (entry) await list.set(PROJECT + id, { ...entry, ...changes });
};

/** Puts a project into the bin. Refused, with the reason, while it is open in a tab. */
export async function binProject(id: string): Promise<void> {
  const lock = await takeProject(id);
  lock.release();
  if (!lock.mine) throw new Error('It is open in another tab; close it there before you remove it.');
  await change(id, { binned: Date.now() });
}

export const restoreProject = (id: string): Promise<void> => change(id, { binned: undefined });

/** Removes a project for good. */
export async function forgetProject(id: string): Promise<void> {
  await list.remove(PROJECT + id);
  await dropStore(id);
}

/** Every record of a project as JSON, for one that cannot be shown. */
export async function everythingOf(id: string): Promise<Uint8Array> {
  const records = await recordsOf(id).everything();
  const plain = (_: string, v: unknown) =>
    v instanceof Uint8Array ? { $bytes: btoa(Array.from(v, (c) => String.fromCharCode(c)).join('')) } : v;
  return new TextEncoder().encode(JSON.stringify(Object.fromEntries(records), plain));
}

/** Was the demo put into this browser before? It is offered once; a removed demo stays removed. */
export const demoWasStored = async (): Promise<boolean> => (await list.get('demo')) === true;
export const rememberDemo = async (): Promise<void> => {
  await list.set('demo', true);
};
