import { readyDemo } from '../demo/ready';
import { castFont } from '../src/core/casting/font';

/** The demo as one font that varies: the first in a process, and the next. */
const demo = readyDemo();
const cast = () => {
  const started = performance.now();
  const font = castFont(demo, { flavour: 'ttf', place: { master: 'm1' }, variable: true });
  if (!font.ok) throw new Error(font.reason);
  return { took: performance.now() - started, bytes: font.value.bytes.length };
};
const [first, next] = [cast(), cast()];
console.log(JSON.stringify({ cold: first.took, warm: next.took, bytes: first.bytes, glyphs: demo.glyphOrder.length }));
