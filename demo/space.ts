import { writeFileSync } from 'node:fs';
import { buildUnspaced } from './family';
import { fitByModel, kernByModel, type Spacing, withSides } from './spacing';

/** Fits and kerns the family by Wendril's own proposals, and keeps what comes of it. */
const drawn = buildUnspaced();
const sides = fitByModel(drawn);
const spacing: Spacing = { sides, kerning: kernByModel(withSides(drawn, sides)) };
writeFileSync('demo/spacing.json', `${JSON.stringify(spacing)}\n`);
