import { mkdirSync, writeFileSync } from 'node:fs';
import { writeProjectFile } from '../src/core/formats/projectFile';
import { buildDemo } from './family';

mkdirSync('public/demo', { recursive: true });
writeFileSync('public/demo/velmarrow-sans.wendril', writeProjectFile(buildDemo()));
