import { type Repeats, repeats } from './suffixes';

/** Charstrings with what they share taken out; the shared parts by the numbers they are called by, in two lists. */
export type Shared = { charstrings: Uint8Array[]; global: Uint8Array[]; local: Uint8Array[] };

const CALLSUBR = 10;
const CALLGSUBR = 29;
const RETURN = 11;
const ENDCHAR = 14;
/** Calls go ten deep at most (Adobe Technical Note 5177, appendix B). */
const DEEPEST = 9;
/** What a call takes as a rule, and what a subroutine takes besides its body: its offset and its return. */
const CALL = 2.4;
const KEEPING = 3;
/** Beyond so many bytes pieces are whole operators: a little larger, in a fraction of the time. */
const MANY_BYTES = 1_000_000;
/**
 * Steps of parsing that all candidates together may cost a round: their lengths times how many begin at one place. Fonts
 * of thousands of glyphs need some millions; what repeats without end, as one shape set ten thousand times, would need
 * thousands of millions. The longest candidates are left out then.
 */
const MOST_STEPS = 60_000_000;
/** Rounds in which prices and uses settle. */
const ROUNDS = 6;

/**
 * Finds what charstrings share. Every stretch that repeats is a candidate; each charstring, and each candidate itself, is
 * written the cheapest way (dynamic programming), a call costing its bytes and the candidate's share in what keeping it costs,
 * by how often it was used the time before. What does not pay in the end is left out. The method is that of weighted
 * parsing with a dictionary that settles by iteration (Fraser, Wendt and Myers, "Analyzing and compressing assembly code",
 * 1984, for the repeats). Pieces are single numbers and operators, whole operators in the largest fonts; charstrings may hold no hint masks. The same input gives
 * the same output.
 */
export function shareSubroutines(charstrings: readonly Uint8Array[]): Shared {
  const text = new PieceText(charstrings);
  const found = repeats(
    text.numbers,
    ({ at, length, count }) => length > 0 && worth(text.bytesOf(at, at + length), count) > 0,
  );
  const book = new Book(text, found);
  for (let round = 0; round < ROUNDS; round++) book.settle(round > 0);
  book.dropWhatDoesNotPay();
  return book.write();
}

/** What taking a stretch out saves at most, in bytes. */
const worth = (bytes: number, uses: number): number => uses * (bytes - CALL) - bytes - KEEPING;

/** All charstrings one after the other as numbers of their pieces, a number of its own after each. */
class PieceText {
  readonly pieces: Uint8Array[] = [];
  readonly numbers: Int32Array;
  /** From where to where each charstring lies. */
  readonly spans: [from: number, to: number][] = [];
  private readonly sums: Int32Array;
  /** Pieces are whole operators with their arguments. */
  readonly whole: boolean;

  constructor(charstrings: readonly Uint8Array[]) {
    this.whole = charstrings.reduce((sum, b) => sum + b.length, 0) > MANY_BYTES;
    const known = new Map<string, number>();
    const all: number[] = [];
    const ends: number[] = [];
    for (const bytes of charstrings) {
      const from = all.length;
      for (const piece of piecesOf(bytes, this.whole)) {
        const key = piece.join();
        let number = known.get(key);
        if (number === undefined) {
          number = this.pieces.push(piece) - 1;
          known.set(key, number);
        }
        all.push(number);
      }
      this.spans.push([from, all.length]);
      ends.push(all.length);
      all.push(0);
    }
    // Ends are told apart from pieces and from each other, so that nothing repeats across them.
    ends.forEach((at, i) => {
      all[at] = this.pieces.length + i;
    });
    this.numbers = Int32Array.from(all);
    this.sums = new Int32Array(all.length + 1);
    all.forEach((number, i) => {
      this.sums[i + 1] = this.sums[i]! + (this.pieces[number]?.length ?? 0);
    });
  }

  bytesOf(from: number, to: number): number {
    return this.sums[to]! - this.sums[from]!;
  }
}

/** A charstring cut after every number and operator (what waits on the stack is kept across calls), or after operators only. */
function piecesOf(bytes: Uint8Array, whole: boolean): Uint8Array[] {
  const out: Uint8Array[] = [];
  let from = 0;
  for (let i = 0; i < bytes.length; ) {
    const b = bytes[i]!;
    const isNumber = b === 28 || b >= 32;
    if (b === 28) i += 3;
    else if (b === 255) i += 5;
    else if (b >= 247 || b === 12) i += 2;
    else i += 1;
    if (isNumber && whole) continue;
    out.push(bytes.subarray(from, i));
    from = i;
  }
  return out;
}

