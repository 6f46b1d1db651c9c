/**
 * Errors as values, in one shape everywhere: a sentence a designer understands, the place it speaks of and how bad it is.
 * Deep inside a reader a {@link RefusalError} may be thrown; {@link attempt} turns it into a value at the border.
 */

/** Where something is; only what applies is given. */
export type Place = {
  readonly file?: string;
  /** Tag of an OpenType table. */
  readonly table?: string;
  readonly glyph?: string;
  readonly master?: string;
  readonly contour?: number;
  readonly point?: number;
  readonly line?: number;
  readonly column?: number;
};

/** How bad: something to know, something to look at, something that is wrong or could not be done. */
export type Severity = 'note' | 'attention' | 'error';

/** What was refused or found: one clear sentence, its place, how bad. */
export type Refusal = {
  readonly ok: false;
  /** The sentence. */
  readonly reason: string;
  readonly place?: Place;
  readonly severity: Severity;
};
export type Result<T> = { ok: true; value: T } | Refusal;

/** A refusal under way through a reader; caught by {@link attempt}. */
export class RefusalError extends Error {
  override name = 'Refusal';
  constructor(readonly refusal: Refusal) {
    super(refusal.reason);
  }
}

/** A refusal as a value. */
export const refused = (reason: string, place?: Place, severity: Severity = 'error'): Refusal => ({
  ok: false,
  reason,
  severity,
  ...(place && { place }),
});

export const isRefused = (value: object): value is Refusal => 'ok' in value && value.ok === false && 'reason' in value;

/** Stops the current reading with a sentence. */
export function refuse(sentence: string, place?: Place): never {
  throw new RefusalError(refused(sentence, place));
}

export const success = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });

/** Runs `work`; a {@link RefusalError} becomes a refusal, any other error is a defect and goes on up. */
export function attempt<T>(work: () => T): Result<T> {
  try {
    return success(work());
  } catch (error) {
    if (error instanceof RefusalError) return error.refusal;
    throw error;
  }
}

/** The value; a refusal goes on up as a {@link RefusalError}. */
export function unwrap<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new RefusalError(result);
}
