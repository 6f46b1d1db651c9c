/** Something that is asked by name; the stamp of an answer is equal only as long as the answer is the same. */
export type Answering = { readonly what: string; stamp(name: string): unknown };

/** What was asked of names while a section was read, and what they stood for: it reads alike while they stand for the same. */
export class Asked {
  private readonly answers = new Map<string, { of: string; name: string; stamp: unknown }>();
  private readonly own = new Set<string>();
  private spoilt = false;

  note(of: Answering, name: string): void {
    const key = `${of.what} ${name}`;
    if (!this.own.has(key) && !this.answers.has(key))
      this.answers.set(key, { of: of.what, name, stamp: of.stamp(name) });
  }

  /** The section gives the name its meaning itself from here on. */
  given(of: Answering, name: string): void {
    this.own.add(`${of.what} ${name}`);
  }

  /** Something was asked that may be answered otherwise the next time. */
  spoil(): void {
    this.spoilt = true;
  }

  get isSound(): boolean {
    return !this.spoilt;
  }

  /** Would those of the same kinds, as they are now, give the same answers? */
  holds(now: readonly Answering[]): boolean {
    const by = new Map(now.map((t) => [t.what, t]));
    for (const { of, name, stamp } of this.answers.values()) if (by.get(of)?.stamp(name) !== stamp) return false;
    return true;
  }
}

/** Who listens to what is asked, if anyone does. */
export type Listener = { asked?: Asked | undefined };

/** Names of one kind with what they stand for; tells {@link Asked} which were asked for. */
export class NameTable<T> implements Answering {
  private readonly by = new Map<string, T>();

  /** `stampOf` gives something equal only as long as what a name stands for is the same; usually the thing itself. */
  constructor(
    readonly what: string,
    private readonly listener: Listener,
    private readonly stampOf: (value: T) => unknown = (value) => value,
  ) {}

  stamp(name: string): unknown {
    const value = this.by.get(name);
    return value === undefined ? undefined : this.stampOf(value);
  }

  get(name: string): T | undefined {
    this.listener.asked?.note(this, name);
    return this.by.get(name);
  }

  has(name: string): boolean {
    return this.get(name) !== undefined;
  }

  set(name: string, value: T): void {
    this.listener.asked?.given(this, name);
    this.by.set(name, value);
  }

  entries(): IterableIterator<[string, T]> {
    return this.by.entries();
  }
}
