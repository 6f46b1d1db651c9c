/** An option as its help tells it. */
export type OptionFacts = { name: string; value?: string; usual?: string; does: string };
/** A command: how it is called, what it does, its options, an example; loaded when it is called for. */
export type CommandFacts = {
  name: string;
  takes: string;
  does: readonly string[];
  options: readonly OptionFacts[];
  example: string;
  load: () => Promise<(args: readonly string[]) => Promise<void>>;
};

const JSON_OPTION: OptionFacts = { name: 'json', does: 'tells the result as one JSON value' };
const KEEP: OptionFacts = { name: 'keep-overlaps', does: 'leaves overlapping contours as they are drawn' };

/** Every command there is; help is made from this. */
export const COMMANDS: readonly CommandFacts[] = [
  {
    name: 'cast',
    takes: 'SOURCE… --out DIR',
    does: [
      'Font files, one a format: of every master, or of what is chosen. A project with instances is mostly cast by --instances all.',
      'SOURCE is a project file (.wendril), a .ufo folder, a .ufoz, a .designspace or a font; several are cast side by side.',
    ],
    options: [
      { name: 'out', value: 'DIR', does: 'the folder for the font files; it is made where it is missing' },
      { name: 'format', value: 'LIST', usual: 'otf,ttf,woff2', does: 'otf, ttf, woff and woff2, with commas between' },
      { name: 'masters', value: 'NAMES', does: 'these masters, with commas between, or all' },
      { name: 'instances', value: 'NAMES', does: 'these instances, with commas between, or all' },
      {
        name: 'list',
        value: 'NAME',
        does: 'a casting list of the project, or one that is ready: For the desk, For the web, As one font, Everything',
      },
      { name: 'variable', does: 'the family as one font that varies over its axes' },
      KEEP,
      { name: 'blanks', does: 'characters that are not drawn stand as blanks, instead of being left out' },
      {
        name: 'glyphs',
        value: 'LIST',
        does: 'only the characters of a list of the project, or of a text file, and what rules make of them',
      },
      { name: 'languages', value: 'LIST', does: 'only what these languages are written with, by code: pl,cs,tr' },
      { name: 'without', value: 'TAGS', does: 'leaves features out: ss01,kern' },
      { name: 'parts', does: 'web fonts in files for Latin, Greek, Cyrillic and the rest' },
      { name: 'unhinted', does: 'OpenType fonts without alignment zones and stems' },
      { name: 'symbol', does: 'characters stand where symbol fonts have them' },
      {
        name: 'embedding',
        value: 'WORD',
        does: 'what documents may do with the font: none, view, edit or free',
      },
      { name: 'lines', value: 'A,D,G', does: 'ascender, descender and gap of lines in font units, instead of its own' },
      { name: 'must-agree', does: 'makes nothing while masters disagree in a glyph' },
      {
        name: 'jobs',
        value: 'N',
        does: 'so many fonts at once; one fewer than there are processors where four or more are made',
      },
      {
        name: 'watch',
        does: 'casts again whenever the source changes, until it is ended; only files that become other are written',
      },
      JSON_OPTION,
    ],
    example: 'wendril cast Velmarrow.wendril --out fonts --format otf,woff2',
    load: async () => (await import('./cast')).cast,
  },
  {
    name: 'proof',
    takes: 'SOURCE|FONT --out FILE.pdf',
    does: [
      'A printable proof: waterfall, text, glyphs, languages, spacing, kerning, marks, the family. The font is embedded.',
      'A font file is shown as it is; of a source the default master, or what is named, is cast for it.',
    ],
    options: [
      { name: 'out', value: 'FILE', does: 'the PDF that is written' },
      {
        name: 'sections',
        value: 'LIST',
        does: 'some of waterfall, text, glyphs, languages, spacing, kerning, marks, family; all without it',
      },
      { name: 'page', value: 'SIZE', usual: 'A4', does: 'A4, A3 or Letter' },
      { name: 'text', value: 'TEXT', does: 'what is set; the text of the galley without it' },
      { name: 'master', value: 'NAME', does: 'this master of a source' },
      { name: 'instance', value: 'NAME', does: 'this instance of a source' },
    ],
    example: 'wendril proof Velmarrow.wendril --out proof.pdf --sections kerning,marks',
    load: async () => (await import('./proof')).proof,
  },
  {
    name: 'convert',
    takes: 'IN OUT',
    does: [
      'One file made another, by their endings:',
      '.otf .ttf .woff .woff2 .ufo .ufoz .designspace .wendril, and .svg of one glyph.',
    ],
    options: [
      { name: 'glyph', value: 'NAME', does: 'the glyph of an .svg file, by name or character' },
      { name: 'face', value: 'N', usual: '1', does: 'which font of a collection' },
      KEEP,
    ],
    example: 'wendril convert Velmarrow.designspace Velmarrow.ttf',
    load: async () => (await import('./convert')).convert,
  },
  {
    name: 'info',
    takes: 'FILE…',
    does: ['Facts about font files or sources, a line each.'],
    options: [JSON_OPTION],
    example: 'wendril info fonts/*.otf --json',
    load: async () => (await import('./info')).info,
  },
  {
    name: 'coverage',
    takes: 'SOURCE…',
    does: [
      'Which languages sources or font files are complete for, what the others lack, and which few glyphs open most readers.',
    ],
    options: [
      { name: 'languages', value: 'LIST', does: 'these languages, by code or name: pl,cs,Turkish' },
      {
        name: 'list',
        value: 'FILE',
        does: 'a text of characters, code points, ranges or names, held against the glyphs',
      },
      JSON_OPTION,
    ],
    example: 'wendril coverage Velmarrow.wendril --languages pl,cs,tr',
    load: async () => (await import('./coverage')).coverage,
  },
  {
    name: 'check',
    takes: 'SOURCE|FONT…',
    does: [
      'What is wrong with sources or fonts: outlines, heights, parts, fitting, kerning, masters, characters, names, lines of text, features, files.',
      'Each finding with its glyph, masters, contour, point or line. Ends with 1 where one is at or above the limit.',
    ],
    options: [
      { name: 'fail-on', value: 'LEVEL', usual: 'error', does: 'the limit: error, warning, note or never' },
      {
        name: 'only',
        value: 'FAMILIES',
        does: 'some of outlines, heights, parts, fitting, kerning, masters, characters, names, lines, features, files',
      },
      { name: 'accepted', does: 'tells those too that the project accepts as meant' },
      { name: 'mend', does: 'mends what a machine can, each in its usual way, and writes the result to --out' },
      {
        name: 'out',
        value: 'TARGET',
        does: 'where --mend writes, told by its ending: .ufo .ufoz .designspace .wendril',
      },
      JSON_OPTION,
      { name: 'sarif', does: 'tells findings as SARIF 2.1.0, for build systems and reviews' },
    ],
    example: 'wendril check Velmarrow.wendril --fail-on warning --only outlines,masters',
    load: async () => (await import('./check')).check,
  },
  {
    name: 'features',
    takes: 'SOURCE',
    does: [
      'The sections of rules of a source or a font: what they say, and what is wrong in them, by line and column.',
      'Ends with 1 where a rule is wrong.',
    ],
    options: [
      {
        name: 'write',
        value: 'FILE',
        does: 'writes the rules as one text for other tools, those that write themselves too',
      },
      { name: 'check', does: 'tells only what is wrong' },
      JSON_OPTION,
    ],
    example: 'wendril features Velmarrow.wendril --write velmarrow.fea',
    load: async () => (await import('./features')).features,
  },
  {
    name: 'reweight',
    takes: 'SOURCE TARGET',
    does: [
      'Glyphs of a master at new stems: upright, level, slanted and curved strokes, joins and ends; heights and structure stay.',
      'In place, or as a new master that agrees with its source point for point; an axis that its place names is added.',
    ],
    options: [
      { name: 'vertical', value: 'N', does: 'how thick upright strokes are to be, in font units' },
      { name: 'horizontal', value: 'N', does: 'the same of level strokes; in proportion where it is left out' },
      { name: 'contrast', value: 'N', does: 'level strokes as percent of upright ones, in place of one of the two' },
      { name: 'from', value: 'MASTER', does: 'the master that is reweighted; the default one without it' },
      { name: 'as', value: 'NAME', does: 'the result is a new master of this name' },
      { name: 'place', value: 'AXIS=N', does: 'where the new master stands: wght=800' },
      {
        name: 'width',
        value: 'WORD',
        usual: 'keep',
        does: 'keep keeps advances, counters lets letters grow with their strokes, 104% is a share',
      },
      { name: 'sides', value: 'WORD', usual: 'share', does: 'share: sides give way as counters do; kept: they stay' },
      {
        name: 'rounds',
        value: 'N',
        usual: '100',
        does: 'percent that curved strokes grow by of what straight ones do',
      },
      { name: 'glyphs', value: 'LIST', does: 'only these glyphs, by name or character' },
      JSON_OPTION,
    ],
    example: 'wendril reweight Velmarrow.wendril Family.wendril --vertical 160 --as Black --place wght=900',
    load: async () => (await import('./reweight')).reweight,
  },
  {
    name: 'run',
    takes: 'SCRIPT… SOURCE [TARGET]',
    does: [
      'Runs scripts over a source, one after the other, in an interpreter that reaches nothing but the project. The command ends with an error where a script reports a finding.',
      'SCRIPT is a file (.js) or one that comes with Wendril, as cleanUp or stemsOfMasters; what scripts see is in docs/scripts.md.',
    ],
    options: [
      {
        name: 'glyphs',
        value: 'LIST',
        does: 'the glyphs it runs on, by name or character with commas between; all without it',
      },
      { name: 'masters', value: 'NAMES', does: 'the masters it runs on, with commas between; all without it' },
      { name: 'set', value: 'NAME=VALUE', does: 'a value that the script asks for; as often as there are values' },
      { name: 'out', value: 'DIR', does: 'the folder for fonts that a script casts' },
      {
        name: 'declarations',
        does: 'prints everything that scripts can name as TypeScript, for an editor of your own',
      },
      { name: 'dry-run', does: 'writes nothing, and tells what would change' },
      { name: 'seconds', value: 'N', usual: '60', does: 'how long a script may run' },
      { name: 'megabytes', value: 'N', usual: '512', does: 'how much memory it may use' },
      JSON_OPTION,
    ],
    example: 'wendril run cleanUp stemsOfMasters Velmarrow.wendril Velmarrow.wendril',
    load: async () => (await import('./run')).run,
  },
  {
    name: 'derive',
    takes: 'SET SOURCE [TARGET]',
    does: [
      'A set of glyphs made from others, in every master: scaled and reweighted, or of parts. Without a target: how its glyphs stand.',
      'SET is smallCaps, smallCapFigures, oldStyle, tabular, proportional, superiors, inferiors, numerators, denominators, fractions, ligatures, ordinals, caseForms, roman, ringed or keys.',
    ],
    options: [{ name: 'names', value: 'LIST', does: 'only these glyphs of the set, by name' }, JSON_OPTION],
    example: 'wendril derive smallCaps Velmarrow.wendril Velmarrow.wendril',
    load: async () => (await import('./derive')).derive,
  },
  {
    name: 'shape',
    takes: 'FONT|SOURCE TEXT',
    does: ['A text set with a font, or with a source as it would be cast: its glyphs and their places.'],
    options: [
      { name: 'features', value: 'LIST', does: 'features to be set: smcp,liga=0,salt=2' },
      { name: 'language', value: 'CODE', does: 'the language of the text, as tr, or as TRK by its tag in fonts' },
      { name: 'script', value: 'TAG', does: 'the script, as latn or deva, where it is not that of the letters' },
      { name: 'direction', value: 'ltr|rtl', does: 'the direction, where it is not that of the letters' },
      { name: 'explain', does: 'tells what every lookup did, in order, and where its rule stands' },
      JSON_OPTION,
    ],
    example: 'wendril shape Velmarrow.wendril "office" --explain',
    load: async () => (await import('./shape')).shape,
  },
  {
    name: 'compose',
    takes: 'SOURCE TARGET',
    does: [
      'Letters put together from bases and marks, in every master; what is drawn stays.',
      'Dotless letters and combining marks are made from i, j and the spacing accents; missing anchors are placed.',
    ],
    options: [
      { name: 'languages', value: 'LIST', does: 'what these languages need, by code or name: pl,cs,Turkish' },
      { name: 'list', value: 'FILE', does: 'what a text asks for: characters, code points, ranges or names' },
      { name: 'glyphs', value: 'LIST', does: 'these characters, with commas between: é,ő,Ş' },
      { name: 'all', does: 'every letter of Latin, Greek and Cyrillic that is composed' },
      { name: 'anchors-only', does: 'places missing anchors, of --glyphs or of all, and builds nothing' },
      JSON_OPTION,
    ],
    example: 'wendril compose Velmarrow.ufo Wider.ufo --languages pl,cs,tr,vi',
    load: async () => (await import('./compose')).compose,
  },
  {
    name: 'names',
    takes: 'FILE…',
    does: ['What fonts say they are and what contradicts what; with --family, new names for them.'],
    options: [
      { name: 'family', value: 'NAME', does: 'gives the fonts this family name' },
      { name: 'style', value: 'NAME', does: 'gives them this style; each keeps its own where this is not said' },
      { name: 'out', value: 'DIR', does: 'writes into this folder, instead of over the files' },
      { name: 'dry-run', does: 'tells what would be written, and writes nothing' },
      JSON_OPTION,
    ],
    example: 'wendril names *.otf --family "Velmarrow Text" --out renamed',
    load: async () => (await import('./names')).names,
  },
  {
    name: 'apply',
    takes: 'OPERATION SOURCE TARGET',
    does: [
      'One operation on many glyphs, written as another source.',
      'Tidies: extremes, fewer, round, straighten, handles, even, directions, starts, overlap, strays.',
      'Transforms: move, scale (--x --y), rotate, slant (--angle), flip (--x 1 or --y 1), each with --origin.',
      'Works on edges: stroke, grow, hollow, frame, each with --amount.',
      'Any other edit by its name, with --args; --list names them all.',
    ],
    options: [
      {
        name: 'glyphs',
        value: 'LIST',
        does: 'these glyphs, by name or character, with commas between; all where it is not said',
      },
      { name: 'master', value: 'NAME', does: 'this master; all where it is not said' },
      { name: 'amount', value: 'N', does: 'how far: units, or what the operation takes' },
      { name: 'x', value: 'N', does: 'to the right, or a factor across' },
      { name: 'y', value: 'N', does: 'upwards, or a factor upwards' },
      { name: 'angle', value: 'DEGREES', does: 'counter-clockwise; a slant to the right is positive' },
      { name: 'origin', value: 'PLACE', usual: 'zero', does: 'what stays: zero, centre, top left …' },
      { name: 'join', value: 'KIND', usual: 'round', does: 'corners: round, sharp, bevel' },
      { name: 'cap', value: 'KIND', usual: 'round', does: 'ends of strokes: flat, round, square' },
      { name: 'wall', value: 'N', usual: '30', does: 'how thick a frame is' },
      { name: 'radius', value: 'N', usual: '0', does: 'how round the corners of a frame are' },
      { name: 'reversed', does: 'a filled frame with the letter left out' },
      { name: 'sides', value: 'HOW', usual: 'as it is', does: 'sides of a framed letter: around, frame, as it is' },
      { name: 'least', value: 'N', usual: '0', does: 'how wide a frame is at least: keys of one width' },
      { name: 'suffix', value: 'WORD', does: 'works on edges of copies: A.WORD; the glyphs stay as they are' },
      { name: 'args', value: 'JSON', does: 'arguments of an edit; “/n” is a glyph, “@Bold” a master' },
      { name: 'list', does: 'names all edits, with what they do' },
      JSON_OPTION,
    ],
    example: 'wendril apply slant Velmarrow.ufo Oblique.ufo --angle 9 --glyphs a,b,c',
    load: async () => (await import('./apply')).apply,
  },
  {
    name: 'fit',
    takes: 'SOURCE TARGET',
    does: ['Side bearings from those that are kept, in every master.'],
    options: [
      { name: 'keep', value: 'LIST', usual: 'n,o,H,O', does: 'glyphs whose sides stay and speak for the others' },
      JSON_OPTION,
    ],
    example: 'wendril fit Velmarrow.wendril Fitted.wendril --keep n,o,H,O',
    load: async () => (await import('./spacing')).fit,
  },
  {
    name: 'kern',
    takes: 'SOURCE TARGET',
    does: ['Kerning for all pairs that text can hold, by groups where their members agree, in every master.'],
    options: [
      {
        name: 'glyphs',
        value: 'LIST',
        does: 'only among these; letters, figures and punctuation where it is not said',
      },
      { name: 'min', value: 'UNITS', usual: '0.4 % of the em', does: 'the smallest value worth keeping' },
      { name: 'step', value: 'UNITS', usual: '0.5 % of the em', does: 'values are rounded to this' },
      { name: 'most', value: 'N', usual: '1500', does: 'values at most, those worth most first' },
      JSON_OPTION,
    ],
    example: 'wendril kern Velmarrow.wendril Kerned.wendril --most 800',
    load: async () => (await import('./spacing')).kern,
  },
  {
    name: 'trace',
    takes: 'PICTURE TARGET.svg',
    does: ['Outlines of the ink in a PNG or JPEG picture as one path.'],
    options: [
      { name: 'threshold', value: 'PERCENT', usual: 'found by itself', does: 'ink is darker than this' },
      { name: 'detail', value: 'UNITS', usual: '1.5 pixels', does: 'how far an outline may stray from the ink' },
      { name: 'speckle', value: 'PIXELS', usual: '16', does: 'specks smaller than this are left out' },
      { name: 'height', value: 'UNITS', usual: '1000', does: 'how high the picture is' },
      JSON_OPTION,
    ],
    example: 'wendril trace ampersand.png ampersand.svg --height 800',
    load: async () => (await import('./trace')).trace,
  },
];

