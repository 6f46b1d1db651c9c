import { orderedText } from '../base/ordered';
import type { Lib, LibValue } from '../project/model';
import { isDict } from './ufo/plist';

/**
 * What a source says, with what was changed since. `was` is what its file holds, `ours` what we made of it when it was opened,
 * and `now` what we make of it now: where these two are the same nothing was changed, and what the file says stays, also what
 * we have no use for and what we would have written differently.
 */
export function merged(
  was: LibValue | undefined,
  ours: LibValue | undefined,
  now: LibValue | undefined,
): LibValue | undefined {
  if (same(ours, now)) return was;
  if (isDict(now) && (was === undefined || isDict(was)) && (ours === undefined || isDict(ours)))
    return mergedDict(was ?? {}, ours ?? {}, now);
  if (isNames(now) && isNames(was) && isNames(ours)) return mergedNames(was, ours, now);
  return now;
}

const same = (a: LibValue | undefined, b: LibValue | undefined): boolean =>
  a === b || (a !== undefined && b !== undefined && orderedText(a) === orderedText(b));

function mergedDict(was: Lib, ours: Lib, now: Lib): Lib {
  const out: [string, LibValue][] = [];
  for (const key of new Set([...Object.keys(was), ...Object.keys(now)])) {
    // What we never made anything of is not ours to take away.
    const value = !(key in now) && !(key in ours) ? was[key] : merged(was[key], ours[key], now[key]);
    if (value !== undefined) out.push([key, value]);
  }
  return Object.fromEntries(out);
}

const isNames = (v: LibValue | undefined): v is string[] => Array.isArray(v) && v.every((x) => typeof x === 'string');

/** Names come, go and change places as they did in ours; names that ours leaves out stay behind the one they followed. */
function mergedNames(was: readonly string[], ours: readonly string[], now: readonly string[]): string[] {
  const known = new Set(ours);
  const out = [...now];
  was.forEach((name, i) => {
    if (known.has(name) || out.includes(name)) return;
    const after = was
      .slice(0, i)
      .reverse()
      .find((n) => out.includes(n));
    out.splice(after === undefined ? 0 : out.indexOf(after) + 1, 0, name);
  });
  return out;
}
