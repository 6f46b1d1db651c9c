import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildStarter } from '../../../demo/starter';
import { addSections } from '../features/edits';
import type { Project } from '../project/model';
import { castFont } from './font';

/** What rules say of tables beside layout, in fonts; the general Python font library says the same of the same text. */

const demo: Project = { ...buildStarter(), features: { sections: [], classes: {}, languageSystems: [], included: {} } };
function withRules(text: string): Project {
  const made = addSections(demo, { sections: [{ title: 'Tables', text }] });
  if (!made.ok) throw new Error(made.reason);
  return made.project;
}
const cast = (project: Project) => {
  const font = castFont(project, { flavour: 'ttf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  return font.value;
};
const packed = (bytes: Uint8Array): string => Buffer.from(bytes).toString('base64');

type Tables = Record<string, unknown>;
function judged(
  cases: readonly { text: string; tags: string[]; compare: boolean }[],
): { ours: Tables; theirs: Tables }[] {
  const input = {
    bare: packed(cast(demo).bytes),
    cases: cases.map((c) => ({ ...c, font: packed(cast(withRules(c.text)).bytes) })),
  };
  return JSON.parse(
    execFileSync('/usr/bin/python3', ['src/core/testing/tablesOracle.py'], {
      input: JSON.stringify(input),
      encoding: 'utf8',
      maxBuffer: 1 << 28,
      stdio: ['pipe', 'pipe', 'ignore'],
    }),
  );
}

const STYLES = `table STAT {
  ElidedFallbackName { name "Regular"; name 3 1 0x407 "Normal"; };
  DesignAxis wght 0 { name "Weight"; name 3 1 0x407 "Stärke"; };
  DesignAxis wdth 1 { name "Width"; };
  AxisValue { location wght 400 700; name "Regular"; flag ElidableAxisValueName; };
  AxisValue { location wght 650 600 800; name "Bold"; };
  AxisValue { location wdth 75; name "Narrow"; flag OlderSiblingFontAttribute ElidableAxisValueName; };
  AxisValue { location wght 400; location wdth 75; name "Stub"; };
} STAT;`;

const SAME: readonly (readonly [tags: string[], text: string])[] = [
  [['head'], 'table head { FontRevision 2.500; } head;'],
  [['hhea'], 'table hhea { Ascender 900; Descender -310; LineGap 25; } hhea;'],
  [
    ['OS/2'],
    `table OS/2 { FSType 4; Panose 2 0 5 3 6 0 0 2 0 3; UnicodeRange 0 1 2 33 64 122; CodePageRange 1252 1250 437 874;
      TypoAscender 740; TypoDescender -260; TypoLineGap 90; winAscent 1010; winDescent 290; XHeight 501; CapHeight 702;
      WeightClass 650; WidthClass 3; Vendor "KELP"; LowerOpSize 8; UpperOpSize 14; } OS/2;`,
  ],
  [['vhea'], 'table vhea { VertTypoAscender 500; VertTypoDescender -480; VertTypoLineGap 100; } vhea;'],
  [
    ['BASE'],
    `table BASE { HorizAxis.BaseTagList ideo romn; HorizAxis.BaseScriptList latn romn -120 0, cyrl romn -110 0, DFLT ideo -100 5;
      VertAxis.BaseTagList ideo romn; VertAxis.BaseScriptList latn romn 0 120; } BASE;`,
  ],
  [['STAT'], STYLES],
];

test('head, hhea, OS/2, vhea, BASE and STAT say in fonts what the general Python font library makes of the same text', () => {
  const found = judged(SAME.map(([tags, text]) => ({ tags, text, compare: true })));
  SAME.forEach(([tags, text], i) => {
    expect([
      tags,
      cast(withRules(text)).notes.filter((n) => n.severity !== 'note' && n.reason.includes('Tables')),
    ]).toEqual([tags, []]);
    expect(Object.keys(found[i]!.ours)).toEqual(tags);
    expect([tags, found[i]!.ours]).toEqual([tags, found[i]!.theirs]);
  });
});

test('lines that run down: advances and origins of glyphs by the text, others from the ascender on, one em each', () => {
  const text = 'table vmtx { VertOriginY a 880; VertAdvanceY [a b] 1200; } vmtx;';
  const [found] = judged([{ tags: ['vmtx'], text, compare: false }]);
  const metrics = found!.ours.vmtx as Record<string, [number, number]>;
  expect([metrics.a![0], metrics.b![0], metrics.n![0]]).toEqual([1200, 1200, demo.unitsPerEm]);
  // a and o are of one height; only the origin of a is told.
  const typo = (judged([{ tags: ['OS/2'], text, compare: false }])[0]!.ours['OS/2'] as Record<string, number>)
    .sTypoAscender!;
  expect(metrics.a![1] - metrics.o![1]).toBe(880 - typo);
});

test('what the text says of baselines is sorted as tables need it, with extremes of languages and features', () => {
  const text = `table BASE { HorizAxis.BaseTagList romn hang; HorizAxis.BaseScriptList latn romn 0 700;
    HorizAxis.MinMax latn dflt -250, 950, smcp -100, 600; HorizAxis.MinMax latn VIT -300, 1100; } BASE;`;
  const [found] = judged([{ tags: [], text, compare: false }]);
  expect(found!.ours.BASE).toEqual([{ latn: ['romn', { hang: 700, romn: 0 }] }, null]);
});

test('what a table cannot hold is told at its line, and the rest of the block stands', () => {
  for (const [text, wanted] of [
    ['table OS/2 { WeightClass 0; XHeight 500; } OS/2;', '“WeightClass” has one whole number from 1 to 1000.'],
    ['table OS/2 { Vendor "TOOLONG"; } OS/2;', '“Vendor” has up to four plain letters in quotation marks.'],
    ['table OS/2 { CodePageRange 1252 12; } OS/2;', '“CodePageRange” has no 12.'],
    ['table OS/2 { Panose 1 2 3; } OS/2;', '“Panose” has ten whole numbers from 0 to 255.'],
    ['table hhea { Ascender 90000; } hhea;', '“Ascender” has one whole number from -32768 to 32767.'],
    ['table head { FontRevision 99999; } head;', '“FontRevision” has one number, as 1.002.'],
    ['table STAT { AxisValue { location wght 4; name "x"; }; } STAT;', 'A STAT table has a DesignAxis at least.'],
    [
      'table STAT { DesignAxis wght 0 { name "W"; }; AxisValue { location wdth 4; name "x"; }; } STAT;',
      'The axis wdth has no DesignAxis in this table.',
    ],
    [
      'table STAT { DesignAxis wght 0 { name "W"; }; AxisValue { location wght 4; }; } STAT;',
      '“AxisValue” has a name.',
    ],
    [
      'table BASE { HorizAxis.BaseTagList romn hang; HorizAxis.BaseScriptList latn romn 0; } BASE;',
      'A script has its tag, one of the baselines romn hang, and 2 places.',
    ],
    [
      'table BASE { HorizAxis.MinMax latn dflt 5; } BASE;',
      '“MinMax” has a script, a language, the least and the greatest place.',
    ],
  ] as const) {
    const { notes } = cast(withRules(text));
    expect([text, notes.map((n) => n.reason)]).toEqual([
      text,
      expect.arrayContaining([expect.stringContaining(wanted)]),
    ]);
  }
});

test('fonts with all of these tables pass the sanitizer, in both kinds of outline', () => {
  const all = [...SAME.map(([, text]) => text), 'table vmtx { VertOriginY [a b] 880; } vmtx;'].join('\n');
  const folder = mkdtempSync(join(tmpdir(), 'wendril-said-'));
  for (const flavour of ['ttf', 'otf'] as const) {
    const font = castFont(withRules(all), { flavour, place: { master: 'm1' } });
    const path = join(folder, `said.${flavour}`);
    writeFileSync(path, font.ok ? font.value.bytes : new Uint8Array());
    const run = spawnSync('ots-sanitize', [path], { encoding: 'utf8' });
    expect([flavour, run.status, run.stderr]).toEqual([flavour, 0, expect.any(String)]);
  }
  rmSync(folder, { recursive: true });
});
