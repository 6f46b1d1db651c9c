import { basename, dirname } from 'node:path';
import { castFont } from '../core/casting/font';
import { toWoff2 } from '../core/fontfacts/webfont';
import { packZip } from '../core/formats/fileTree';
import { projectFiles, ufoFiles, writeProjectFile } from '../core/formats/project/projectFile';
import { writeSvg } from '../core/formats/svg/svg';
import { toWoff } from '../core/opentype/woff';
import type { Master, Project } from '../core/project/model';
import { defaultMaster, glyphForCodePoint, glyphNamed } from '../core/project/queries';
import { endingOf, parsed, tellNotes, twoPaths } from './arguments';
import { CliError } from './problem';
import { openInput } from './source';
import { put, putAmong, putFolder } from './writing';

const KINDS = ['.otf', '.ttf', '.woff', '.woff2', '.ufo', '.ufoz', '.designspace', '.wendril', '.svg'];

/** `wendril convert`: reads a source or font of any kind and writes another, told by the endings of the two names. */
export async function convert(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [from, to] = twoPaths('convert', positionals, 'IN and OUT');
  const kind = endingOf(to, KINDS);
  if (values.glyph !== undefined && kind !== '.svg' && !/\.svg$/i.test(from))
    throw new CliError('--glyph chooses the glyph of an .svg file; other files hold all glyphs.');
  const face = Number(values.face);
  if (!Number.isInteger(face) || face < 1) throw new CliError(`“${values.face}” is not the number of a face.`);
  const { project, notes } = await openInput(from, {
    face: face - 1,
    ...(values.glyph !== undefined && { glyph: values.glyph }),
  });
  tellNotes(notes);
  const master = defaultMaster(project);
  if (project.masters.length > 1 && !['.designspace', '.wendril'].includes(kind)) {
    process.stderr.write(
      `wendril: ${from} has ${project.masters.length} masters; ${basename(to)} holds the default, ${master.name}.\n`,
    );
  }
  await write(to, kind, project, master, values);
  process.stdout.write(`${to}\n`);
}

const OPTIONS = {
  glyph: { type: 'string' },
  face: { type: 'string', default: '1' },
  'keep-overlaps': { type: 'boolean', default: false },
} as const;
type Values = ReturnType<typeof parsed<typeof OPTIONS>>['values'];

/** Writes a project in the form its ending tells; files of one master get the one given. */
export async function write(
  to: string,
  kind: string,
  project: Project,
  master: Master,
  values: Partial<Values>,
): Promise<void> {
  if (kind === '.svg') put(to, new TextEncoder().encode(writeSvg(project, glyphOf(project, values.glyph), master.id)));
  else if (kind === '.wendril') put(to, writeProjectFile(project));
  else if (kind === '.designspace') putDesignspace(to, project);
  else if (kind === '.ufo' || kind === '.ufoz') {
    const label = basename(to.replace(/[/\\]+$/, '')).replace(/\.ufoz$/, '.ufo');
    const files = ufoFiles(project, master, label);
    if (kind === '.ufoz') put(to, packZip(new Map([...files].map(([path, bytes]) => [`${label}/${path}`, bytes]))));
    else putFolder(to, files);
  } else {
    const cast = castFont(project, {
      flavour: kind === '.otf' ? 'otf' : 'ttf',
      place: { master: master.id },
      keepOverlaps: values['keep-overlaps'] ?? false,
    });
    if (!cast.ok) throw new CliError(cast.reason);
    const { bytes, notes } = cast.value;
    tellNotes(notes.map((n) => n.reason));
    put(to, kind === '.woff' ? toWoff(bytes) : kind === '.woff2' ? await toWoff2(bytes) : bytes);
  }
}

function glyphOf(project: Project, wanted: string | undefined): string {
  if (wanted === undefined)
    throw new CliError('An .svg file holds one glyph: choose it with --glyph NAME or a character.');
  const code =
    [...wanted].length === 1
      ? wanted.codePointAt(0)!
      : /^U\+([0-9A-F]{1,6})$/i.test(wanted)
        ? Number.parseInt(wanted.slice(2), 16)
        : undefined;
  const glyph = glyphNamed(project, wanted) ?? (code === undefined ? undefined : glyphForCodePoint(project, code));
  if (!glyph) throw new CliError(`There is no glyph “${wanted}”.`);
  return glyph.id;
}

/** The designspace under its name and its UFOs beside it. */
function putDesignspace(to: string, project: Project): void {
  const all = projectFiles(project);
  const space = [...all.keys()].find((path) => path.endsWith('.designspace'))!;
  putAmong(
    dirname(to),
    new Map([...all].map(([path, bytes]) => [path === space ? basename(to) : path, bytes] as const)),
  );
}
