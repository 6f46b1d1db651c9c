import { z } from 'zod';
import { glyphsTouched } from '../project/changes';
import { PART_WORDS } from '../project/differences';
import { plural } from '../project/edit';
import type { Entry } from '../project/history';
import type { Project } from '../project/model';
import { type KeyValue, recordsUnder } from './keyValue';

const copySchema = z.object({
  /** When it was made, in milliseconds since 1970: its name, too. */
  at: z.number(),
  /** Where the history stood. */
  position: z.number(),
  glyphs: z.number(),
  /** How much room its file takes. */
  bytes: z.number(),
  /** What changed since the one before, in words. */
  said: z.string(),
});
/** A state of a project that was kept by itself, as a project file. */
export type Copy = z.infer<typeof copySchema>;

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
/** For so many days one copy of each day is kept. */
const DAYS = 30;
/** Copies take no more room than this, the newest apart, in bytes. */
const MOST_BYTES = 150_000_000;

const FACTS = 'copy/';
const FILE = 'file/';

/** Is it time for a copy: something was done since the last, and that is an hour old, or from a time that has not come yet? */
export function isDue(copies: readonly Copy[], position: number, now: number): boolean {
  const [last] = newestFirst(copies);
  if (!last) return position > 0;
  return position !== last.position && (now - last.at >= HOUR || last.at > now + MINUTE);
}

/** Which copies stay: the newest of each hour of the last day, of each day of the last thirty, and no more than there is room for. */
export function keptOf(copies: readonly Copy[], now: number): Copy[] {
  const seen = new Set<string>();
  let bytes = 0;
  return newestFirst(copies).filter((copy, i) => {
    const age = now - copy.at;
    const span = age < DAY ? `hour ${Math.floor(copy.at / HOUR)}` : `day ${Math.floor(copy.at / DAY)}`;
    bytes += copy.bytes;
    if (i > 0 && (seen.has(span) || age > DAYS * DAY || bytes > MOST_BYTES)) return false;
    seen.add(span);
    return true;
  });
}

const newestFirst = (copies: readonly Copy[]): Copy[] => [...copies].sort((a, b) => b.at - a.at);

/** What entries did, in few words: how many steps, which glyphs, what else. */
export function saidOf(project: Project, entries: readonly Entry[]): string {
  if (entries.length === 0) return 'The first copy.';
  const names = [...glyphsTouched(entries)].flatMap((id) => project.glyphs[id]?.name ?? []);
  const paths = entries.flatMap((e) => e.patch.map((c) => c.path));
  const others = [
    ...(paths.some((p) => p[0] === 'masters' && p[2] === 'kerning') ? ['kerning'] : []),
    ...(paths.some((p) => p[0] === 'masters' && p[2] !== 'kerning') ? ['masters'] : []),
    ...Object.entries(PART_WORDS).flatMap(([part, word]) => (paths.some((p) => p[0] === part) ? [word] : [])),
  ];
  const shown = names.slice(0, 6).join(' ');
  const glyphs = names.length === 0 ? [] : [names.length > 6 ? `${shown} and ${names.length - 6} more glyphs` : shown];
  const what = [...glyphs, ...others].join(', ');
  return `${plural(entries.length, 'step')}${what === '' ? '' : `: ${what}`}.`;
}

/** The copies of one project. Facts and file of a copy are two records, so that a list is read without the files. */
export class Copies {
  constructor(private readonly store: KeyValue) {}

  /** Newest first. One that cannot be read hides no other, and its file stays. */
  async list(): Promise<Copy[]> {
    const found = await recordsUnder(this.store, FACTS);
    return newestFirst([...found.values()].flatMap((v) => copySchema.safeParse(v).data ?? []));
  }

  /** Keeps a copy, and lets go of those that are not kept any longer. */
  async add(copy: Copy, file: Uint8Array, now: number): Promise<void> {
    // The file first: a copy that is listed is there.
    await this.store.set(FILE + copy.at, file);
    await this.store.set(FACTS + copy.at, copy);
    const all = await this.list();
    const kept = new Set(keptOf(all, now).map((c) => c.at));
    for (const { at } of all) if (!kept.has(at)) await this.remove(at);
  }

  /** The project file of a copy; undefined where it is gone. */
  async file(at: number): Promise<Uint8Array | undefined> {
    const found = await this.store.get(FILE + at);
    return found instanceof Uint8Array ? found : undefined;
  }

  async remove(at: number): Promise<void> {
    await this.store.remove(FACTS + at);
    await this.store.remove(FILE + at);
  }
}
