import { strToU8, zipSync } from 'fflate';
import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { isFine } from '../../../core/base/finding';
import type { Format } from '../../../core/casting/outputs';
import { undrawnCharacters } from '../../../core/casting/plan';
import { styleSheet } from '../../../core/casting/styleSheet';
import { type CastThing, distinctThings, namesOfThing, thingKey, thingsOf } from '../../../core/casting/things';
import type { Glyph, Project } from '../../../core/project/model';
import { defaultMaster, glyphsInOrder } from '../../../core/project/queries';
import type { CastFile } from '../../../workers/files';
import { useBench } from '../../state/bench';
import { download } from '../../state/projectFiles';
import { Details } from '../../ui/Details';
import { characterOf } from '../../ui/GlyphShape';
import { Button, CheckRow, Section } from '../../ui/parts';
import { CastingLists } from './CastingLists';
import { INSTALLING } from './installing';
import { StyleSheet } from './StyleSheet';
import { sizeText } from './sizes';
import { TestPage } from './TestPage';
import { type CastChoice, useCasting } from './useCasting';

const FORMATS: readonly { format: Format; title: string; what: string }[] = [
  { format: 'otf', title: 'OpenType', what: 'cubic outlines (CFF), for desktop and print' },
  { format: 'ttf', title: 'TrueType', what: 'quadratic outlines, for every system' },
  { format: 'woff2', title: 'WOFF2', what: 'the TrueType font packed for web pages' },
  { format: 'woff', title: 'WOFF', what: 'packed the older way, for browsers without WOFF2' },
];

/** What will be made, from what; casting with progress and cancel; checks, sizes and a page to try the very bytes on. */
export default function Cast() {
  const project = useBench((s) => s.settled)!;
  const shown = useBench((s) => s.master);
  const [choice, setChoice] = useState<CastChoice>({
    formats: ['otf', 'ttf', 'woff2'],
    things: project.masters.some((m) => m.id === shown) ? [{ master: shown }] : [{ master: defaultMaster(project).id }],
    keepOverlaps: false,
    blanks: false,
    partner: false,
  });
  const { formats } = choice;
  const things = distinctThings(
    project,
    choice.things.filter((t) => namesOfThing(project, t) !== undefined),
  );
  const { cast, progress, cancel } = useCasting(project);

  const glyphs = glyphsInOrder(project).filter((g) => g.cast);
  const undrawn = useMemo(() => [...undrawnCharacters(project)].map((id) => project.glyphs[id]!), [project]);
  const files = cast.data?.files ?? [];
  const stale = cast.data !== undefined && cast.data.from !== project;
  const count = things.length * formats.length;

  return (
    <div className="flex h-full">
      <div className="min-w-0 flex-1 overflow-y-auto px-6 pt-5 pb-8">
        <div className="mb-4 flex flex-wrap items-center gap-3">
          <h2 className="mr-2 text-[20px] font-semibold">
            {files.length > 0 ? plural(files.length) : 'What will be made'}
          </h2>
          <Button
            kind="primary"
            className="h-9 px-4"
            disabled={count === 0 || cast.isPending}
            onClick={() => cast.mutate({ ...choice, things })}
          >
            {files.length > 0
              ? 'Cast again'
              : `Cast ${count} ${count === 1 ? 'file' : 'files'}${choice.partner && project.settings.partner ? ' and the partner’s' : ''}`}
          </Button>
          {cast.isPending && (
            <>
              <span role="status" className="text-quiet">
                {progress ?? 'Casting…'}
              </span>
              <Button onClick={cancel}>Cancel</Button>
            </>
          )}
          {files.length > 1 && !cast.isPending && (
            <Button
              className="h-9"
              onClick={() =>
                download(
                  zipOf(project, files),
                  `${project.family.name.replace(/[^\w -]/g, '')} fonts.zip`,
                  'application/zip',
                )
              }
            >
              <Download size={15} /> All as a zip
            </Button>
          )}
        </div>
        {cast.isError && (
          <p role="alert" className="mb-4 text-brick">
            {cast.error.message}
          </p>
        )}
        {stale && !cast.isPending && (
          <p className="mb-3 text-marigold">▲ The project has changed since these files were cast.</p>
        )}
        {files.length === 0 ? (
          <Planned things={things} formats={formats} glyphs={glyphs.length} undrawn={undrawn} blanks={choice.blanks} />
        ) : (
          <FileTable files={files} />
        )}
        <StyleSheet project={project} files={files} />
        {files.length > 0 && <TestPage key={files.map((f) => f.fileName).join()} files={files} project={project} />}
      </div>
      <Details
        heading="Font files"
        sub={`${glyphs.length} glyphs${undrawn.length > 0 ? ` · ${undrawn.length} not drawn` : ''}`}
      >
        <CastingLists chosen={choice} onChoose={(change) => setChoice({ ...choice, ...change })} />
        <Choices undrawn={undrawn.length} chosen={choice} onChoose={(change) => setChoice({ ...choice, ...change })} />
        {files.length > 0 && <Installing />}
      </Details>
    </div>
  );
}

