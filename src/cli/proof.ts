import { castOutputs } from '../core/casting/outputs';
import { PAGE_SIZES, type PageSize, PROOF_SECTIONS, type ProofSection } from '../core/casting/proofKinds';
import { type CastThing, thingsOf } from '../core/casting/things';
import { isFont, unpackedFont } from '../core/formats/openFile';
import type { Project } from '../core/project/model';
import { defaultMaster } from '../core/project/queries';
import { makeProof } from '../workers/proofs/proof';
import type { ProofedFont } from '../workers/proofs/sections';
import { parsed, tellNotes } from './arguments';
import { CliError } from './problem';
import { openInput, readFile } from './source';
import { put } from './writing';

const OPTIONS = {
  out: { type: 'string' },
  sections: { type: 'string' },
  page: { type: 'string', default: 'A4' },
  text: { type: 'string' },
  master: { type: 'string' },
  instance: { type: 'string' },
} as const;

/** `wendril proof`: a printable proof of a font file, or of a font as a source would be cast. */
export async function proof(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [source, ...more] = positionals;
  if (!source || more.length > 0) throw new CliError('proof takes one SOURCE or FONT; see wendril --help.');
  if (!values.out) throw new CliError('proof needs --out FILE.pdf.');
  const sections = sectionsOf(values.sections);
  const size = (Object.keys(PAGE_SIZES) as PageSize[]).find((s) => s.toLowerCase() === values.page.toLowerCase());
  if (!size)
    throw new CliError(`“${values.page}” is no size of page; choose from ${Object.keys(PAGE_SIZES).join(', ')}.`);
  const { project, notes } = await openInput(source, { keep: false });
  tellNotes(notes);
  const thing = thingNamed(project, values.master, values.instance);
  // A font file is shown as it is, byte for byte, unless another style of it is asked for.
  const bytes = values.master === undefined && values.instance === undefined ? fontBytes(source) : undefined;
  const font = bytes ? await asItIs(bytes, source) : await cast(project, [thing]).then(([f]) => f!);
  const all = thingsOf(project);
  const styles = all.instances.length > 0 ? all.instances : all.masters;
  const family = sections.includes('family') && !bytes ? await cast(project, styles) : [];
  const pages = await makeProof({
    font,
    family,
    sections: sections.filter((s) => s !== 'family' || family.length > 1),
    size,
    text: values.text ?? project.texts.galley,
    created: project.created,
  });
  put(values.out, pages);
  process.stdout.write(`${values.out}\n`);
}

function sectionsOf(list: string | undefined): ProofSection[] {
  const all = PROOF_SECTIONS.map((s) => s.key);
  if (list === undefined) return all;
  return list.split(',').map((word) => {
    const found = all.find((s) => s === word.trim().toLowerCase());
    if (!found) throw new CliError(`“${word.trim()}” is no section of a proof; choose from ${all.join(', ')}.`);
    return found;
  });
}

function thingNamed(project: Project, master: string | undefined, instance: string | undefined): CastThing {
  if (instance !== undefined) {
    const at = project.instances.findIndex((i) => i.name === instance);
    if (at < 0)
      throw new CliError(
        `There is no instance “${instance}”; there are ${project.instances.map((i) => i.name).join(', ') || 'none'}.`,
      );
    return { instance: at };
  }
  if (master === undefined) return { master: defaultMaster(project).id };
  const found = project.masters.find((m) => m.name === master);
  if (!found)
    throw new CliError(`There is no master “${master}”; there are ${project.masters.map((m) => m.name).join(', ')}.`);
  return { master: found.id };
}

function fontBytes(path: string): Uint8Array | undefined {
  if (!/\.(otf|ttf|woff2?)$/i.test(path)) return undefined;
  const bytes = readFile(path);
  return isFont(bytes) ? bytes : undefined;
}

async function asItIs(bytes: Uint8Array, source: string): Promise<ProofedFont> {
  const font = await unpackedFont(bytes, source);
  if (!font.ok) throw new CliError(font.reason);
  return { bytes: font.value.bytes, title: source.replace(/^.*[/\\]/, '').replace(/\.\w+$/, '') };
}

async function cast(project: Project, things: readonly CastThing[]): Promise<ProofedFont[]> {
  const made = await castOutputs(project, { formats: ['otf'], things });
  if (!made.ok) throw new CliError(made.reason);
  return made.value.map(({ fileName, bytes, font }) => ({
    bytes,
    title: fileName.replace(/\.\w+$/, ''),
    glyphNames: font.glyphIds.map((id) => project.glyphs[id]?.name ?? '.notdef'),
  }));
}
