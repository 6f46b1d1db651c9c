import { derivedSet, madeSet } from '../core/deriving/derive';
import { derivedSentence, deriveSet } from '../core/deriving/edits';
import { SETS, setOf } from '../core/deriving/sets';
import { defaultMaster } from '../core/project/queries';
import { endingOf, parsed, SOURCES, tell, tellNotes } from './arguments';
import { write } from './convert';
import { CliError } from './problem';
import { progressOf } from './progress';
import { openInput } from './source';

const OPTIONS = {
  names: { type: 'string' },
  json: { type: 'boolean', default: false },
} as const;

/** `wendril derive`: a set of glyphs made from others, or without a target how its glyphs stand. */
export async function derive(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [key, source, target] = positionals;
  const sets = SETS.map((s) => s.key).join(', ');
  if (key === undefined || source === undefined || positionals.length > 3)
    throw new CliError(`derive takes a set, a source and where the result goes; sets are ${sets}.`);
  const set = setOf(key);
  if (!set) throw new CliError(`There is no set “${key}”; there are ${sets}.`);
  const kind = target === undefined ? undefined : endingOf(target, SOURCES);
  const { project, notes } = await openInput(source);
  tellNotes(notes);
  const names = values.names?.split(',').map((n) => n.trim());
  if (target === undefined) {
    const items = derivedSet(project, set, progressOf(set.title));
    const told = items.map(({ name, state, why }) => ({ name, state, ...(why !== undefined && { why }) }));
    tell(
      values.json,
      { set: key, glyphs: told },
      told.map((t) => `${t.name}  ${t.state}${t.why === undefined ? '' : `: ${t.why}`}`).join('\n'),
    );
    return;
  }
  const done = madeSet(project, set, names, progressOf(set.title));
  if (done.made.length + done.updated.length === 0) {
    const why = deriveSet(project, { set: key, ...(names && { names }) });
    throw new CliError(why.ok ? 'Nothing was made.' : why.reason);
  }
  await write(target, kind!, done.project, defaultMaster(done.project), {});
  tell(
    values.json,
    { target, set: key, made: done.made, updated: done.updated, left: done.left },
    [`${derivedSentence(set.title, done)}.`, ...done.left.map((l) => `${l.name} is left: ${l.why}`), target].join('\n'),
  );
}
