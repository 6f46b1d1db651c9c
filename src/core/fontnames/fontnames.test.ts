import { buildStarter } from '../../../demo/starter';
import { castFont } from '../casting/font';
import { head } from '../opentype/head';
import { NAME_ID, type NameRecord, name } from '../opentype/name';
import { os2 } from '../opentype/os2';
import { readSfnt, type Sfnt, writeSfnt } from '../opentype/sfnt';
import { contradictionsBetween, contradictionsIn } from './contradictions';
import { readFontFacts } from './facts';
import { renameFont } from './rename';

const starter = buildStarter();
const made = castFont(starter, { flavour: 'ttf', place: { master: 'm1' }, keepOverlaps: true });
if (!made.ok) throw new Error(made.reason);
const font = readSfnt(made.value.bytes);

/** The font with other records in its naming table, other classes, or further tables. */
function changed(change: {
  records?: (r: NameRecord[]) => NameRecord[];
  weight?: number;
  selection?: number;
  tables?: [string, Uint8Array][];
}): Sfnt {
  const tables = new Map([...font.tables, ...(change.tables ?? [])]);
  if (change.records) tables.set('name', name.write(change.records(name.read(tables.get('name')!))));
  const style = tables.get('OS/2')!.slice();
  const view = new DataView(style.buffer);
  if (change.weight !== undefined) view.setUint16(4, change.weight);
  if (change.selection !== undefined) view.setUint16(62, change.selection);
  tables.set('OS/2', style);
  return readSfnt(writeSfnt(font.version, tables));
}
const named = (id: number, value: string) => (records: NameRecord[]) =>
  records.map((r) => (r.nameID === id ? { ...r, value } : r));

test('a font we cast says what it is and contradicts itself in nothing', () => {
  const facts = readFontFacts(font);
  expect(facts).toMatchObject({
    family: 'Velmarrow Sans',
    style: 'Regular',
    postScriptName: 'VelmarrowSans-Regular',
    weightClass: 400,
    widthClass: 5,
    isRegular: true,
    isBold: false,
    signed: false,
  });
  expect(contradictionsIn(facts)).toEqual([]);
});

test('contradictions are told in words', () => {
  const told = (f: Sfnt) => contradictionsIn(readFontFacts(f)).join(' | ');
  expect(told(changed({ records: named(NAME_ID.subfamily, 'Bold') }))).toMatch(
    /style is “Bold”, but the weight class is 400; 700 is usual.*links as “Bold”, but the font is not marked as bold/,
  );
  expect(told(changed({ records: named(NAME_ID.subfamily, 'Italic') }))).toMatch(/not marked as italic/);
  expect(told(changed({ records: named(NAME_ID.subfamily, 'Narrow') }))).toMatch(
    /“Narrow”, but the width class is 5; 3 is usual.*only Regular, Italic, Bold and Bold Italic can be linked/,
  );
  expect(told(changed({ records: named(NAME_ID.postScript, 'Velmarrow (Sans)') }))).toMatch(
    /characters that are not allowed/,
  );
  expect(told(changed({ records: named(NAME_ID.postScript, 'V'.repeat(64)) }))).toMatch(
    /64 characters long; 63 are allowed/,
  );
  expect(told(changed({ records: named(NAME_ID.version, 'Version 3.500') }))).toMatch(
    /version is “Version 3\.500”, but the font's revision is 1\.000/,
  );
  expect(told(changed({ selection: 1 | (1 << 6) }))).toMatch(/regular and as bold or italic at once/);
  expect(told(changed({ records: (r) => r.filter((x) => x.nameID !== NAME_ID.postScript) }))).toMatch(
    /has no PostScript name/,
  );
});

test('files of one family that are the same style contradict each other', () => {
  const [a, b] = [
    readFontFacts(font),
    readFontFacts(changed({ records: named(NAME_ID.subfamily, 'Bold'), weight: 700 })),
  ];
  expect(contradictionsBetween([a, a]).map((s) => s.length)).toEqual([3, 3]);
  expect(contradictionsBetween([a, a])[0]![0]).toBe('Another file is “Velmarrow Sans Regular” too.');
  expect(contradictionsBetween([a, b])).toEqual([
    ['Another file has the PostScript name “VelmarrowSans-Regular” too.'],
    ['Another file has the PostScript name “VelmarrowSans-Regular” too.'],
  ]);
  expect(contradictionsBetween([a])).toEqual([[]]);
});

