/** Work of which only some is done at a time; the rest waits its turn. */
export class Slots {
  private running = 0;
  private readonly waiting: { begin: () => void; gone: boolean }[] = [];

  constructor(
    private readonly most: number,
    /** More than this may not wait. */
    private readonly mostWaiting: number,
  ) {}

  get isFull(): boolean {
    return this.waiting.filter((w) => !w.gone).length >= this.mostWaiting;
  }

  /**
   * Does work when its turn comes. `stop` ends it: what waits never begins, what runs is told to end, by the function that `work` gives
   * beside its promise. The result is undefined where it was stopped.
   */
  run<T>(work: () => { done: Promise<T>; stop: () => void }): { done: Promise<T | undefined>; stop: () => void } {
    let end: (() => void) | undefined;
    const turn = { begin: () => {}, gone: false };
    const done = new Promise<T | undefined>((resolve, reject) => {
      turn.begin = () => {
        if (turn.gone) {
          resolve(undefined);
          this.next();
          return;
        }
        this.running++;
        const own = work();
        end = own.stop;
        own.done.then(resolve, reject).finally(() => {
          this.running--;
          this.next();
        });
      };
      this.waiting.push(turn);
    });
    this.next();
    return {
      done,
      stop: () => {
        turn.gone = true;
        end?.();
      },
    };
  }

  private next(): void {
    while (this.running < this.most) {
      const turn = this.waiting.shift();
      if (!turn) return;
      turn.begin();
    }
  }
}
