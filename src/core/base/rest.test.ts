import { restEvery } from './rest';

test('long work rests once its time has passed, and not before; what waits goes first then', async () => {
  let now = 1000;
  const clock = jest.spyOn(Date, 'now').mockImplementation(() => now);
  try {
    const breathe = restEvery(15);
    const order: string[] = [];
    const waits = () => setTimeout(() => order.push('what waits'), 0);
    const work = async (name: string, milliseconds: number) => {
      now += milliseconds;
      order.push(name);
      await breathe();
    };
    waits();
    await work('first', 8);
    await work('second', 6);
    expect(order).toEqual(['first', 'second']);
    await work('third', 1);
    expect(order).toEqual(['first', 'second', 'third', 'what waits']);
    // Counted anew from the rest on.
    waits();
    await work('fourth', 14);
    expect(order).toHaveLength(5);
    await work('fifth', 1);
    expect(order.slice(4)).toEqual(['fourth', 'fifth', 'what waits']);
  } finally {
    clock.mockRestore();
  }
});
