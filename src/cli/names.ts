import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { attempt } from '../core/base/result';
import { toWoff2 } from '../core/fontfacts/webfont';
import { contradictionsBetween, contradictionsIn } from '../core/fontnames/contradictions';
import { type FontFacts, readFontFacts } from '../core/fontnames/facts';
import { type Renamed, renameFont } from '../core/fontnames/rename';
import { unpackedFont } from '../core/formats/openFile';
import { readSfnt, type Sfnt } from '../core/opentype/sfnt';
import { toWoff } from '../core/opentype/woff';
import { parsed } from './arguments';
import { CliError } from './problem';
import { readFile } from './source';

const OPTIONS = {
  family: { type: 'string' },
  style: { type: 'string' },
  out: { type: 'string' },
  'dry-run': { type: 'boolean', default: false },
  json: { type: 'boolean', default: false },
} as const;

type Opened = { file: string; format: string; font: Sfnt; facts: FontFacts };

/** `wendril names`: what font files say they are and what contradicts what; with `--family`, new names for them. */
export async function names(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  if (positionals.length === 0) throw new CliError('names takes one or more FILEs; see wendril --help.');
  if (values.family === undefined && (values.style !== undefined || values.out !== undefined))
    throw new CliError('names needs --family "NAME" to give new names.');
  if (values.family?.trim() === '') throw new CliError('The family name is empty.');
  const opened: Opened[] = [];
  for (const file of positionals) opened.push(await open(file));
  if (values.family === undefined) {
    report(opened, values.json);
    return;
  }
  const results: (Renamed & { file: string; format: string; out: string })[] = [];
  for (const { file, format, font, facts } of opened) {
    const style = values.style ?? facts.style ?? 'Regular';
    const renamed = attempt(() => renameFont(font, { family: values.family!.trim(), style }));
    if (!renamed.ok) throw new CliError(`${file}: ${renamed.reason}`);
    results.push({
      file,
      format,
      ...renamed.value,
      out: values.out === undefined ? file : join(values.out, basename(file)),
    });
  }
  const twice = results.find((r, i) => results.some((o, k) => k < i && o.out === r.out));
  if (twice) throw new CliError(`Two files would be written to ${twice.out}.`);
  if (!values['dry-run']) for (const r of results) await write(r.out, r.format, r.bytes);
  const told = results.map((r) => ({
    file: r.file,
    out: values['dry-run'] ? null : r.out,
    names: r.names,
    notes: r.notes,
  }));
  if (values.json) process.stdout.write(`${JSON.stringify(told)}\n`);
  else
    for (const t of told) process.stdout.write(`${t.out ?? t.file}: ${t.names.fullName} (${t.names.postScriptName})\n`);
  for (const t of told) for (const note of t.notes) process.stderr.write(`wendril: ${t.file}: ${note}\n`);
}

async function open(file: string): Promise<Opened> {
  const unpacked = await unpackedFont(readFile(file), file);
  if (!unpacked.ok) throw new CliError(unpacked.reason);
  if (unpacked.value.format === 'collection')
    throw new CliError(`${file} is a collection; names can be changed in single fonts.`);
  const read = attempt(() => {
    const font = readSfnt(unpacked.value.bytes);
    return { font, facts: readFontFacts(font) };
  });
  if (!read.ok) throw new CliError(`${file}: ${read.reason}`);
  return { file, format: unpacked.value.format, ...read.value };
}

function report(opened: readonly Opened[], json: boolean): void {
  const between = contradictionsBetween(opened.map((o) => o.facts));
  const told = opened.map(({ file, facts }, i) => ({
    file,
    ...facts,
    contradictions: [...contradictionsIn(facts), ...between[i]!],
  }));
  if (json) process.stdout.write(`${JSON.stringify(told)}\n`);
  else
    for (const t of told) {
      process.stdout.write(
        `${t.file}: ${t.family ?? '(no family)'} ${t.style ?? ''}, weight ${t.weightClass}, width ${t.widthClass}, ${t.postScriptName ?? '(no PostScript name)'}\n`,
      );
      for (const c of t.contradictions) process.stdout.write(`  ${c}\n`);
    }
}

/** Packs as the file was packed and puts it in place only when it is whole. */
async function write(path: string, format: string, bytes: Uint8Array): Promise<void> {
  const packed = format === 'woff2' ? await toWoff2(bytes) : format === 'woff' ? toWoff(bytes) : bytes;
  try {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(`${path}.part`, packed);
    renameSync(`${path}.part`, path);
  } catch (error) {
    throw new CliError(`${path} cannot be written (${(error as NodeJS.ErrnoException).code}).`);
  }
}
