// Writes docs/scripts.md anew from the declarations of what scripts can name; what stands before them is kept.
import { readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { bundle } from './bundle.mjs';

const file = 'docs/scripts.md';
const made = await bundle('src/sandbox/reference.ts', 'reference.mjs');
const { referenceText } = await import(pathToFileURL(made).href);
const before = readFileSync(file, 'utf8').split('## What stands by itself')[0];
writeFileSync(file, before + referenceText());
