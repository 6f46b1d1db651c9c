import { attempt, type Place, type Refusal, type Severity } from './result';

/** A repair: an edit by its name, with its arguments; what it would do, and what it leaves as it is. */
export type Mend = { readonly edit: string; readonly args: unknown; readonly title: string; readonly keeps?: string };

/** What a check came to: a kind, a sentence, a place, how bad, perhaps a mend. `fine` is a check that found nothing. */
export type Finding = {
  readonly kind: string;
  /** What was looked at, in a word or two. */
  readonly title: string;
  /** The sentence. */
  readonly reason: string;
  readonly severity: Severity | 'fine';
  readonly place?: Place;
  readonly mend?: Mend;
};

/** One check, declared: `look` says what is well, or refuses. */
export type CheckOf<T> = {
  readonly kind: string;
  readonly title: string;
  readonly look: (subject: T) => string | Refusal;
};

/** Carries a check out; what a reader refuses in the midst of it is what it finds. */
export function findingOf<T>({ kind, title, look }: CheckOf<T>, subject: T): Finding {
  const result = attempt(() => look(subject));
  const refusal = !result.ok ? result : typeof result.value === 'string' ? undefined : result.value;
  if (!refusal) return { kind, title, reason: (result as { value: string }).value, severity: 'fine' };
  const { reason, severity, place } = refusal;
  return { kind, title, reason, severity, ...(place && { place }) };
}

export const isFine = (f: Finding): boolean => f.severity === 'fine';
