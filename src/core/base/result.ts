/**
 * Errors as values: a sentence a designer understands and the place it speaks of.
 * Deep inside a reader a {@link Refusal} may be thrown; {@link attempt} turns it into a value at the border.
 */
export type Result<T> = { ok: true; value: T } | { ok: false; reason: string };

/** A refusal with one clear sentence; thrown inside readers, caught by {@link attempt}. */
export class Refusal extends Error {
  override name = 'Refusal';
}

/** Stops the current reading with a sentence. */
export function refuse(sentence: string): never {
  throw new Refusal(sentence);
}

export const success = <T>(value: T): Result<T> => ({ ok: true, value });
export const failure = (reason: string): { ok: false; reason: string } => ({ ok: false, reason });

/** Runs `work`; a {@link Refusal} becomes a failed result, any other error is a defect and goes on up. */
export function attempt<T>(work: () => T): Result<T> {
  try {
    return success(work());
  } catch (error) {
    if (error instanceof Refusal) return failure(error.message);
    throw error;
  }
}

/** The value, or a {@link Refusal} with the reason. */
export function unwrap<T>(result: Result<T>): T {
  return result.ok ? result.value : refuse(result.reason);
}
