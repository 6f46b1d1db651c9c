import { version } from '../../package.json';
import { RefusalError } from '../core/base/result';
import { COMMANDS, helpOf, helpOfAll, nearestWord } from './commands';
import { CliError } from './problem';
import { endProgress } from './progress';

const isHelp = (word: string | undefined): boolean => word === '--help' || word === '-h' || word === 'help';

async function run(args: readonly string[]): Promise<void> {
  const [name, ...rest] = args;
  const command = COMMANDS.find((c) => c.name === (isHelp(name) ? rest[0] : name));
  if (name === '--version' || name === '-v') process.stdout.write(`wendril ${version}\n`);
  else if (command && (isHelp(name) || rest.some((word) => word === '--help' || word === '-h')))
    process.stdout.write(helpOf(command));
  else if (name === undefined || isHelp(name)) process.stdout.write(helpOfAll());
  else if (command) await (await command.load())(rest);
  else {
    const near = nearestWord(
      name,
      COMMANDS.map((c) => c.name),
    );
    throw new CliError(
      `There is no command “${name}”${near ? `; did you mean ${near}?` : ';'} See wendril --help.`.replace(
        '; See',
        '; see',
      ),
    );
  }
}

/** Carries out one call; a fault is told on standard error, and the process ends with 1, or 70 where it is ours. */
export async function call(args: readonly string[]): Promise<void> {
  try {
    await run(args);
  } catch (error) {
    endProgress();
    const sentence =
      error instanceof RefusalError
        ? error.message
        : `this should not have happened: ${(error as Error).stack ?? error}`;
    process.stderr.write(`wendril: ${sentence}\n`);
    process.exitCode = error instanceof RefusalError ? 1 : 70;
  } finally {
    endProgress();
  }
}
