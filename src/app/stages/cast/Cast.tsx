import { strToU8, zipSync } from 'fflate';
import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { PLAIN_TERMS } from '../../../core/casting/outputs';
import { undrawnCharacters } from '../../../core/casting/plan';
import { styleSheet } from '../../../core/casting/styleSheet';
import { distinctThings, namesOfThing } from '../../../core/casting/things';
import { plural } from '../../../core/project/edit';
import type { Project } from '../../../core/project/model';
import { defaultMaster, glyphsInOrder } from '../../../core/project/queries';
import type { CastFile } from '../../../workers/files';
import { useBench } from '../../state/bench';
import { download } from '../../state/projectFiles';
import { Details } from '../../ui/Details';
import { Button, Section } from '../../ui/parts';
import { CastingLists } from './CastingLists';
import { Choices } from './Choices';
import { FileTable } from './FileTable';
import { INSTALLING } from './installing';
import { Planned } from './Planned';
import { Since } from './Since';
import { Sizes } from './Sizes';
import { Standing } from './Standing';
import { StyleSheet } from './StyleSheet';
import { TestPage } from './TestPage';
import { type CastChoice, type CastProgress, useCasting } from './useCasting';
import { Visit } from './Visit';

/** What will be made, from what; casting with progress and cancel; checks, sizes and a page to try the very bytes on. */
export default function Cast() {
  const project = useBench((s) => s.settled)!;
  const shown = useBench((s) => s.master);
  const [choice, setChoice] = useState<CastChoice>({
    formats: ['otf', 'ttf', 'woff2'],
    things: project.masters.some((m) => m.id === shown) ? [{ master: shown }] : [{ master: defaultMaster(project).id }],
    terms: PLAIN_TERMS,
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
            {files.length > 0 ? filesInWords(files.length) : 'What will be made'}
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
                {progress ? progressText(progress) : 'Casting…'}
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
        {!cast.isPending &&
          cast.data?.failed.map((f) => (
            <p key={f.what} role="alert" className="mb-3 text-brick">
              ✕ {f.what} was not made: {f.reason}
            </p>
          ))}
        {stale && !cast.isPending && (
          <p className="mb-3 text-marigold">▲ The project has changed since these files were cast.</p>
        )}
        {files.length === 0 ? (
          <Planned
            things={things}
            formats={formats}
            glyphs={choice.terms.glyphs ? undefined : glyphs.length}
            undrawn={choice.terms.glyphs ? [] : undrawn}
            blanks={choice.terms.blanks}
          />
        ) : (
          <FileTable files={files} />
        )}
        {files.length === 0 && <Standing />}
        {files.length === 0 && <Since project={project} />}
        <StyleSheet project={project} files={files} />
        {files.length > 0 && <TestPage key={files.map((f) => f.fileName).join()} files={files} project={project} />}
        {files.length > 0 && <Visit project={project} files={files} />}
        {files.length > 0 && <Sizes files={files} castings={project.settings.castings ?? []} />}
      </div>
      <Details
        heading="Font files"
        sub={`${plural(glyphs.length, 'glyph')}${undrawn.length > 0 ? ` · ${undrawn.length} not drawn` : ''}`}
      >
        <CastingLists chosen={choice} onChoose={(change) => setChoice({ ...choice, ...change })} />
        <Choices undrawn={undrawn.length} chosen={choice} onChoose={(change) => setChoice({ ...choice, ...change })} />
        {files.length > 0 && <Installing />}
      </Details>
    </div>
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

const progressText = ({ done, total, now }: CastProgress): string =>
  `${done} of ${total} made${now.length > 0 ? `; at work on ${now.join(', ')}` : ''}`;

const filesInWords = (n: number) => (n === 1 ? 'One font file' : `${n} font files`);

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
