import { buildDemo } from './family';
import { readyDemo } from './ready';

test('the demo that is kept ready is the one that is built, and one for all who ask', () => {
  const ready = readyDemo();
  expect(ready).toEqual(buildDemo());
  expect(readyDemo()).toBe(ready);
});
