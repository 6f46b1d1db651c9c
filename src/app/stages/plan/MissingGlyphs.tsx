import { useState } from 'react';
import { codePointForm } from '../../../core/base/notation';
import { composeGlyphs } from '../../../core/composing/edits';
import { plural } from '../../../core/project/edit';
import type { GlyphRequest } from '../../../core/project/glyphEdits';
import { nameForCodePoint } from '../../../core/project/glyphNames';
import type { Project } from '../../../core/project/model';
import { useBench } from '../../state/bench';
import { setChosen } from '../../state/chosen';
import { runFarAndSay } from '../../state/far';
import { Button } from '../../ui/parts';

/** So many are shown until all are asked for. */
const FIRST = 16;

const requestFor = (wanted: number | string): GlyphRequest =>
  typeof wanted === 'string' ? { name: wanted, unicodes: [] } : { name: nameForCodePoint(wanted), unicodes: [wanted] };

const known = new WeakMap<Project['glyphs'], ReadonlySet<number | string>>();

/** Code points and names of all glyphs there are, drawn or not. */
function thereIn({ glyphs }: Project): ReadonlySet<number | string> {
  let there = known.get(glyphs);
  if (!there) {
    there = new Set(Object.values(glyphs).flatMap((g) => [g.name, ...g.unicodes]));
    known.set(glyphs, there);
  }
  return there;
}

/** What a character looks like in the interface's face: marks over a ring, spaces by their names. */
function pencilled(wanted: number | string): string {
  if (typeof wanted === 'string') return wanted;
  const c = String.fromCodePoint(wanted);
  if (/\p{M}/u.test(c)) return `◌${c}`;
  return /[\p{Z}\p{C}]/u.test(c) ? codePointForm(wanted) : c;
}

/**
 * Glyphs that lack, lightly, with name and code point told; one, some or all are added in one step. Those that are there but
 * not drawn yet are marked and not added again.
 */
export function MissingGlyphs({
  missing,
  what,
  kind = 'plain',
}: {
  missing: readonly (number | string)[];
  what: string;
  kind?: 'plain' | 'primary';
}) {
  const project = useBench((s) => s.settled)!;
  const [picked, setPicked] = useState<ReadonlySet<number | string>>(new Set());
  const [all, setAll] = useState(false);
  const there = thereIn(project);
  const toAdd = missing.filter((m) => !there.has(m));
  const asked = toAdd.filter((m) => picked.size === 0 || picked.has(m));
  const add = async () => {
    const before = new Set(project.glyphOrder);
    const codes = asked.filter((m) => typeof m === 'number');
    const names = asked.filter((m) => typeof m === 'string');
    const done = await runFarAndSay(composeGlyphs, { codes, names, addRest: true }, { glyphs: asked.length });
    if (!done) return;
    setPicked(new Set());
    setChosen(new Set(useBench.getState().settled!.glyphOrder.filter((id) => !before.has(id))));
  };
  const toggle = (m: number | string) => {
    const next = new Set(picked);
    if (!next.delete(m)) next.add(m);
    setPicked(next);
  };
  if (missing.length === 0) return null;
  // One button for a few more would take their place.
  const shown = all || missing.length <= FIRST + 4 ? missing : missing.slice(0, FIRST);
  return (
    <div className="flex flex-wrap items-center gap-1">
      {shown.map((m) => {
        const added = there.has(m);
        const name = requestFor(m).name;
        return (
          <button
            key={m}
            type="button"
            disabled={added}
            aria-pressed={picked.has(m)}
            aria-label={added ? `${name}, there, not drawn yet` : `${name}, to be added`}
            title={`${name}${typeof m === 'number' ? ` ${codePointForm(m)}` : ''}${added ? ': there, not drawn yet' : ''}`}
            onClick={() => toggle(m)}
            className={`inline-flex h-8 min-w-8 items-center justify-center rounded-md border px-1 text-[17px] ${picked.has(m) ? 'border-kelp bg-kelp-tint text-kelp' : added ? 'border-line text-quiet' : 'border-dashed border-edge bg-panel hover:bg-kelp-tint'}`}
          >
            {pencilled(m)}
          </button>
        );
      })}
      {missing.length > shown.length && (
        <Button onClick={() => setAll(true)}>{missing.length - shown.length} more</Button>
      )}
      {toAdd.length > 0 ? (
        <Button
          kind={kind}
          title={`Puts together what can be for ${what}, and adds empty glyphs for the rest; they stand in the Case, chosen`}
          onClick={add}
        >
          {picked.size > 0 && asked.length < toAdd.length ? `Add ${asked.length} chosen` : `Add ${asked.length}`}
        </Button>
      ) : (
        <span className="text-quiet">{plural(missing.length, 'glyph is', 'glyphs are')} there, not drawn yet</span>
      )}
    </div>
  );
}
