import { readyDemo } from '../../../../demo/ready';
import { castFont } from '../../casting/font';
import type { Flavour } from '../../casting/plan';
import { rulesFromFont } from '../../features/adopt';
import { setPair } from '../../kerning/edits';
import { head } from '../../opentype/head';
import { type NameRecord, name } from '../../opentype/name';
import { type Os2, os2 } from '../../opentype/os2';
import { readSfnt, type Sfnt, tableOf, writeSfnt } from '../../opentype/sfnt';
import { readHvar } from '../../opentype/variations';
import { vhea } from '../../opentype/vhea';
import type { Lib, Project } from '../../project/model';
import { defaultMaster, glyphNamed } from '../../project/queries';
import { shapedByHarfBuzz } from '../../testing/shaping';
import { openAny } from '../openFile';
import { writeProjectFile } from '../project/projectFile';

/** A font that is opened, kept in a file of ours, opened again and cast is the font that it was. */

const demo = readyDemo();
const record = (nameID: number, languageID: number, string: string): Lib => ({
  nameID,
  platformID: 3,
  encodingID: 1,
  languageID,
  string,
});

/** Everything that a font can state and no rule would give. */
const INFO: Lib = {
  openTypeOS2Selection: [8],
  openTypeOS2FamilyClass: [8, 2],
  openTypeOS2Panose: [2, 11, 5, 3, 2, 2, 2, 2, 2, 4],
  openTypeOS2Type: [2, 8],
  openTypeOS2UnicodeRanges: [0, 1, 2, 31, 32, 57, 100],
  openTypeOS2CodePageRanges: [0, 1, 29, 31, 40],
  openTypeOS2SubscriptXSize: 601,
  openTypeOS2SuperscriptYOffset: 377,
  openTypeOS2StrikeoutPosition: 291,
  openTypeHeadFlags: [0, 3, 11],
  openTypeHeadLowestRecPPEM: 9,
  openTypeHheaCaretOffset: 12,
  openTypeHheaCaretSlopeRise: 7,
  openTypeHheaCaretSlopeRun: 1,
  openTypeVheaVertTypoAscender: 510,
  openTypeVheaVertTypoDescender: -490,
  openTypeVheaVertTypoLineGap: 20,
  openTypeGaspRangeRecords: [
    { rangeMaxPPEM: 8, rangeGaspBehavior: [1] },
    { rangeMaxPPEM: 65535, rangeGaspBehavior: [0, 1, 3] },
  ],
  postscriptUnderlinePosition: -77,
  postscriptUnderlineThickness: 41,
  postscriptIsFixedPitch: true,
  postscriptFontName: 'VelmarrowBook',
  postscriptFullName: 'Velmarrow, the Book',
  styleMapFamilyName: 'Velmarrow Buch',
  styleMapStyleName: 'bold',
  openTypeNameVersion: 'Version 1.000 of the office',
  openTypeNameUniqueID: 'The office: Velmarrow',
  openTypeNameWWSFamilyName: 'Velmarrow Together',
  openTypeNameCompatibleFullName: 'Velmarrow all in one',
  openTypeNameRecords: [
    record(1, 0x407, 'Velmarrow Deutsch'),
    record(2, 0x407, 'Fett'),
    record(4, 0x40c, 'Velmarrow en gras'),
  ],
};
const RULES = `feature ss19 { featureNames { name "Round \\0022a\\0022"; name 3 1 0x407 "Rundes a"; }; sub a by o; } ss19;
feature cv01 { cvParameters { FeatUILabelNameID { name "Short"; }; Character 0x61; Character 0x1F600; }; sub e by c; } cv01;
feature size { parameters 100 0; } size;`;

