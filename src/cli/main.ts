import { CliError } from './problem';

const HELP = `wendril — cast font files from sources

  wendril cast SOURCE --out DIR [--format otf,ttf,woff2] [--keep-overlaps]
      SOURCE is a project file (.wendril), a .ufo folder, a .ufoz or a .designspace.
  wendril info FILE --json
      Facts about a font file or a source.
  wendril --help
`;

/** Each command is loaded when it is called for, so that the program answers at once. */
async function run(args: readonly string[]): Promise<void> {
  const [command, ...rest] = args;
  if (command === undefined || command === '--help' || command === '-h' || command === 'help') process.stdout.write(HELP);
  else if (command === 'cast') await (await import('./cast')).cast(rest);
  else if (command === 'info') await (await import('./info')).info(rest);
  else throw new CliError(`There is no command “${command}”; see wendril --help.`);
}

run(process.argv.slice(2)).catch((error: unknown) => {
  if (!(error instanceof CliError)) throw error;
  process.stderr.write(`wendril: ${error.message}\n`);
  process.exitCode = 1;
});
