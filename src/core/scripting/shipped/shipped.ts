import { alternatesOfParts } from './alternatesOfParts';
import { cleanUp } from './cleanUp';
import { controlStrings } from './controlStrings';
import { keyCaps } from './keyCaps';
import { namesInOrder } from './namesInOrder';
import { proofTexts } from './proofTexts';
import { roundSides } from './roundSides';
import { rulesFromTable } from './rulesFromTable';
import { spacingByFrequency } from './spacingByFrequency';
import { stemsOfMasters } from './stemsOfMasters';
import { twoMasters } from './twoMasters';
import { wordFinder } from './wordFinder';

/** A script that comes with Wendril: what it does, and its text. */
export type Shipped = { readonly key: string; readonly title: string; readonly does: string; readonly text: string };

/** Every script that comes with Wendril. */
export const SHIPPED: readonly Shipped[] = [
  controlStrings,
  proofTexts,
  rulesFromTable,
  cleanUp,
  namesInOrder,
  roundSides,
  alternatesOfParts,
  stemsOfMasters,
  spacingByFrequency,
  twoMasters,
  keyCaps,
  wordFinder,
];
