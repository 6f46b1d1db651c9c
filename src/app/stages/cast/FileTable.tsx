import { Download } from 'lucide-react';
import { isFine } from '../../../core/base/finding';
import type { CastFile } from '../../../workers/files';
import { download } from '../../state/projectFiles';
import { Button } from '../../ui/parts';
import { sizeText } from './sizes';

/** Of more files than this only checks that failed are listed. */
const MOST_OPEN = 3;

/** The files that were made: sizes, checks, what is to be said of each. */
export function FileTable({ files }: { files: readonly CastFile[] }) {
  return (
    <div className="mb-6 grid gap-3">
      {files.map((f) => {
        const bad = f.checks.filter((c) => !isFine(c));
        return (
          <article key={f.fileName} data-file={f.fileName} className="rounded-xl border border-line bg-panel p-4">
            <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
              <h3 className="text-[16px] font-semibold [overflow-wrap:anywhere]">{f.fileName}</h3>
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
            {(files.length <= MOST_OPEN || bad.length > 0) && (
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
            )}
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
