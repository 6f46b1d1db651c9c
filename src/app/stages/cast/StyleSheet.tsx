import { Copy } from 'lucide-react';
import { styleSheet } from '../../../core/casting/styleSheet';
import type { Project } from '../../../core/project/model';
import type { CastFile } from '../../../workers/files';
import { say } from '../../state/bench';
import { Button } from '../../ui/parts';
import { sizeText } from './sizes';

/** The style sheet for the web fonts, and what a visitor downloads. */
export function StyleSheet({ project, files }: { project: Project; files: readonly CastFile[] }) {
  const text = styleSheet(project, files);
  if (!text) return null;
  const best = files.filter((f) => f.format === (files.some((o) => o.format === 'woff2') ? 'woff2' : 'woff'));
  const bytes = best.reduce((sum, f) => sum + f.bytes.length, 0);
  const copy = () =>
    // At an address that is not safe there is no clipboard.
    Promise.resolve(navigator.clipboard ? navigator.clipboard.writeText(text) : Promise.reject()).then(
      () => say('The style sheet is copied.'),
      () => say('The browser does not let the text be copied; choose it and copy it by hand.'),
    );
  return (
    <section aria-label="Style sheet" className="mb-6">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h2 className="text-[16px] font-semibold">Style sheet</h2>
        <span className="text-quiet">
          {best.length === 1
            ? `a visitor downloads ${sizeText(bytes)}`
            : `a visitor downloads the styles that a page uses, ${sizeText(bytes)} if all`}
        </span>
        <Button className="ml-auto" onClick={() => void copy()}>
          <Copy size={14} /> Copy
        </Button>
      </div>
      <pre
        data-testid="style-sheet"
        className="max-h-56 overflow-auto rounded-xl border border-line bg-panel p-3 text-[12.5px] leading-snug select-text"
      >
        {text}
      </pre>
    </section>
  );
}
