import { codePointForm } from '../base/notation';
import { undrawnCharacters } from '../casting/plan';
import { coverageOf, needsOf } from '../coverage/coverage';
import type { Language } from '../coverage/languages';
import { encodingForName, glyphNameFault } from '../project/glyphNames';
import type { Glyph, Project } from '../project/model';
import { drawingOf, glyphForCodePoint, glyphNamed, isEmptyDrawing } from '../project/queries';
import { type Amounts, type Finding, finding, type KindFacts } from './finding';

export const CHARACTER_KINDS: readonly KindFacts[] = [
  {
    kind: 'characters/empty',
    family: 'characters',
    title: 'Characters without a drawing',
    habit: true,
    habitSays: (n) => `${n} characters are encoded and not drawn yet.`,
    severity: 'error',
    why: 'A font that has the character, but nothing drawn for it, shows a gap where another font would have helped out. Cast leaves it out unless told otherwise.',
  },
  {
    kind: 'characters/twice',
    family: 'characters',
    title: 'Code points that two glyphs claim',
    severity: 'error',
    why: 'A character leads to one glyph. Which of the two it is would be left to chance.',
  },
  {
    kind: 'characters/notdef',
    family: 'characters',
    title: 'The glyph for what is missing',
    severity: 'attention',
    why: '.notdef is shown for characters that the font lacks. Without a drawing readers see nothing and do not know that something is missing.',
  },
  {
    kind: 'characters/space',
    family: 'characters',
    title: 'Spaces',
    severity: 'attention',
    why: 'Space and no-break space stand in nearly all text; they are of one width, or lines change when they are exchanged.',
  },
  {
    kind: 'characters/case',
    oneByOne: true,
    family: 'characters',
    title: 'Letters whose capital is missing',
    severity: 'note',
    why: 'Text set in capitals, or a name at the beginning of a sentence, falls out of the font.',
  },
  {
    kind: 'characters/language',
    oneByOne: true,
    family: 'characters',
    title: 'Languages that lack one or two letters',
    severity: 'note',
    why: 'So little is missing that the whole language is nearly there.',
    amount: { label: 'Lack at most', unit: 'letters', usual: 2, least: 1, most: 10 },
  },
  {
    kind: 'characters/name',
    family: 'characters',
    title: 'Glyph names that fonts cannot have',
    severity: 'attention',
    why: 'Names in fonts and feature text are made of A–Z, a–z, 0–9, . and _, beginning with a letter or underscore, 63 at most. Others are changed when fonts are made.',
  },
  {
    kind: 'characters/otherName',
    family: 'characters',
    title: 'Names that say another character',
    severity: 'attention',
    why: 'Programs that find text by glyph names, as from PDFs, read the character that the name stands for, not the one that is encoded.',
  },
  {
    kind: 'characters/production',
    family: 'characters',
    title: 'Names for fonts that two glyphs share',
    severity: 'error',
    why: 'In the font both would have one name; one of them gets a number.',
  },
];

const NEEDS_CAPITAL = /^\p{Ll}$/u;
const own = (c: number): string => String.fromCodePoint(c);

/** What is wrong with characters and glyph names; `languages` where they are at hand. */
export function characterFindings(
  project: Project,
  glyphs: readonly Glyph[],
  languages: readonly Language[],
  amounts: Amounts,
): Finding[] {
  return [
    ...empties(project),
    ...claimedTwice(glyphs),
    ...specials(project),
    ...cases(glyphs),
    ...nearlyWritten(glyphs, languages, amounts),
    ...glyphs.flatMap((g) => namesOf(project, g)),
    ...sharedNames(glyphs),
  ];
}

/** What casting would leave out: characters that one should see and no master has drawn. */
function empties(project: Project): Finding[] {
  return [...undrawnCharacters(project)].map((id) => {
    const [code] = project.glyphs[id]!.unicodes;
    const masters = project.masters.map((m) => m.id);
    return finding('characters/empty', `${codePointForm(code!)} is encoded, and nothing is drawn.`, {
      glyph: id,
      masters,
    });
  });
}