/** What is to be made: formats in their order, masters in theirs, outlines as drawn or joined. */
function Choices({
  undrawn,
  chosen,
  onChoose,
}: {
  undrawn: number;
  chosen: CastChoice;
  onChoose: (change: Partial<CastChoice>) => void;
}) {
  const toggled = <T,>(all: readonly T[], on: readonly T[], value: T): T[] =>
    all.filter((v) => on.includes(v) !== (v === value));
  const partner = useBench((s) => s.settled!.settings.partner);
  const formats = FORMATS.map((f) => f.format);
  const project = useBench((s) => s.settled)!;
  const all = thingsOf(project);
  const has = (thing: CastThing) => chosen.things.some((t) => thingKey(t) === thingKey(thing));
  const order = [...all.masters, ...all.instances, ...all.variable];
  const choose = (things: readonly CastThing[], on: boolean) => {
    const keys = new Set(things.map(thingKey));
    onChoose({ things: order.filter((t) => (keys.has(thingKey(t)) ? on : has(t))) });
  };
  const group = (title: string, things: readonly CastThing[], nameOf: (i: number) => string) =>
    things.length > 0 && (
      <Section
        title={title}
        action={
          things.length > 1 ? (
            <button
              type="button"
              className="text-[12.5px] text-kelp underline"
              onClick={() => choose(things, !things.every(has))}
            >
              {things.every(has) ? 'none' : 'all'}
            </button>
          ) : undefined
        }
      >
        {things.map((thing, i) => (
          <CheckRow
            key={thingKey(thing)}
            label={nameOf(i)}
            checked={has(thing)}
            onChange={(on) => choose([thing], on)}
          />
        ))}
      </Section>
    );
  return (
    <>
      <Section title="Formats">
        {FORMATS.map((f) => (
          <div key={f.format} title={f.what}>
            <CheckRow
              label={f.title}
              checked={chosen.formats.includes(f.format)}
              onChange={() => onChoose({ formats: toggled(formats, chosen.formats, f.format) })}
            />
            <p className="-mt-1 mb-1 pl-[23px] text-[12.5px] text-quiet">{f.what}</p>
          </div>
        ))}
      </Section>
      {all.variable.length > 0 && (
        <Section title="The family as one font">
          {all.variable.map((thing) => (
            <CheckRow
              key={thingKey(thing)}
              label={all.variable.length === 1 ? 'Variable' : (namesOfThing(project, thing)?.fileName ?? '')}
              checked={has(thing)}
              onChange={(on) => choose([thing], on)}
            />
          ))}
          <p className="-mt-1 mb-1 pl-[23px] text-[12.5px] text-quiet">
            varies over {listed(project.axes.filter((a) => !a.discrete).map((a) => a.name.toLowerCase()))}; overlaps
            kept
          </p>
        </Section>
      )}
      {group('Instances', all.instances, (i) => project.instances[i]!.name)}
      {group('Masters', all.masters, (i) => project.masters[i]!.name)}
      {partner && (
        <Section title="Partner">
          <CheckRow
            label={`${partner.name} too`}
            checked={chosen.partner}
            onChange={(on) => onChoose({ partner: on })}
          />
          <p className="-mt-1 mb-1 pl-[23px] text-[12.5px] text-quiet">its masters at the same places, as stored</p>
        </Section>
      )}
      <Section title="Outlines">
        <CheckRow
          label="Keep overlaps as drawn"
          checked={chosen.keepOverlaps}
          onChange={(keepOverlaps) => onChoose({ keepOverlaps })}
        />
        {undrawn > 0 && (
          <CheckRow
            label="Undrawn characters as blanks"
            checked={chosen.blanks}
            onChange={(blanks) => onChoose({ blanks })}
          />
        )}
      </Section>
    </>
  );
}

function Installing() {
  return (
    <Section title="How to install">
      {INSTALLING.map((s) => (
        <p key={s.system} className="mb-1.5 text-[13px]">
          <b className="font-semibold">{s.system}</b> <span className="text-quiet">{s.how}</span>
        </p>
      ))}
    </Section>
  );
}

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

const plural = (n: number) => (n === 1 ? 'One font file' : `${n} font files`);

