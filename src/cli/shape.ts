import { lstatSync } from 'node:fs';
import { castFont } from '../core/casting/font';
import type { LookupSources } from '../core/casting/tables/layout';
import { asked } from '../core/features/setting';
import { isFont, unpackedFont } from '../core/formats/openFile';
import { defaultMaster } from '../core/project/queries';
import { createShaper, type ShapedGlyph } from '../workers/shaper';
import { parsed, tell, tellNotes } from './arguments';
import { CliError } from './problem';
import { openInput, readFile } from './source';

const OPTIONS = {
  features: { type: 'string' },
  language: { type: 'string' },
  script: { type: 'string' },
  direction: { type: 'string' },
  explain: { type: 'boolean', default: false },
  json: { type: 'boolean', default: false },
} as const;

/** `wendril shape`: a text set with a font or a source: its glyphs and their places, and what each lookup did. */
export async function shape(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [source, text] = positionals;
  if (source === undefined || text === undefined || positionals.length > 2)
    throw new CliError('shape takes a FONT or SOURCE and a TEXT; see wendril shape --help.');
  const features = (values.features ?? '').split(',').filter(Boolean);
  const wrong = features.find((f) => !/^[A-Za-z0-9]{4}(=\d+)?$/.test(f));
  if (wrong) throw new CliError(`${wrong} is no feature; write liga, liga=0 or salt=2, with commas between.`);
  const font = await fontOf(source);
  const shaper = await createShaper(font.bytes);
  const { language, script, direction } = values;
  if (direction !== undefined && direction !== 'ltr' && direction !== 'rtl')
    throw new CliError(`${direction} is no direction; write ltr or rtl.`);
  const { settings } = asked({
    features: {},
    ...(language !== undefined && { language }),
    ...(script !== undefined && { script }),
    ...(direction !== undefined && { direction }),
  });
  const { glyphs, width } = shaper.shape(text, features, settings);
  const named = (list: readonly ShapedGlyph[]) =>
    list.map(({ gid, x, y, advance, cluster }) => ({ glyph: shaper.name(gid), x, y, advance, cluster }));
  const steps = values.explain
    ? shaper.explain(text, features, settings).map((s) => ({
        feature: s.feature,
        table: s.table,
        lookup: s.lookup,
        ...(font.lookups && { rule: font.lookups[s.table][s.lookup] }),
        before: named(s.before),
        after: named(s.after),
      }))
    : undefined;
  const row = (list: ReturnType<typeof named>) => list.map((g) => g.glyph).join(' ');
  const lines = [
    row(named(glyphs)),
    ...(steps ?? []).map((s) => {
      const where = s.rule ? ` (${s.rule.title}${s.rule.line === undefined ? '' : `, line ${s.rule.line}`})` : '';
      const what = s.table === 'GSUB' ? `${row(s.before)} → ${row(s.after)}` : `moves glyphs of ${row(s.after)}`;
      return `  ${s.feature}, lookup ${s.lookup} of ${s.table}${where}: ${what}`;
    }),
    `width ${width}`,
  ];
  tell(values.json, { source, text, width, glyphs: named(glyphs), ...(steps && { steps }) }, lines.join('\n'));
}

/** A font file as it is, or a source as it would be cast. */
async function fontOf(source: string): Promise<{ bytes: Uint8Array; lookups?: LookupSources }> {
  if (!lstatSync(source, { throwIfNoEntry: false })?.isDirectory()) {
    const file = readFile(source);
    if (isFont(file)) {
      const unpacked = await unpackedFont(file, source);
      if (!unpacked.ok) throw new CliError(unpacked.reason);
      return { bytes: unpacked.value.bytes };
    }
  }
  const { project, notes } = await openInput(source, { keep: false });
  tellNotes(notes);
  const cast = castFont(project, { flavour: 'otf', place: { master: defaultMaster(project).id }, compact: false });
  if (!cast.ok) throw new CliError(cast.reason);
  tellNotes(cast.value.notes.map((n) => n.reason));
  return { bytes: cast.value.bytes, lookups: cast.value.lookups };
}
