import { styleNames } from '../fontfacts/names';
import { plannedFaults, postScriptFault } from './planned';

const named = (family: string, style: string, info = {}) =>
  styleNames({ family: { name: family, versionMajor: 1, versionMinor: 0, names: {} } }, { name: style, info });

test('files that would become one are told, each by the other’s name; a family that is right has no faults', () => {
  const right = { 'a.otf': named('Orde', 'Regular'), 'b.otf': named('Orde', 'Bold'), 'c.otf': named('Orde', 'Black') };
  expect(plannedFaults(right)).toEqual({ 'a.otf': [], 'b.otf': [], 'c.otf': [] });
  const twice = plannedFaults({ ...right, 'd.otf': named('Orde', 'Bold') });
  expect(twice['d.otf']).toEqual([
    'Programs would take it and b.otf for one font: both have the PostScript name “Orde-Bold”.',
  ]);
  expect(twice['b.otf']![0]).toContain('d.otf');
  const linked = plannedFaults({
    'a.otf': named('Orde', 'Regular'),
    'b.otf': named('Orde', 'Text', { styleMapFamilyName: 'Orde', styleMapStyleName: 'regular' }),
  });
  expect(linked['b.otf']).toEqual(['It and a.otf would both be the Regular of “Orde”.']);
});

test('what a PostScript name may be', () => {
  expect(postScriptFault('Orde-BoldItalic')).toBeUndefined();
  expect(postScriptFault('')).toMatch(/needs/);
  expect(postScriptFault('Orde (Bold)')).toBe('A PostScript name cannot have a blank, “(”, “)”.');
  expect(postScriptFault('Ördé')).toContain('“Ö”');
  expect(postScriptFault('x'.repeat(64))).toContain('64 characters');
});
