import { useMutation, useQuery } from '@tanstack/react-query';
import { strToU8, zipSync } from 'fflate';
import { Download, ExternalLink } from 'lucide-react';
import { thingKey, varyingDesign } from '../../../core/casting/things';
import { type VisitedFile, type VisitorPage, visitorPage } from '../../../core/casting/visitorPage';
import { coverageOf } from '../../../core/coverage/coverage';
import { loadLanguages } from '../../../core/coverage/languages';
import { writtenSample } from '../../../core/coverage/samples';
import type { Project } from '../../../core/project/model';
import { toUser, wholePlace } from '../../../core/project/places';
import type { CastFile } from '../../../workers/files';
import { say } from '../../state/bench';
import { download } from '../../state/projectFiles';
import { useSettingChoices } from '../../state/settingChoices';
import { Button } from '../../ui/parts';

/** Web fonts first: they are what a visitor gets; of each font one file. */
function visitedFiles(files: readonly CastFile[]): CastFile[] {
  const rank = (f: CastFile) => ['woff2', 'woff', 'ttf', 'otf'].indexOf(f.format);
  const whole = files.filter((f) => f.range === undefined);
  const own = whole.length > 0 ? whole : files;
  return own.filter(
    (f) => !own.some((o) => thingKey(o.thing) === thingKey(f.thing) && o.range === f.range && rank(o) < rank(f)),
  );
}

function told(project: Project, f: CastFile, address: string): VisitedFile {
  const design = 'variable' in f.thing ? varyingDesign(project, f.thing.variable)?.project : undefined;
  return {
    title: f.fileName,
    format: f.format,
    address,
    size: f.bytes.length,
    codePoints: f.codePoints,
    axes: (design?.axes ?? []).map(({ tag, name, minimum, default: usual, maximum }) => ({
      tag,
      name,
      minimum,
      default: usual,
      maximum,
    })),
    instances: (design?.instances ?? []).map((i) => {
      const there = wholePlace(design!.axes, i.place);
      return { name: i.name, place: Object.fromEntries(design!.axes.map((a) => [a.tag, toUser(a, there[a.tag]!)])) };
    }),
  };
}

const base64 = (bytes: Uint8Array): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(new Blob([bytes.slice()]));
  });

/** The files on a page of somebody’s, with an origin of its own: opened beside the app, or taken away as one file. */
export function Visit({ project, files }: { project: Project; files: readonly CastFile[] }) {
  const { features } = useSettingChoices();
  const shown = visitedFiles(files);
  const languages = useQuery({
    queryKey: ['languages of the files', files.map((f) => f.fileName + f.bytes.length)],
    queryFn: async () => {
      const has = new Set(shown.flatMap((f) => f.codePoints));
      const { all } = await loadLanguages();
      return coverageOf(all, (c) => has.has(c))
        .filter((c) => c.missing.length === 0)
        .flatMap(({ language }) => {
          const text = writtenSample(language, (c) => has.has(c));
          return text ? [{ code: language.code, name: language.name, text }] : [];
        });
    },
    gcTime: 0,
  });
  const page = (addresses: readonly string[]): VisitorPage => ({
    title: project.family.name,
    files: shown.map((f, i) => told(project, f, addresses[i]!)),
    features: features.map(({ tag, title }) => ({ tag, title })),
    languages: languages.data ?? [],
    text: project.texts.galley,
  });
  const visit = useMutation({
    mutationFn: async () => {
      const html = visitorPage(page(shown.map((f) => encodeURIComponent(f.fileName))));
      const zip = zipSync(
        { 'index.html': strToU8(html), ...Object.fromEntries(shown.map((f) => [f.fileName, f.bytes])) },
        { level: 0 },
      );
      const response = await fetch('/visit', {
        method: 'POST',
        headers: { 'Content-Type': 'application/zip' },
        body: zip.slice(),
      });
      if (!response.ok) throw new Error(await response.text());
      const { address } = (await response.json()) as { address: string };
      window.open(address, '_blank', 'noopener');
      return address;
    },
    onError: () => say('The page could not be served from here; take it away as a file instead.'),
  });
  const take = useMutation({
    mutationFn: async () => {
      const addresses = await Promise.all(
        shown.map(async (f) => `data:font/${f.format};base64,${await base64(f.bytes)}`),
      );
      download(strToU8(visitorPage(page(addresses))), `${project.family.name} page.html`, 'text/html');
    },
    onError: () => say('The page could not be made from these files.'),
  });
  return (
    <section aria-label="Visitor page" className="mb-6">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-[16px] font-semibold">Visitor page</h2>
        <span className="min-w-0 flex-1 text-quiet">
          a page of somebody’s that loads {shown.length === 1 ? 'the file' : `the ${shown.length} fonts`} as browsers do
        </span>
        <Button disabled={visit.isPending || languages.isPending} onClick={() => visit.mutate()}>
          <ExternalLink size={14} /> Open it
        </Button>
        <Button disabled={take.isPending || languages.isPending} onClick={() => take.mutate()}>
          <Download size={14} /> As one file
        </Button>
      </div>
      {visit.data && (
        <p className="mt-1 text-[12.5px] text-quiet">
          Served at{' '}
          <a className="text-kelp underline" href={visit.data} target="_blank" rel="noopener noreferrer">
            {new URL(visit.data, location.href).href}
          </a>{' '}
          until this server ends.
        </p>
      )}
    </section>
  );
}