test('new names follow from family and style; every other table stays byte for byte', () => {
  const signed = changed({
    tables: [['DSIG', Uint8Array.from([0, 0, 0, 1, 0, 0, 0, 0])]],
    records: (r) => [
      ...r,
      { platformID: 1, encodingID: 0, languageID: 0, nameID: 0, value: 'caf\u00a9' },
      { platformID: 3, encodingID: 1, languageID: 0x407, nameID: 1, value: 'Velmarrow Grotesk' },
    ],
  });
  const renamed = renameFont(signed, { family: 'Orde Grotesque', style: 'Narrow Bold' });
  const after = readSfnt(renamed.bytes);
  expect(readFontFacts(after)).toMatchObject({
    family: 'Orde Grotesque',
    style: 'Narrow Bold',
    linkedFamily: 'Orde Grotesque Narrow Bold',
    linkedStyle: 'Regular',
    fullName: 'Orde Grotesque Narrow Bold',
    postScriptName: 'OrdeGrotesque-NarrowBold',
    weightClass: 700,
    widthClass: 3,
    signed: false,
  });
  expect(contradictionsIn(readFontFacts(after))).toEqual([]);
  expect(renamed.notes).toEqual([
    '1 name in other languages went with what they translate.',
    'The digital signature was dropped; it does not hold for a changed file.',
  ]);
  for (const [tag, bytes] of signed.tables)
    if (!['name', 'head', 'OS/2', 'DSIG'].includes(tag))
      expect([tag, Buffer.compare(Buffer.from(bytes), Buffer.from(after.tables.get(tag)!))]).toEqual([tag, 0]);
  const [before, now] = [head.read(signed.tables.get('head')!), head.read(after.tables.get('head')!)];
  expect({ ...now, checksumAdjustment: 0 }).toEqual({ ...before, checksumAdjustment: 0 });
  expect({ ...os2.read(after.tables.get('OS/2')!), usWeightClass: 400, usWidthClass: 5 }).toEqual(
    os2.read(signed.tables.get('OS/2')!),
  );
  const records = name.read(after.tables.get('name')!);
  expect(records.find((r) => r.platformID === 1 && r.nameID === 0)?.value).toBe('caf\u00a9');
  expect(records.find((r) => r.nameID === NAME_ID.designer)?.value).toBe('The Velmarrow drawing office');
});

test('names in other languages stay while they are true', () => {
  const german: NameRecord[] = [
    { platformID: 3, encodingID: 1, languageID: 0x407, nameID: NAME_ID.family, value: 'Velmarrow Grotesk' },
    { platformID: 3, encodingID: 1, languageID: 0x407, nameID: NAME_ID.subfamily, value: 'Standard' },
  ];
  const source = changed({ records: (r) => [...r, ...german] });
  const foreign = (naming: Parameters<typeof renameFont>[1]) => {
    const { bytes, notes } = renameFont(source, naming);
    return [
      name.read(readSfnt(bytes).tables.get('name')!).flatMap((r) => (r.languageID === 0x407 ? [r.value] : [])),
      notes,
    ];
  };
  expect(foreign({ family: 'Velmarrow Sans', style: 'Regular' })).toEqual([['Velmarrow Grotesk', 'Standard'], []]);
  expect(foreign({ family: 'Orde', style: 'Regular' })).toEqual([
    ['Standard'],
    ['1 name in other languages went with what they translate.'],
  ]);
  expect(foreign({ family: 'Orde', style: 'Bold' })).toEqual([
    [],
    ['2 names in other languages went with what they translate.'],
  ]);
});

test('bold links in its family; anything said outright wins over the rule', () => {
  const bold = readFontFacts(readSfnt(renameFont(font, { family: 'Orde', style: 'Bold Italic' }).bytes));
  expect(bold).toMatchObject({
    linkedFamily: 'Orde',
    linkedStyle: 'Bold Italic',
    isBold: true,
    isItalic: true,
    macBold: true,
    macItalic: true,
    typographicFamily: undefined,
    weightClass: 700,
  });
  const own = renameFont(font, { family: 'Orde', style: 'Bold', postScriptName: 'OrdeX-B', weightClass: 650 });
  expect(readFontFacts(readSfnt(own.bytes))).toMatchObject({
    postScriptName: 'OrdeX-B',
    weightClass: 650,
    family: 'Orde',
  });
});