const source: Project = {
  ...demo,
  axes: [],
  instances: [],
  masters: [{ ...demo.masters[0]!, place: {}, info: { ...demo.masters[0]!.info, ...INFO } }],
  features: {
    ...demo.features,
    sections: [...demo.features.sections, { id: 'own', title: 'Own', options: {}, text: RULES }],
  },
  glyphs: {
    ...demo.glyphs,
    [glyphNamed(demo, 'n')!.id]: {
      ...glyphNamed(demo, 'n')!,
      drawings: {
        ...glyphNamed(demo, 'n')!.drawings,
        [demo.masters[0]!.id]: {
          ...glyphNamed(demo, 'n')!.drawings[demo.masters[0]!.id]!,
          verticalAdvance: 870,
          lib: { 'public.verticalOrigin': 799 },
        },
      },
    },
  },
};

const cast = (project: Project, flavour: Flavour): { font: Sfnt; bytes: Uint8Array; notes: string[] } => {
  const made = castFont(project, { flavour, place: { master: project.masters[0]!.id }, keepOverlaps: true });
  if (!made.ok) throw new Error(made.reason);
  return { font: readSfnt(made.value.bytes), bytes: made.value.bytes, notes: made.value.notes.map((n) => n.reason) };
};
const opened = async (bytes: Uint8Array, label: string) => {
  const read = await openAny(bytes, label);
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};
/** Opened, and once more from a file of ours. */
const kept = async (bytes: Uint8Array, label: string): Promise<{ project: Project; notes: readonly string[] }> => {
  const { project, notes } = await opened(bytes, label);
  return { project: (await opened(writeProjectFile(project), 'kept.wendril')).project, notes };
};
/** Tables that are not the same bytes; the sum of all lies in `head`. */
const unlike = (a: Sfnt, b: Sfnt): string[] =>
  [...new Set([...a.tables.keys(), ...b.tables.keys()])].filter((tag) => {
    const [one, two] = [a, b].map((f) => f.tables.get(tag));
    if (!one || !two) return true;
    if (tag !== 'head') return Buffer.compare(one, two) !== 0;
    const facts = [one, two].map((t) => ({ ...head.read(t), checksumAdjustment: 0 }));
    return JSON.stringify(facts[0]) !== JSON.stringify(facts[1]);
  });