function claimedTwice(glyphs: readonly Glyph[]): Finding[] {
  const owners = new Map<number, Glyph>();
  return glyphs.flatMap((glyph) =>
    glyph.unicodes.flatMap((code, i) => {
      if (glyph.unicodes.indexOf(code) < i) return [];
      const first = owners.get(code);
      if (!first) {
        owners.set(code, glyph);
        return [];
      }
      const unicodes = glyph.unicodes.filter((c) => c !== code);
      return [
        finding('characters/twice', `${codePointForm(code)} belongs to ${first.name} too.`, {
          glyph: glyph.id,
          others: [first.id],
          mends: [
            {
              edit: 'setGlyphNames',
              args: { id: glyph.id, name: glyph.name, unicodes },
              title: `Leave it to ${first.name}`,
            },
          ],
        }),
      ];
    }),
  );
}

function specials(project: Project): Finding[] {
  const out: Finding[] = [];
  const [first] = project.masters;
  const notdef = glyphNamed(project, '.notdef');
  if (notdef && first && project.masters.every((m) => isEmptyDrawing(drawingOf(notdef, m.id))))
    out.push(
      finding('characters/notdef', '.notdef has no drawing: readers would not see that a character is missing.', {
        glyph: notdef.id,
      }),
    );
  const space = glyphForCodePoint(project, 0x20);
  const hard = glyphForCodePoint(project, 0xa0);
  if (!space)
    out.push(
      finding('characters/space', 'There is no space (U+0020).', {
        bad: 10,
        mends: [{ edit: 'addGlyphs', args: { requests: [{ name: 'space', unicodes: [0x20] }] }, title: 'Add it' }],
      }),
    );
  for (const m of project.masters) {
    if (!space) break;
    const advance = drawingOf(space, m.id).advance;
    if (advance <= 0)
      out.push(finding('characters/space', 'The space has no width.', { glyph: space.id, masters: [m.id], bad: 9 }));
    if (!isEmptyDrawing(drawingOf(space, m.id)))
      out.push(
        finding('characters/space', 'Something is drawn in the space.', { glyph: space.id, masters: [m.id], bad: 8 }),
      );
    if (hard && hard !== space && drawingOf(hard, m.id).advance !== advance)
      out.push(
        finding(
          'characters/space',
          `The no-break space is ${drawingOf(hard, m.id).advance} wide, the space ${advance}.`,
          {
            glyph: hard.id,
            masters: [m.id],
            bad: 5,
            mends: [
              {
                edit: 'setSides',
                args: { at: { glyph: hard.id, master: m.id }, advance },
                title: `Make it ${advance} wide`,
              },
            ],
          },
        ),
      );
  }
  if (space && !hard)
    out.push(
      finding('characters/space', 'There is no no-break space (U+00A0).', {
        bad: 3,
        mends: [
          {
            edit: 'setGlyphNames',
            args: { id: space.id, name: space.name, unicodes: [...space.unicodes, 0xa0] },
            title: 'Let the space serve for it',
          },
        ],
      }),
    );
  return out;
}

/** Small letters whose capital lacks, in an alphabet that has most of its capitals; letters without a capital aside. */
function cases(glyphs: readonly Glyph[]): Finding[] {
  const codes = new Set(glyphs.flatMap((g) => g.unicodes));
  const scripts = [/\p{Script=Latin}/u, /\p{Script=Greek}/u, /\p{Script=Cyrillic}/u, /\p{Script=Armenian}/u];
  return scripts.flatMap((script) => {
    const pairs = glyphs.flatMap((glyph) => {
      const code = glyph.unicodes[0];
      if (code === undefined || !script.test(own(code)) || !NEEDS_CAPITAL.test(own(code))) return [];
      const capital = own(code).toUpperCase();
      // Capitals of phonetic letters and of symbols that once were letters are for scholars.
      if ([...capital].length !== 1 || capital === own(code) || own(code).normalize('NFKC') !== own(code)) return [];
      if (
        code === 0x192 ||
        (code >= 0x250 && code < 0x2b0) ||
        (code >= 0x3d0 && code < 0x400) ||
        capital.codePointAt(0)! > 0x1eff
      )
        return [];
      return [{ glyph, capital: capital.codePointAt(0)!, has: codes.has(capital.codePointAt(0)!) }];
    });
    const has = pairs.filter((p) => p.has).length;
    if (pairs.length < 10 || has * 10 < pairs.length * 8) return [];
    return pairs
      .filter((p) => !p.has)
      .map(({ glyph, capital }) =>
        finding('characters/case', `Its capital ${own(capital)} (${codePointForm(capital)}) is not in the project.`, {
          glyph: glyph.id,
          mends: [{ edit: 'composeGlyphs', args: { codes: [capital], addRest: true }, title: `Add ${own(capital)}` }],
        }),
      );
  });
}

