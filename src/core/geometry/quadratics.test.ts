import fc from 'fast-check';
import { pointAt } from './curve';
import { cubicToQuadratics, quadraticsNeeded } from './quadratics';
import { cubic } from './testShapes';

test('quadratics stay within the tolerance, and the error told is the error there is', () => {
  fc.assert(
    fc.property(cubic, fc.constantFrom(0.25, 0.5, 1, 4), (c, tolerance) => {
      const { offs, error } = cubicToQuadratics(c, tolerance);
      const n = offs.length / 2;
      expect(error).toBeLessThanOrEqual(tolerance + 1e-9);
      let worst = 0;
      let x = c[0]!;
      let y = c[1]!;
      for (let i = 0; i < n; i++) {
        const last = i === n - 1;
        const ex = last ? c[6]! : (offs[2 * i]! + offs[2 * i + 2]!) / 2;
        const ey = last ? c[7]! : (offs[2 * i + 1]! + offs[2 * i + 3]!) / 2;
        const quadratic = [x, y, offs[2 * i]!, offs[2 * i + 1]!, ex, ey];
        for (let k = 0; k <= 20; k++) {
          const [px, py] = pointAt(quadratic, k / 20);
          const [qx, qy] = pointAt(c, (i + k / 20) / n);
          worst = Math.max(worst, Math.hypot(px - qx, py - qy));
        }
        x = ex;
        y = ey;
      }
      expect(worst).toBeLessThanOrEqual(error + 1e-6);
      expect(worst).toBeGreaterThan(error * 0.9 - 1e-6);
    }),
  );
});

test('a raised quadratic becomes one quadratic again', () => {
  const { offs, error } = cubicToQuadratics([0, 0, 40, 80, 80, 80, 120, 0], 0.5);
  expect(offs).toEqual([60, 120]);
  expect(error).toBeCloseTo(0, 9);
});

test('curves that must agree get as many pieces as the hardest of them needs', () => {
  fc.assert(
    fc.property(cubic, cubic, fc.constantFrom(0.25, 0.5, 2), (a, b, tolerance) => {
      const pieces = Math.max(quadraticsNeeded(a, tolerance), quadraticsNeeded(b, tolerance));
      const [first, second] = [a, b].map((c) => cubicToQuadratics(c, tolerance, pieces));
      expect(first!.offs).toHaveLength(second!.offs.length);
      expect(Math.max(first!.error, second!.error)).toBeLessThanOrEqual(tolerance + 1e-9);
      expect(cubicToQuadratics(a, tolerance).offs).toHaveLength(2 * quadraticsNeeded(a, tolerance));
    }),
  );
});
