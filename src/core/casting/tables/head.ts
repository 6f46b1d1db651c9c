import { statedFields } from '../../fontfacts/stated';
import type { Box } from '../../geometry/curve';
import { EPOCH_1904, type Head, head } from '../../opentype/head';
import type { CastPlan } from '../plan';
import { roundedBox } from '../shape';

/** `head`: em, box, dates (the project's, never the clock) and style bits. */
export function headTable(
  { project, master, names }: CastPlan,
  fontBox: Box,
  { indexToLocFormat, fontRevision }: { indexToLocFormat: 0 | 1; fontRevision: number | undefined },
): Uint8Array {
  const date = project.created + EPOCH_1904;
  return head.write({
    majorVersion: 1,
    minorVersion: 0,
    fontRevision: fontRevision ?? project.family.versionMajor + project.family.versionMinor / 1000,
    checksumAdjustment: 0,
    magicNumber: 0x5f0f3cf5,
    // Baseline at y = 0; left side bearings at x = 0 in the outlines as stored.
    flags: 0b11,
    unitsPerEm: project.unitsPerEm,
    created: date,
    modified: date,
    ...roundedBox(fontBox),
    macStyle: names.macStyle,
    lowestRecPPEM: 6,
    fontDirectionHint: 2,
    ...statedFields<Head>(master.info, 'head'),
    indexToLocFormat,
    glyphDataFormat: 0,
  });
}
