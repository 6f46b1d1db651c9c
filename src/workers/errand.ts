import '../core/allEdits';
import { type Refusal, success } from '../core/base/result';
import { writeProjectFile } from '../core/formats/project/projectFile';
import { runEdit } from '../core/project/edit';
import { patchBetween, type Step, stepsOf } from '../core/project/patch';
import { documentHolder } from './document';

/** So many steps go to the page at a time: taking in more at once would hold it up. */
const AT_ONCE = 40;

const held = documentHolder();
const project = () => {
  const now = held.now();
  if (!now) throw new Error('The document has not come yet.');
  return now;
};

/** What of the whole document would hold the page up: its file, and edits that reach many drawings. */
export const errandService = {
  ...held.service,

  /** The document as a project file. */
  file: (): { bytes: Uint8Array; glyphs: number } => ({
    bytes: writeProjectFile(project()),
    glyphs: project().glyphOrder.length,
  }),

  /** Makes an edit by its name; the steps to what it makes go to `take`, some at a time, before it answers. */
  async edit(
    name: string,
    args: unknown,
    take: (steps: readonly Step[], done: number, total: number) => unknown,
  ): Promise<Refusal | { ok: true; value: { sentence: string } }> {
    const before = project();
    const outcome = runEdit(before, name, args);
    if (!outcome.ok) return outcome;
    const steps = stepsOf(patchBetween(before, outcome.project));
    for (let at = 0; at < steps.length; at += AT_ONCE)
      await take(steps.slice(at, at + AT_ONCE), Math.min(at + AT_ONCE, steps.length), steps.length);
    return success({ sentence: outcome.sentence });
  },
};

export type ErrandService = typeof errandService;