describe.each(['ttf', 'otf'] as const)('%s', (flavour) => {
  const first = cast(source, flavour);

  test('every table comes back as it was, every fact and name with it', async () => {
    const { project, notes } = await kept(first.bytes, `Velmarrow.${flavour}`);
    const again = cast(project, flavour);
    // Hints of CFF are made anew from the drawing, not from the designer’s stems.
    expect(unlike(first.font, again.font).filter((tag) => tag !== 'CFF ')).toEqual([]);
    expect(notes.filter((n) => /left aside/i.test(n) && !/stem hints?|instructions/.test(n))).toEqual([]);
    expect(again.notes.filter((n) => /GPOS|GSUB|substitutions/.test(n))).toEqual([]);
    const facts = os2.read(tableOf(again.font, 'OS/2'));
    expect(facts).toMatchObject({ sFamilyClass: 0x802, fsType: 0x104, fsSelection: (1 << 8) | (1 << 5) });
    expect(vhea.read(tableOf(again.font, 'vhea')).vertTypoAscender).toBe(510);
    expect(again.font.tables.has('VORG')).toBe(flavour === 'otf');
  });

  test('one pair of kerning later positions are made anew, and text is set as it was', async () => {
    const { project } = await kept(first.bytes, `Velmarrow.${flavour}`);
    const [a, m] = ['AE', 'AE'].map((n) => ({ kind: 'glyph' as const, id: glyphNamed(project, n)!.id }));
    const edited = setPair(project, { master: project.masters[0]!.id, first: a!, second: m!, value: -3 });
    if (!edited.ok) throw new Error(edited.reason);
    const again = cast(edited.project, flavour);
    expect(unlike(first.font, again.font)).toContain('GPOS');
    expect(again.notes.filter((n) => /GPOS/.test(n))).toHaveLength(1);
    const texts = ['AVATAR To Ty “Va”', 'ÁȦẠ V́a ÁV', 'o\u0301\u0323n T\u0301o', 'HAMBURGEFONTSIV naïve'];
    const features = ['cpsp=1', 'ss19=1', 'cv01=1'];
    const set = shapedByHarfBuzz([
      { bytes: first.bytes, texts, features },
      { bytes: again.bytes, texts, features },
    ]);
    expect(set[1]).toEqual(set[0]);
  });

  test('lookups that are carried say whose they are; a feature that is left out is, too', async () => {
    const { project } = await kept(first.bytes, `Velmarrow.${flavour}`);
    const place = { master: project.masters[0]!.id };
    const made = castFont(project, { flavour, place, keepOverlaps: true });
    if (!made.ok) throw new Error(made.reason);
    const { GSUB, GPOS } = made.value.lookups;
    expect([...GSUB, ...GPOS].every((l) => l.title === 'the font that was opened')).toBe(true);
    const tags = GPOS.flatMap((l) => l.features.map((f) => f.tag));
    expect(tags).toEqual(expect.arrayContaining(['cpsp', 'kern', 'mark']));
    expect(GPOS.find((l) => l.features.some((f) => f.tag === 'kern'))!.flag).toBe(8);
    const less = castFont(project, { flavour, place, keepOverlaps: true, without: ['kern'] });
    if (!less.ok) throw new Error(less.reason);
    const left = less.value.lookups.GPOS.flatMap((l) => l.features.map((f) => f.tag));
    expect(left).toContain('mark');
    expect(left).not.toContain('kern');
  });

  test('substitutions that become rules bring the names of their features', async () => {
    const { project } = await kept(first.bytes, `Velmarrow.${flavour}`);
    const rules = rulesFromFont(project, {});
    if (!rules.ok) throw new Error(rules.reason);
    const text = rules.project.features.sections.map((s) => s.text).join('\n');
    expect(text).toMatch('name "Round \\0022a\\0022";');
    expect(text).toMatch('name 3 1 0x407 "Rundes a";');
    expect(text).toMatch(/FeatUILabelNameID \{\s+name "Short";[\s\S]*Character 0x1f600;/);
    expect(text).toMatch('parameters 100 0;');
    const again = cast(rules.project, flavour);
    const named = (f: Sfnt) => name.read(tableOf(f, 'name')).filter((n) => n.nameID >= 256);
    const texts = (list: NameRecord[]) => list.map((n) => `${n.languageID} ${n.value}`).sort();
    expect(texts(named(again.font))).toEqual(texts(named(first.font)));
    expect(texts(named(first.font))).toHaveLength(7);
  });
});

test('tables of colour and of older shapers are carried while the glyphs stay; others are told', async () => {
  const { font } = cast(source, 'ttf');
  const tables = new Map(font.tables);
  const mine = Uint8Array.of(0, 0, 0, 1, 2, 3);
  for (const tag of ['COLR', 'CPAL', 'meta', 'morx', 'DSIG', 'FFTM', 'XYZW', 'cvt ']) tables.set(tag, mine);
  const { project, notes } = await kept(writeSfnt(font.version, tables), 'Velmarrow.ttf');
  const left = notes.filter((n) => n.startsWith('Left aside'));
  expect(left).toEqual([
    'Left aside: a digital signature, which no changed file can have (DSIG); notes that its editor keeps (FFTM); what is not known here (XYZW).',
  ]);
  const again = cast(project, 'ttf');
  for (const tag of ['COLR', 'CPAL', 'meta', 'morx']) expect([tag, again.font.tables.get(tag)]).toEqual([tag, mine]);
  const gone = glyphNamed(project, 'o')!;
  const fewer = cast({ ...project, glyphs: { ...project.glyphs, [gone.id]: { ...gone, cast: false } } }, 'ttf');
  expect(fewer.font.tables.has('meta')).toBe(true);
  expect(fewer.font.tables.has('COLR')).toBe(false);
  expect(fewer.notes.join(' ')).toMatch(/layers of colour \(COLR\); palettes of colours \(CPAL\)/);
});

test('definitions of the first years get the header of today, damaged ones are told and left aside', async () => {
  const { font } = cast(source, 'ttf');
  const classes = [0, 1, 0, 1, 0, 2, 0, 1, 0, 1];
  const own = Uint8Array.of(0, 1, 0, 0, 0, 12, 0, 0, 0, 0, 0, 0, ...classes);
  const early = Uint8Array.of(0, 1, 0, 0, 0, 10, 0, 0, 0, 0, ...classes);
  const withTable = (gdef: Uint8Array) => writeSfnt(font.version, new Map(font.tables).set('GDEF', gdef));
  const whole = await kept(withTable(early), 'Velmarrow.ttf');
  expect([...tableOf(cast(whole.project, 'ttf').font, 'GDEF')]).toEqual([...own]);
  expect(whole.notes.join(' ')).not.toMatch(/damaged/);
  const beyond = own.slice();
  new DataView(beyond.buffer).setUint16(4, own.length);
  for (const bad of [beyond, own.subarray(0, 7), Uint8Array.of(0, 9, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0), new Uint8Array()]) {
    const { project, notes } = await kept(withTable(bad), 'Velmarrow.ttf');
    expect(notes.filter((n) => /GDEF/.test(n))).toEqual([
      'Left aside: classes of glyphs and carets of ligatures (GDEF), whose table is damaged; browsers refuse fonts with it.',
    ]);
    expect(Object.keys(project.kept).filter((path) => path.includes('GDEF'))).toEqual([]);
  }
});

test('a style that names and marks tell otherwise is told; what leans is linked as an italic', async () => {
  const { font } = cast(source, 'ttf');
  const styled = (subfamily: string, fsSelection: number, macStyle: number) => {
    const own = name.read(tableOf(font, 'name')).filter((n) => ![2, 16, 17].includes(n.nameID));
    const tables = new Map(font.tables)
      .set('name', name.write([...own, { ...own[0]!, nameID: 2, value: subfamily }]))
      .set('OS/2', os2.write({ ...os2.read(tableOf(font, 'OS/2')), fsSelection } as Os2))
      .set('head', head.write({ ...head.read(tableOf(font, 'head')), macStyle }));
    return kept(writeSfnt(font.version, tables), 'Velmarrow.ttf');
  };
  const marks = (project: Project) => {
    const { tables } = cast(project, 'ttf').font;
    return [os2.read(tables.get('OS/2')!).fsSelection! & 0x261, head.read(tables.get('head')!).macStyle];
  };
  const told = (notes: readonly string[]) => notes.filter((n) => /fsSelection/.test(n));
  const [bold, leaning, agreeing, unmarked] = await Promise.all([
    styled('Italic', 0x21, 3),
    styled('Oblique', 0x200, 2),
    styled('Bold Italic', 0x21, 3),
    styled('Italic', 0, 0),
  ]);
  expect(told(bold.notes)).toEqual([
    'Its names call it Italic, but it is marked as Bold Italic (OS/2, fsSelection); the names hold.',
  ]);
  expect(marks(bold.project)).toEqual([0x01, 2]);
  expect(marks(leaning.project)).toEqual([0x201, 2]);
  expect(marks(agreeing.project)).toEqual([0x21, 3]);
  expect([leaning, agreeing, unmarked].flatMap(({ notes }) => told(notes))).toEqual([]);
});

test('heights of letters that a font tells quite wrong are those of its letters, which is told', async () => {
  const { font } = cast(source, 'ttf');
  const own = os2.read(tableOf(font, 'OS/2'));
  const saying = (heights: { sxHeight: number; sCapHeight: number }) =>
    kept(writeSfnt(font.version, new Map(font.tables).set('OS/2', os2.write({ ...own, ...heights } as Os2))), 'V.ttf');
  const zones = ({ masters }: Project) => [masters[0]!.zones.xHeight.position, masters[0]!.zones.capHeight.position];
  const letters = [own.sxHeight!, own.sCapHeight!];
  const wrong = await saying({ sxHeight: letters[0]!, sCapHeight: 313 });
  expect(zones(wrong.project)).toEqual(letters);
  expect(wrong.notes.filter((n) => /units high/.test(n))).toEqual([
    `It says that capitals are 313 units high; they are ${letters[1]}, so their line stands there, in files that are cast too.`,
  ]);
  // What a designer may mean by it is left alone.
  const near = await saying({ sxHeight: letters[0]! + 12, sCapHeight: letters[1]! - 90 });
  expect(zones(near.project)).toEqual([letters[0]! + 12, letters[1]! - 90]);
  const silent = await saying({ sxHeight: 0, sCapHeight: 0 });
  expect(zones(silent.project)).toEqual(letters);
  expect([...near.notes, ...silent.notes].filter((n) => /units high/.test(n))).toEqual([]);
});

test('names that only old systems have are told, those in other languages are kept', async () => {
  const { font } = cast(source, 'ttf');
  const tables = new Map(font.tables);
  const own = name.read(tableOf(font, 'name'));
  const mac = { platformID: 1, encodingID: 0, languageID: 0 };
  tables.set('name', name.write([...own, { ...mac, nameID: 1, value: 'Velm' }, { ...mac, nameID: 15, value: 'Odd' }]));
  const { notes } = await opened(writeSfnt(font.version, tables), 'Velmarrow.ttf');
  expect(notes.filter((n) => /Macintosh/.test(n))).toEqual([
    'One name that only old Macintosh systems read is left aside.',
  ]);
});

describe('a font that varies', () => {
  const n = glyphNamed(demo, 'n')!;
  const tall: Project = {
    ...demo,
    masters: demo.masters.map((m, i) => ({
      ...m,
      info: {
        ...m.info,
        ...(i === 0 ? INFO : {}),
        openTypeVheaVertTypoAscender: 500 + i,
        openTypeVheaVertTypoDescender: -500,
        postscriptUnderlinePosition: -80 - 3 * i,
      },
    })),
    glyphs: {
      ...demo.glyphs,
      [n.id]: {
        ...n,
        drawings: Object.fromEntries(
          demo.masters.map((m, i) => [m.id, { ...n.drawings[m.id]!, verticalAdvance: 800 + 20 * i }]),
        ),
      },
    },
  };
  const castVariable = (project: Project): Uint8Array => {
    const made = castFont(project, {
      flavour: 'ttf',
      place: { master: defaultMaster(project).id },
      variable: true,
      keepOverlaps: true,
    });
    if (!made.ok) throw new Error(made.reason);
    return made.value.bytes;
  };

  test('keeps its positions over its axes, and metrics that vary, vertical ones too', async () => {
    const bytes = castVariable(tall);
    const first = readSfnt(bytes);
    const advance = readHvar(tableOf(first, 'VVAR'));
    const order = tall.glyphOrder.filter((id) => tall.glyphs[id]!.cast);
    const at = order.indexOf(n.id);
    expect(tall.glyphs[order[0]!]!.name).toBe('.notdef');
    // Each master’s own, at its place.
    expect(advance.store.regions.length).toBeGreaterThan(0);
    const { project } = await kept(bytes, 'Velmarrow.ttf');
    const back = glyphNamed(project, 'n')!;
    const talls = project.masters.map((m) => back.drawings[m.id]!.verticalAdvance);
    expect([...talls].sort()).toEqual(tall.masters.map((_, i) => 800 + 20 * i));
    expect(project.masters.map((m) => m.info!.postscriptUnderlinePosition).sort()).toEqual(
      tall.masters.map((_, i) => -80 - 3 * i).sort(),
    );
    const again = readSfnt(castVariable(project));
    expect(advance.advance(at, [1, 0])).not.toBe(0);
    for (const tag of ['GPOS', 'GDEF', 'GSUB', 'VVAR'])
      expect([tag, Buffer.compare(tableOf(first, tag), tableOf(again, tag))]).toEqual([tag, 0]);
    // A font of one place has no store to vary by, and positions of its own.
    const still = cast(project, 'ttf');
    expect(still.font.tables.has('VVAR')).toBe(false);
    expect(Buffer.compare(tableOf(still.font, 'GPOS'), tableOf(first, 'GPOS'))).not.toBe(0);
    const texts = ['AVATAR To Ty', 'V\u0301a o\u0308n'];
    const [one, two] = shapedByHarfBuzz([
      { bytes, texts },
      { bytes: still.bytes, texts },
    ]);
    expect(two).toEqual(one);
  });
});
