import { RefusalError, refused } from '../core/base/result';

/** Something the user can put right; its message is one sentence for standard error. */
export class CliError extends RefusalError {
  constructor(sentence: string) {
    super(refused(sentence));
  }
}
