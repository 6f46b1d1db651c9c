import type { Finding } from '../core/base/finding';
import { type Result, refused } from '../core/base/result';
import { checkFont } from '../core/casting/checks';
import { type Fingerprint, fingerprintOf } from '../core/casting/fingerprint';
import type { CastFont } from '../core/casting/font';
import { castOutputs, type Format, type OutputFile, plannedFiles } from '../core/casting/outputs';
import type { CastThing } from '../core/casting/things';
import type { FontProject } from '../core/formats/font/projectFromFont';
import { facesOf, openAny, openTree, unpackedFont } from '../core/formats/openFile';
import { projectFiles, writeProjectFile } from '../core/formats/project/projectFile';
import { cmap } from '../core/opentype/cmap';
import { readSfnt, tableOf, tableSizes } from '../core/opentype/sfnt';
import type { CastTerms, Project } from '../core/project/model';

import type { ProofInput } from './proofs/proof';
import { readBack } from './readBack';
import { storedProject } from './stored';

export type CastFile = {
  fileName: string;
  format: Format;
  thing: CastThing;
  bytes: Uint8Array;
  glyphs: number;
  /** Characters that the font has. */
  codePoints: readonly number[];
  /** Names by glyph index. */
  glyphNames: readonly string[];
  quadraticError: number;
  kerningPairs: number;
  checks: Finding[];
  /** What is left out, or otherwise than one might expect. */
  notes: readonly string[];
  /** Bytes of each table of the font, unpacked. */
  tables: Readonly<Record<string, number>>;
  /** The characters of a font that is a part of one, as style sheets write them. */
  range?: string;
};

export type CastChoice = { formats: Format[]; things: CastThing[]; terms: CastTerms };

let kept: Project | undefined;

/** The service for whole files: opening, saving and casting, away from the pointer. */
export const filesService = {
  /** Faces of a collection to choose from; none for any other file. */
  faces: facesOf,

  open: (
    bytes: Uint8Array,
    name: string,
    face: number,
    progress: (done: number, total: number) => void,
  ): Promise<Result<FontProject>> => openAny(bytes, name, { face, progress }),

  /** The same from the files of a folder. */
  openTree: (
    files: ReadonlyMap<string, Uint8Array>,
    name: string,
    progress: (done: number, total: number) => void,
  ): Result<FontProject> => openTree(files, name, progress),

  save: (project: Project): Uint8Array => writeProjectFile(project),

  /** The files of a project, for a folder. */
  tree: (project: Project): Map<string, Uint8Array> => projectFiles(project),

  /** A printable proof of cast files. */
  async proof(input: ProofInput): Promise<Uint8Array> {
    const { makeProof } = await import('./proofs/proof');
    const unpacked = async (f: ProofInput['font']) => {
      const font = await unpackedFont(f.bytes, f.title);
      return { ...f, bytes: font.ok ? font.value.bytes : f.bytes };
    };
    return makeProof({
      ...input,
      font: await unpacked(input.font),
      family: await Promise.all(input.family.map(unpacked)),
    });
  },

  /** Casts another project of this browser beside the one at hand; its masters are told as the first are. */
  async castStored(
    id: string,
    choice: CastChoice,
    progress: (done: number, total: number, now: string) => void,
  ): Promise<Result<CastFile[]>> {
    const found = await storedProject(id);
    return found.ok ? filesService.cast(found.value, choice, progress) : found;
  },

  /** Names of the files that a choice comes to; refused where two are alike. */
  planned: (project: Project, choice: CastChoice): Promise<Result<string[]>> => plannedFiles(project, choice),

  /** Keeps a project for {@link castKept}, so that it is handed over once. */
  keep(project: Project): void {
    kept = project;
  },

  /** What the project that was kept is like, to tell later what has changed. */
  fingerprintKept: (): Fingerprint | undefined => kept && fingerprintOf(kept),

  /** Casts of the project that was kept. */
  castKept: (
    choice: CastChoice,
    progress: (done: number, total: number, now: string) => void,
  ): Promise<Result<CastFile[]>> =>
    kept ? filesService.cast(kept, choice, progress) : Promise.resolve(refused('There is no project to cast.')),

  async cast(
    project: Project,
    choice: CastChoice,
    progress: (done: number, total: number, now: string) => void,
  ): Promise<Result<CastFile[]>> {
    const result = await castOutputs(project, {
      formats: choice.formats,
      things: choice.things,
      terms: choice.terms,
      progress,
    });
    if (!result.ok) return result;
    // Packed and plain files hold the same font.
    const held = new Map<CastFont, Finding>();
    const checked = ({ font, thing }: OutputFile): Finding[] => {
      const back = held.get(font) ?? readBack(project, thing, font);
      held.set(font, back);
      return [...checkFont(font.bytes), back];
    };
    return {
      ok: true,
      value: result.value.map(({ font, said, ...file }) => ({
        ...file,
        glyphs: font.glyphIds.length,
        codePoints: [...cmap.read(tableOf(readSfnt(font.bytes), 'cmap')).keys()],
        glyphNames: font.glyphIds.map((id) => project.glyphs[id]?.name ?? '.notdef'),
        quadraticError: file.format === 'otf' ? 0 : font.quadraticError,
        kerningPairs: font.kerningPairs,
        checks: checked({ font, said, ...file }),
        notes: [...font.notes.map((n) => n.reason), ...said],
        tables: tableSizes(font.bytes),
      })),
    };
  },
};

export type FilesService = typeof filesService;