/** The candidates with their prices, and how text is written with them. */
class Book {
  private readonly price: Float64Array;
  private readonly depth: Uint8Array;
  private readonly body: Float64Array;
  private readonly out: Uint8Array;
  /** Candidates by length, so that what a body may hold comes before it. */
  private readonly rising: Int32Array;
  private best: Float64Array;
  private step: Int32Array;

  constructor(
    private readonly text: PieceText,
    private readonly found: Repeats,
  ) {
    const { list } = found;
    this.price = Float64Array.from(
      list,
      ({ at, length, count }) => CALL + (text.bytesOf(at, at + length) + KEEPING) / count,
    );
    this.body = new Float64Array(list.length);
    this.depth = new Uint8Array(list.length);
    this.out = new Uint8Array(list.length);
    this.rising = Int32Array.from(list, (_, i) => i).sort((a, b) => list[a]!.length - list[b]!.length || a - b);
    this.best = new Float64Array(text.numbers.length + 1);
    this.step = new Int32Array(text.numbers.length + 1);
    this.keepWithin(MOST_STEPS);
  }

  /** Leaves out the longest candidates where all together would cost more than so many steps. */
  private keepWithin(most: number): void {
    const { list, shorter } = this.found;
    const nested = new Int32Array(list.length);
    let steps = 0;
    for (const c of this.rising) {
      nested[c] = 1 + (shorter[c]! >= 0 ? nested[shorter[c]!]! : 0);
      steps += list[c]!.length * nested[c]!;
      if (steps > most) this.out[c] = 1;
    }
    if (steps > most) this.relink();
  }

  /** The cheapest way to write a stretch; leaves in `step` for each place the candidate called there, or -1. `own` is not called. */
  private parse(from: number, to: number, own: number): number {
    const { best, step, price, depth, out, text, found } = this;
    best[to] = 0;
    for (let i = to - 1; i >= from; i--) {
      let cost = text.pieces[text.numbers[i]!]!.length + best[i + 1]!;
      let call = -1;
      for (let c = found.deepest[i]!; c >= 0; c = found.shorter[c]!) {
        const end = i + found.list[c]!.length;
        if (end > to || c === own || out[c] === 1 || depth[c]! > DEEPEST - (own >= 0 ? 1 : 0)) continue;
        const called = price[c]! + best[end]!;
        if (called < cost) {
          cost = called;
          call = c;
        }
      }
      best[i] = cost;
      step[i] = call;
    }
    return best[from]!;
  }

  /** The candidates that a stretch calls as it was parsed last. */
  private calls(from: number, to: number): number[] {
    const out: number[] = [];
    for (let i = from; i < to; ) {
      const call = this.step[i]!;
      if (call >= 0) out.push(call);
      i += call >= 0 ? this.found.list[call]!.length : 1;
    }
    return out;
  }

  /** Writes everything by the prices there are; tells how often each candidate is used, by charstrings and by used candidates. */
  private uses(): Int32Array {
    const { list } = this.found;
    const uses = new Int32Array(list.length);
    const within: number[][] = new Array(list.length);
    for (const c of this.rising) {
      if (this.out[c]) continue;
      const { at, length } = list[c]!;
      this.depth[c] = 0;
      this.body[c] = this.parse(at, at + length, c);
      within[c] = this.calls(at, at + length);
      this.depth[c] = within[c]!.reduce((deep, inner) => Math.max(deep, this.depth[inner]! + 1), 1);
    }
    for (const [from, to] of this.text.spans) {
      this.parse(from, to, -1);
      for (const c of this.calls(from, to)) uses[c]!++;
    }
    for (let i = this.rising.length - 1; i >= 0; i--) {
      const c = this.rising[i]!;
      if (uses[c]! > 0) for (const inner of within[c]!) uses[inner]!++;
    }
    return uses;
  }

  /** Prices anew from how often each candidate was used; halfway to them, so that they settle. With `thin` the unused ones go. */
  settle(thin: boolean): void {
    const uses = this.uses();
    this.price.forEach((was, c) => {
      if (thin && uses[c] === 0) this.out[c] = 1;
      const now = CALL + (this.body[c]! + KEEPING) / Math.max(1, uses[c]!);
      this.price[c] = (was + now) / 2;
    });
    if (thin) this.relink();
  }

