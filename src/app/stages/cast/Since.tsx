import { useQuery } from '@tanstack/react-query';
import type { Project } from '../../../core/project/model';
import { measurer } from '../../state/followers';
import { identityOf } from '../../state/identity';
import { sizeText } from './sizes';

const WHEN = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' });

/** What has changed since fonts were cast last, and the castings before. */
export function Since({ project }: { project: Project }) {
  const { castPrint, castings = [] } = project.settings;
  const last = castings[castings.length - 1];
  const changes = useQuery({
    queryKey: ['changes since casting', identityOf(project), castPrint ? identityOf(castPrint) : 0],
    queryFn: async () => (await (await measurer.synced()).changesSince(castPrint!)) as string[],
    enabled: castPrint !== undefined,
    gcTime: 0,
  });
  if (!last) return null;
  return (
    <section aria-label="Since the last casting" className="mt-6">
      <h2 className="mb-1.5 text-[16px] font-semibold">Since the casting of {WHEN.format(last.at)}</h2>
      {changes.data?.length === 0 && <p className="text-quiet">Nothing has changed that fonts would show.</p>}
      <ul aria-label="What has changed">
        {changes.data?.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
      <table aria-label="Castings" className="mt-3 text-left text-[13px]">
        <thead className="text-quiet">
          <tr>
            {['Cast', 'Version', 'Files', 'Size', 'Glyphs', 'Kerning pairs'].map((h) => (
              <th key={h} className="py-1 pr-6 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...castings].reverse().map((c) => (
            <tr key={c.at}>
              <td className="py-0.5 pr-6">{WHEN.format(c.at)}</td>
              <td className="pr-6 text-quiet">{c.version}</td>
              <td className="pr-6 text-quiet">{c.files.length + c.more}</td>
              <td className="pr-6 text-quiet">{sizeText(c.files.reduce((sum, f) => sum + f.bytes, 0))}</td>
              <td className="pr-6 text-quiet">{Math.max(0, ...c.files.map((f) => f.glyphs))}</td>
              <td className="pr-6 text-quiet">{Math.max(0, ...c.files.map((f) => f.pairs))}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
