import { mkdirSync, writeFileSync } from 'node:fs';
import { writeProjectFile } from '../src/core/formats/project/projectFile';
import { buildDemo } from './family';
import { buildItalic } from './italic';
import { writePng } from './sheets/png';
import { drawSheet, SHEETS } from './sheets/sheets';

/** Pixels to the inch of the sheets that go with the demo. */
const RESOLUTION = 150;

mkdirSync('public/demo/sheets', { recursive: true });
const demo = buildDemo();
writeFileSync('public/demo/velmarrow-sans.wendril', writeProjectFile(demo));
writeFileSync('public/demo/velmarrow-sans-italic.wendril', writeProjectFile(buildItalic(demo)));
for (const sheet of SHEETS)
  writeFileSync(`public/demo/sheets/${sheet.name}.png`, writePng(drawSheet(sheet, RESOLUTION)));