  /** Takes candidates that are out off the chains that are walked at every place. */
  private relink(): void {
    const { shorter, deepest } = this.found;
    // What is longer comes after what it holds.
    for (const c of this.rising) while (shorter[c]! >= 0 && this.out[shorter[c]!]) shorter[c] = shorter[shorter[c]!]!;
    deepest.forEach((c, i) => {
      if (c >= 0 && this.out[c]) deepest[i] = shorter[c]!;
    });
  }

  /** Leaves out what is not used, then what costs more than it saves, the worst first. From here on a call costs its bytes. */
  dropWhatDoesNotPay(): void {
    for (let round = 0; round < 60; round++) {
      const uses = this.uses();
      if (round === 0) this.price.fill(CALL);
      const live = [...this.rising].filter((c) => !this.out[c]);
      const idle = live.filter((c) => uses[c]! < 2);
      const saving = (c: number) => uses[c]! * (this.body[c]! - CALL) - this.body[c]! - KEEPING;
      const losing = live.filter((c) => uses[c]! >= 2 && saving(c) <= 0).sort((a, b) => saving(a) - saving(b) || a - b);
      const going = idle.length > 0 ? idle : losing.slice(0, Math.max(1, Math.ceil(losing.length * 0.3)));
      if (going.length === 0) return;
      for (const c of going) this.out[c] = 1;
    }
  }

  write(): Shared {
    const { list } = this.found;
    const uses = this.uses();
    const kept = [...this.rising]
      .filter((c) => !this.out[c] && uses[c]! > 1)
      .sort((a, b) => uses[b]! - uses[a]! || a - b);
    // The most used in turn to both lists: each has as many numbers of one byte.
    const places = new Map(kept.map((c, i) => [c, { local: i % 2 === 1, turn: i >> 1 }]));
    const sizes = [Math.ceil(kept.length / 2), Math.floor(kept.length / 2)] as const;
    const slots = sizes.map(slotsFor);
    const operand = (c: number): number => {
      const { local, turn } = places.get(c)!;
      return slots[local ? 1 : 0]![turn]! - biasOf(sizes[local ? 1 : 0]);
    };
    const bytesOf = (from: number, to: number, own: number): number[] => {
      this.parse(from, to, own);
      const out: number[] = [];
      for (let i = from; i < to; ) {
        const call = this.step[i]!;
        if (call >= 0) out.push(...numberBytes(operand(call)), places.get(call)!.local ? CALLSUBR : CALLGSUBR);
        else out.push(...this.text.pieces[this.text.numbers[i]!]!);
        i += call >= 0 ? list[call]!.length : 1;
      }
      return out;
    };
    for (const c of this.rising) if (!places.has(c)) this.out[c] = 1;
    const lists: [Uint8Array[], Uint8Array[]] = [new Array(sizes[0]), new Array(sizes[1])];
    for (const c of kept) {
      const { at, length } = list[c]!;
      const { local, turn } = places.get(c)!;
      const bytes = bytesOf(at, at + length, c);
      lists[local ? 1 : 0][slots[local ? 1 : 0]![turn]!] = Uint8Array.from(
        this.endsGlyph(at + length - 1) ? bytes : [...bytes, RETURN],
      );
    }
    const charstrings = this.text.spans.map(([from, to]) => Uint8Array.from(bytesOf(from, to, -1)));
    return { charstrings, global: lists[0], local: lists[1] };
  }

  /** Whether the piece at a place ends the glyph, so that nothing returns from what ends with it. */
  private endsGlyph(at: number): boolean {
    const piece = this.text.pieces[this.text.numbers[at]!]!;
    return piece[piece.length - 1] === ENDCHAR && (piece.length === 1 || this.text.whole);
  }
}

/** What is added to the number in a call (Adobe Technical Note 5177, 4.7). */
const biasOf = (count: number): number => (count < 1240 ? 107 : count < 33900 ? 1131 : 32768);

/** The numbers of a list, those that are written in one byte first. */
const slotsFor = (count: number): number[] =>
  Array.from({ length: count }, (_, i) => i).sort(
    (a, b) => Math.abs(a - biasOf(count)) - Math.abs(b - biasOf(count)) || a - b,
  );

function numberBytes(v: number): number[] {
  if (v >= -107 && v <= 107) return [v + 139];
  if (v >= 108 && v <= 1131) return [247 + ((v - 108) >> 8), (v - 108) & 255];
  if (v >= -1131 && v <= -108) return [251 + ((-v - 108) >> 8), (-v - 108) & 255];
  return [28, (v >> 8) & 255, v & 255];
}
