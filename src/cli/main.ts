import { RefusalError } from '../core/base/result';
import { CliError } from './problem';

const HELP = `wendril — font files and their sources

  wendril cast SOURCE --out DIR [--format otf,ttf,woff,woff2] [--keep-overlaps]
      SOURCE is a project file (.wendril), a .ufo folder, a .ufoz, a .designspace or a font.
  wendril convert IN OUT [--glyph NAME] [--face N] [--keep-overlaps]
      By their endings: .otf .ttf .woff .woff2 .ufo .ufoz .designspace .wendril, and .svg of one glyph (its name by --glyph).
  wendril info FILE… [--json]
      Facts about font files or sources, a line each.
  wendril names FILE… [--family "NAME"] [--style "NAME"] [--out DIR] [--dry-run] [--json]
      What fonts say they are and what contradicts what; with --family, new names for them.
  wendril apply OPERATION SOURCE TARGET [--glyphs a,b,…] [--master NAME] [--amount N] [--json]
      Tidies many glyphs: extremes, fewer, round, straighten, handles, even, directions, starts, overlap, strays.
      Transforms them: move, scale (--x --y), rotate, slant (--angle), flip (--x 1 or --y 1), each with --origin.
      Works on edges: stroke, grow, hollow, frame, each with --amount.
      Any other edit by its name, with --args JSON in which "/n" is a glyph and "@Bold" a master; --list names them all.
  wendril fit SOURCE TARGET [--keep n,o,H,O] [--json]
      Side bearings from those that are kept, in every master.
  wendril kern SOURCE TARGET [--glyphs a,b,…] [--min 4] [--step 5] [--most 1500] [--json]
      Kerning for all pairs, by groups where their members agree, in every master.
  wendril trace PICTURE TARGET.svg [--threshold PERCENT] [--detail UNITS] [--speckle PIXELS] [--height UNITS] [--json]
      Outlines of the ink in a PNG or JPEG picture as one path; the picture is 1000 units high unless told.
  wendril --help
`;

/** Each command is loaded when it is called for, so that the program answers at once. */
async function run(args: readonly string[]): Promise<void> {
  const [command, ...rest] = args;
  if (command === undefined || command === '--help' || command === '-h' || command === 'help')
    process.stdout.write(HELP);
  else if (command === 'cast') await (await import('./cast')).cast(rest);
  else if (command === 'convert') await (await import('./convert')).convert(rest);
  else if (command === 'apply') await (await import('./apply')).apply(rest);
  else if (command === 'trace') await (await import('./trace')).trace(rest);
  else if (command === 'fit') await (await import('./spacing')).fit(rest);
  else if (command === 'kern') await (await import('./spacing')).kern(rest);
  else if (command === 'names') await (await import('./names')).names(rest);
  else if (command === 'info') await (await import('./info')).info(rest);
  else throw new CliError(`There is no command “${command}”; see wendril --help.`);
}

run(process.argv.slice(2)).catch((error: unknown) => {
  if (!(error instanceof RefusalError)) throw error;
  process.stderr.write(`wendril: ${error.message}\n`);
  process.exitCode = 1;
});
