import { GPOS_EXTENSION } from '../opentype/gpos';
import { GSUB_EXTENSION } from '../opentype/gsub';
import { writeLayout } from '../opentype/layout/lists';
import type { CompiledTable } from './compile';

/** A table of rules as bytes; undefined where there is none. */
export const writeRules = (table: CompiledTable, tag: 'GSUB' | 'GPOS'): Uint8Array | undefined =>
  table.lookups.length === 0 && table.features.length === 0
    ? undefined
    : writeLayout(table, tag === 'GSUB' ? GSUB_EXTENSION : GPOS_EXTENSION);
