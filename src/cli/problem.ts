/** Something the user can put right; its message is one sentence for standard error. */
export class CliError extends Error {}