/** Those with most readers are told; Plan tells of all. */
const MOST_LANGUAGES = 3;

function nearlyWritten(glyphs: readonly Glyph[], languages: readonly Language[], amounts: Amounts): Finding[] {
  const codes = new Set(glyphs.flatMap((g) => g.unicodes));
  const lacking = new Map<string, { names: string[]; missing: readonly number[]; readers: number }>();
  for (const { language, missing } of coverageOf(languages, (c) => codes.has(c))) {
    if (
      missing.length === 0 ||
      missing.length > 2 * amounts('characters/language') ||
      needsOf(language).letters.length < 20
    )
      continue;
    // Small letter and capital are one letter.
    const letters = new Set(missing.map((c) => own(c).toLowerCase()));
    if (letters.size > amounts('characters/language')) continue;
    const key = missing.join();
    const held = lacking.get(key) ?? { names: [], missing, readers: 0 };
    held.names.push(language.name);
    held.readers += language.readers;
    lacking.set(key, held);
  }
  const most = [...lacking.values()].sort((a, b) => b.readers - a.readers);
  return most.slice(0, MOST_LANGUAGES).map(({ names, missing, readers }) =>
    finding(
      'characters/language',
      `${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}: ${missing.map(own).join(' ')} would make ${names.length === 1 ? 'it' : 'them'} whole.`,
      {
        bad: readers,
        mends: [
          {
            edit: 'composeGlyphs',
            args: { codes: missing, addRest: true },
            title: `Add ${missing.map(own).join(' ')}`,
          },
        ],
      },
    ),
  );
}

function namesOf(project: Project, glyph: Glyph): Finding[] {
  const out: Finding[] = [];
  const name = glyph.productionName ?? glyph.name;
  if (glyph.name !== '.notdef' && glyph.name !== '.null' && glyphNameFault(name)) {
    const legal = freeName(project, name);
    out.push(
      finding('characters/name', `${glyphNameFault(name)}`, {
        glyph: glyph.id,
        mends: glyph.productionName
          ? []
          : [
              {
                edit: 'setGlyphNames',
                args: { id: glyph.id, name: legal, unicodes: [...glyph.unicodes] },
                title: `Name it ${legal}`,
              },
            ],
      }),
    );
  }
  const said = encodingForName(name);
  if (
    said !== undefined &&
    glyph.unicodes.length > 0 &&
    !glyph.unicodes.includes(said) &&
    !sameLook(said, glyph.unicodes)
  )
    out.push(
      finding(
        'characters/otherName',
        `“${name}” stands for ${codePointForm(said)}, and it is encoded as ${codePointForm(glyph.unicodes[0]!)}.`,
        { glyph: glyph.id },
      ),
    );
  return out;
}

/** Characters that old lists of names take for one: Ω and ohm, μ and micro, Δ and increment, comma below and cedilla. */
const sameLook = (said: number, codes: readonly number[]): boolean => {
  const form = (c: number) => own(c).normalize('NFKD');
  const known: readonly (readonly number[])[] = [
    [0x394, 0x2206],
    [0x3a9, 0x2126],
    [0x3bc, 0xb5],
    [0x162, 0x21a],
    [0x163, 0x21b],
    [0x2d, 0xad],
    [0x20, 0xa0],
    [0x2c9, 0xaf],
    [0x2219, 0xb7],
    [0x110, 0xd0],
    [0x2215, 0x2044],
  ];
  return codes.some((c) => form(c) === form(said) || known.some((k) => k.includes(c) && k.includes(said)));
};

function freeName(project: Project, name: string): string {
  const plain =
    name
      .replace(/[^A-Za-z0-9._]/g, '_')
      .replace(/^([^A-Za-z_])/, '_$1')
      .slice(0, 60) || 'glyph';
  for (let i = 0; ; i++) {
    const tried = i === 0 ? plain : `${plain}.${i}`;
    if (!glyphNamed(project, tried)) return tried;
  }
}

function sharedNames(glyphs: readonly Glyph[]): Finding[] {
  const seen = new Map<string, Glyph>();
  return glyphs.flatMap((glyph) => {
    const name = glyph.productionName ?? glyph.name;
    const other = seen.get(name);
    if (!other) {
      seen.set(name, glyph);
      return [];
    }
    return [
      finding('characters/production', `In fonts it and ${other.name} would both be called ${name}.`, {
        glyph: glyph.id,
        others: [other.id],
      }),
    ];
  });
}
