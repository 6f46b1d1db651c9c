import { buildItalic } from '../../../demo/italic';
import { readyDemo } from '../../../demo/ready';
import type { Format } from './outputs';
import { styleSheet } from './styleSheet';
import { type CastThing, namesOfThing, thingsOf } from './things';

const demo = readyDemo();
const file = (thing: CastThing, format: Format) => ({
  thing,
  format,
  fileName: `${namesOfThing(demo, thing)!.fileName}.${format}`,
});
const named = (name: string): CastThing => ({ instance: demo.instances.findIndex((i) => i.name === name) });
const [variable] = thingsOf(demo).variable;

test('each style has a rule with its weight, its width and its files, WOFF2 first', () => {
  const css = styleSheet(demo, [
    file(named('Narrow Bold'), 'woff'),
    file(named('Narrow Bold'), 'woff2'),
    file(named('Regular'), 'otf'),
    file(named('Regular'), 'woff2'),
  ])!;
  expect(css.match(/@font-face/g)).toHaveLength(2);
  expect(css).toContain(
    "@font-face {\n  font-family: 'Velmarrow Sans';\n  font-style: normal;\n  font-weight: 700;\n  font-stretch: 75%;\n  font-display: swap;\n  src: url('VelmarrowSans-NarrowBold.woff2') format('woff2'),\n    url('VelmarrowSans-NarrowBold.woff') format('woff');\n}",
  );
  expect(css).toContain("font-weight: 400;\n  font-display: swap;\n  src: url('VelmarrowSans-Regular.woff2')");
  expect(css).not.toContain('.otf');
});

test('a font that varies tells its ranges; beside single styles it has a name of its own', () => {
  const alone = styleSheet(demo, [file(variable!, 'woff2')])!;
  expect(alone).toContain("font-family: 'Velmarrow Sans';");
  expect(alone).toContain('font-weight: 300 800;');
  expect(alone).toContain('font-stretch: 75% 100%;');
  const beside = styleSheet(demo, [file(variable!, 'woff2'), file(named('Bold'), 'woff2')])!;
  expect(beside).toContain("font-family: 'Velmarrow Sans Variable';");
  expect(beside).toContain("font-family: 'Velmarrow Sans';");
});

test('italics say so; names are made safe; without web fonts there is none', () => {
  const italic = buildItalic(demo);
  const odd = { ...italic, family: { ...italic.family, name: "Orde's" } };
  const css = styleSheet(odd, [{ thing: { master: 'm1' }, format: 'woff2', fileName: "O'x.woff2" }])!;
  expect(css).toContain('font-style: italic;');
  expect(css).toContain("font-family: 'Orde\\'s';");
  expect(css).toContain("url('O\\'x.woff2')");
  expect(styleSheet(demo, [file(named('Bold'), 'otf')])).toBeUndefined();
});
