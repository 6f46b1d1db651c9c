import { RefusalError, refuse } from '../base/result';
import { askedFields, valuesFor } from './asked';
import type { Call } from './call';
import { CALLS } from './registry';
import type { Session } from './session';

const byName = new Map<string, Call>(CALLS.map((c) => [`${c.of}.${c.name}`, c]));

/** Thrown where a run is only to learn what the script asks for: it has been told, and the rest is not run. */
export class OnlyAsked extends Error {}

/** References to glyphs, masters and drawings as edits know them: by their ids. */
function idsIn(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(idsIn);
  if (typeof value !== 'object' || value === null) return value;
  if ('$g' in value) return value.$g;
  if ('$m' in value) return value.$m;
  if ('$d' in value) {
    const [glyph, master] = value.$d as [string, string];
    return { glyph, master };
  }
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, idsIn(v)]));
}

function answer(session: Session, name: string, self: unknown, args: readonly unknown[]): unknown {
  if (name === 'edit') return session.edit(String(args[0]), idsIn(args[1] ?? {}));
  if (name === 'ask') return asked(session, args[0]);
  const call = byName.get(name) ?? refuse(`There is no ${name}.`);
  const checked = call.takes.map((t, i) => {
    // What is left out comes over the border as null.
    const parsed = t.schema.safeParse(args[i] === null && t.type.endsWith('?') ? undefined : args[i]);
    if (parsed.success) return parsed.data;
    const { path, message } = parsed.error.issues[0]!;
    return refuse(`${call.name}: ${[t.name, ...path].join('.')} is not ${t.type.replace(/\?$/, '')}: ${message}.`);
  });
  return call.run(session, self, checked);
}

function asked(session: Session, fields: unknown): unknown {
  const parsed = askedFields.safeParse(fields);
  if (!parsed.success) {
    const { path, message } = parsed.error.issues[0]!;
    refuse(`ask: ${path.join('.')}: ${message}.`);
  }
  session.asked = parsed.data;
  if (session.terms.onlyAsk) throw new OnlyAsked();
  const values = valuesFor(parsed.data, session.terms.given);
  // Glyphs are asked for by names and characters, and given as such.
  return Object.fromEntries(
    Object.entries(parsed.data).map(([name, f]) => [
      name,
      'glyphs' in f
        ? String(values[name])
            .split(/[\s,]+/)
            .filter((w) => w !== '')
            .map((w) => ({ $g: session.glyphBy(w).id }))
        : values[name],
    ]),
  );
}

/**
 * What a script says over the border, answered: a name, what it is said of, and arguments, as JSON; a value or a sentence comes
 * back. Nothing of the page but text goes either way.
 */
export function answered(session: Session, message: string): string {
  try {
    const said: unknown = JSON.parse(message);
    if (!Array.isArray(said) || typeof said[0] !== 'string' || !Array.isArray(said[2]))
      refuse('What came over the border is no call.');
    const [name, self, args] = said as [string, unknown, unknown[]];
    return JSON.stringify({ v: answer(session, name, self, args) });
  } catch (error) {
    if (error instanceof OnlyAsked) throw error;
    const reason =
      error instanceof RefusalError ? error.refusal.reason : `This could not be answered: ${(error as Error).message}`;
    return JSON.stringify({ e: reason.slice(0, 4000) });
  }
}
