import { benchCasting } from './casting';
import { benchComposing } from './composing';
import { benchDrawing, benchSpacing } from './drawing';
import { benchFeatures } from './features';
import { benchFitting } from './fitting';
import { benchFonts } from './fonts';
import { benchInterface } from './interface';
import { benchLoading } from './loading';
import { benchMarks } from './marks';
import { benchStorage } from './storage';
import { benchVariable } from './variable';
import { benchVariation } from './variation';

const wanted = process.argv.slice(2);
const want = (name: string) => wanted.length === 0 || wanted.includes(name);
if (want('casting')) benchCasting();
if (want('composing')) await benchComposing();
if (want('features')) benchFeatures();
if (want('masters')) benchVariation();
if (want('variable')) benchVariable();
if (want('drawing')) benchDrawing();
if (want('spacing')) benchSpacing();
if (want('fonts')) await benchFonts();
if (want('loading')) benchLoading();
if (want('storage')) await benchStorage();
if (want('interface')) await benchInterface();
// Takes the fonts to compare with: npm run bench fitting FONT…
if (wanted[0] === 'fitting') await benchFitting(wanted.slice(1));
if (wanted[0] === 'marks') benchMarks(wanted.slice(1));