/** Fonts are compressed data already; the zip only holds them together. The date is fixed so the bytes are the same. */
function zipOf(project: Project, files: readonly CastFile[]): Uint8Array {
  const css = styleSheet(project, files);
  const readme = strToU8(INSTALLING.map((s) => `${s.system}: ${s.how}`).join('\n'));
  return zipSync(
    {
      ...Object.fromEntries(files.map((f) => [f.fileName, f.bytes])),
      'How to install.txt': readme,
      ...(css && { 'fonts.css': strToU8(css) }),
    },
    { level: 6, mtime: new Date(1980, 0, 1) },
  );
}

function Planned({
  things,
  formats,
  glyphs,
  undrawn,
  blanks,
}: {
  things: readonly CastThing[];
  formats: readonly Format[];
  glyphs: number;
  undrawn: readonly Glyph[];
  blanks: boolean;
}) {
  const project = useBench((s) => s.settled)!;
  const rows = things.flatMap((thing) => {
    const told = namesOfThing(project, thing);
    return told ? formats.map((format) => ({ key: thingKey(thing) + format, format, thing, ...told })) : [];
  });
  if (rows.length === 0)
    return <p className="text-quiet">Choose at least one format, and a master, an instance or the whole family.</p>;
  const count = undrawn.length;
  return (
    <>
      {count > 0 && (
        <p className="mb-3 text-marigold">
          ▲ {count === 1 ? 'One character is' : `${count} characters are`} not drawn yet and{' '}
          {blanks ? 'cast as blanks' : 'left out'}:
          <span className="block max-h-16 overflow-auto text-ink">{undrawn.map((g) => characterOf(g)).join(' ')}</span>
        </p>
      )}
      <div className="overflow-hidden rounded-xl border border-line bg-panel">
        <table aria-label="What will be made" className="w-full text-left">
          <thead className="text-[12.5px] text-quiet">
            <tr className="border-b border-line">
              <th className="px-4 py-2 font-normal">File</th>
              <th className="px-4 py-2 font-normal">Shown in menus as</th>
              <th className="px-4 py-2 font-normal">Weight class</th>
              <th className="px-4 py-2 font-normal">Glyphs</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ key, format, thing, names: n, fileName }) => (
              <tr key={key} className="border-b border-line last:border-0">
                <td className="px-4 py-2.5">{`${fileName}.${format}`}</td>
                <td className="px-4 py-2.5 text-quiet">
                  {'variable' in thing ? `${n.family}, all styles` : `${n.family} ${n.style}`}
                </td>
                <td className="px-4 py-2.5 text-quiet">{n.weightClass}</td>
                <td className="px-4 py-2.5 text-quiet">{blanks ? glyphs : glyphs - undrawn.length}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

function FileTable({ files }: { files: readonly CastFile[] }) {
  return (
    <div className="mb-6 grid gap-3">
      {files.map((f) => {
        const bad = f.checks.filter((c) => !isFine(c));
        return (
          <article key={f.fileName} data-file={f.fileName} className="rounded-xl border border-line bg-panel p-4">
            <div className="flex items-center gap-4">
              <h3 className="text-[16px] font-semibold whitespace-nowrap">{f.fileName}</h3>
              <span className="text-quiet">
                {sizeText(f.bytes.length)} · {f.glyphs} glyphs
                {f.kerningPairs > 0 ? ` · ${f.kerningPairs} kerning pairs` : ''}
                {f.quadraticError > 0 ? ` · curves within ${f.quadraticError.toFixed(2)} unit` : ''}
              </span>
              <span className={`ml-auto whitespace-nowrap ${bad.length > 0 ? 'text-brick' : 'text-kelp'}`}>
                {bad.length > 0 ? `✕ ${bad[0]!.title}: ${bad[0]!.reason}` : `✓ ${f.checks.length} checks passed`}
              </span>
              <Button
                onClick={() =>
                  download(f.bytes, f.fileName, f.format.startsWith('woff') ? `font/${f.format}` : 'font/sfnt')
                }
              >
                <Download size={15} /> Download
              </Button>
            </div>
            <ul
              aria-label="Checks of this file"
              className="mt-1.5 flex flex-wrap gap-x-5 gap-y-0.5 text-[12.5px] text-quiet"
            >
              {f.checks.map((c) => (
                <li key={c.title} className={isFine(c) ? '' : 'text-brick'}>
                  {isFine(c) ? '✓' : '✕'} {c.title}: {c.reason}
                </li>
              ))}
            </ul>
            {f.notes.map((note) => (
              <p key={note} className="mt-1 text-marigold">
                ▲ {note}
              </p>
            ))}
          </article>
        );
      })}
    </div>
  );
}
