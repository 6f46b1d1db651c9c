import type { Project } from '../project/model';

/** A casting as the project keeps it: what was made, and how large. */
export type Casting = NonNullable<Project['settings']['castings']>[number];

/** Files beyond this are counted, not kept one by one. */
const MOST_FILES = 80;

type Made = {
  fileName: string;
  bytes: Uint8Array;
  tables: Readonly<Record<string, number>>;
  glyphs: number;
  kerningPairs: number;
};

/** What is kept of a casting. */
export const castingOf = (project: Project, files: readonly Made[], at: number): Casting => ({
  at,
  version: `${project.family.versionMajor}.${String(project.family.versionMinor).padStart(3, '0')}`,
  files: files.slice(0, MOST_FILES).map((f) => ({
    name: f.fileName,
    bytes: f.bytes.length,
    glyphs: f.glyphs,
    pairs: f.kerningPairs,
    tables: f.tables,
  })),
  more: Math.max(0, files.length - MOST_FILES),
});

/** The same file in the casting before, if it was made then. */
export const before = (castings: readonly Casting[], at: number, name: string): Casting['files'][number] | undefined =>
  castings
    .filter((c) => c.at < at)
    .sort((a, b) => b.at - a.at)
    .flatMap((c) => c.files.filter((f) => f.name === name))[0];