const called = ({ name, value }: OptionFacts): string => `--${name}${value ? ` ${value}` : ''}`;

/** What `wendril COMMAND --help` says. */
export function helpOf(command: CommandFacts): string {
  const { name, takes, does, options, example } = command;
  const wide = Math.max(...options.map((o) => called(o).length), '--help'.length) + 2;
  const rows = [...options, { name: 'help', does: 'this' } as OptionFacts].map(
    (o) => `  ${called(o).padEnd(wide)}${o.does}${o.usual ? ` (${o.usual})` : ''}`,
  );
  return `wendril ${name} ${takes}\n\n${does.map((d) => `  ${d}`).join('\n')}\n\n${rows.join('\n')}\n\n  ${example}\n`;
}

/** What `wendril --help` says. */
export function helpOfAll(): string {
  const wide = Math.max(...COMMANDS.map((c) => c.name.length + c.takes.length)) + 3;
  const rows = COMMANDS.map((c) => `  ${`${c.name} ${c.takes}`.padEnd(wide)}${c.does[0]!.replace(/:$/, '.')}`);
  return `wendril — font files and their sources\n\n${rows.join('\n')}\n\n  wendril COMMAND --help tells its options, with an example; wendril --version tells the version.\n`;
}

/** The word of a list that is most like one that was typed, if any is: at most a third of its letters differ. */
export function nearestWord(typed: string, words: readonly string[]): string | undefined {
  const found = words
    .map((word) => ({ word, off: distance(typed.toLowerCase(), word.toLowerCase()) }))
    .sort((a, b) => a.off - b.off)[0];
  return found && found.off <= Math.max(1, Math.ceil(found.word.length / 3)) ? found.word : undefined;
}

/** How many letters must be put in, left out or exchanged to make one word another (Levenshtein, 1965). */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let k = 1; k <= b.length; k++)
      next.push(Math.min(next[k - 1]! + 1, row[k]! + 1, row[k - 1]! + (a[i - 1] === b[k - 1] ? 0 : 1)));
    row = next;
  }
  return row[b.length]!;
}
