import { benchCasting } from './casting';
import { benchDrawing, benchSpacing } from './drawing';
import { benchFonts } from './fonts';
import { benchInterface } from './interface';
import { benchLoading } from './loading';

const wanted = process.argv.slice(2);
const want = (name: string) => wanted.length === 0 || wanted.includes(name);
if (want('casting')) benchCasting();
if (want('drawing')) benchDrawing();
if (want('spacing')) benchSpacing();
if (want('fonts')) await benchFonts();
if (want('loading')) benchLoading();
if (want('interface')) await benchInterface();
