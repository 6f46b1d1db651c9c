/** Charstrings with what they share taken out, and the shared parts in the order they are called by number. */
export type Shared = { charstrings: Uint8Array[]; subroutines: Uint8Array[] };

const CALLGSUBR = 29;
const RETURN = 11;
const ENDCHAR = 14;
/** Calls go ten deep at most (Adobe Technical Note 5177, appendix B). */
const DEEPEST = 9;
/** A call's number and operator, and what a subroutine costs besides its body: its offset and its return. */
const CALL = 2.6;
const KEEPING = 3;

/** One rule of the grammar: symbols below `terminals` stand for a piece of charstring, others for further rules. */
type Rule = { body: number[] };

/**
 * Finds what charstrings share, by pair replacement: the commonest two neighbours become one symbol, over and over (Larsson
 * and Moffat, "Offline dictionary-based compression", 1999); then rules that do not pay for their calls are written out again.
 * Pieces are whole operators with their arguments. Charstrings may hold no hint masks. The same input gives the same output.
 */
export function shareSubroutines(charstrings: readonly Uint8Array[]): Shared {
  const pieces: Uint8Array[] = [];
  const numbers = new Map<string, number>();
  const sequences = charstrings.map((bytes) =>
    piecesOf(bytes).map((piece) => {
      const key = piece.join();
      let number = numbers.get(key);
      if (number === undefined) {
        number = pieces.push(piece) - 1;
        numbers.set(key, number);
      }
      return number;
    }),
  );
  const terminals = pieces.length;
  const rules = replacePairs(sequences, terminals);
  const grammar = new Grammar(pieces, sequences, rules);
  grammar.prune();
  return grammar.write();
}

/** A charstring cut after every operator. */
function piecesOf(bytes: Uint8Array): Uint8Array[] {
  const out: Uint8Array[] = [];
  let start = 0;
  for (let i = 0; i < bytes.length; ) {
    const b = bytes[i]!;
    if (b === 28) i += 3;
    else if (b === 255) i += 5;
    else if (b >= 247) i += 2;
    else if (b >= 32) i += 1;
    else {
      i += b === 12 ? 2 : 1;
      out.push(bytes.subarray(start, i));
      start = i;
    }
  }
  if (start < bytes.length) out.push(bytes.subarray(start));
  return out;
}

/** Replaces repeated neighbours by new symbols until none is left; sequences are changed in place. */
function replacePairs(sequences: number[][], terminals: number): Rule[] {
  const rules: Rule[] = [];
  const SPAN = 2 ** 26;
  for (let round = 0; round < 200; round++) {
    const counts = new Map<number, number>();
    for (const s of sequences) {
      let before = -1;
      for (let i = 0; i + 1 < s.length; i++) {
        const pair = s[i]! * SPAN + s[i + 1]!;
        // Of three alike, only one pair can be replaced.
        if (pair === before) before = -1;
        else {
          counts.set(pair, (counts.get(pair) ?? 0) + 1);
          before = pair;
        }
      }
    }
    let most = 1;
    for (const n of counts.values()) if (n > most) most = n;
    if (most < 2) break;
    const least = Math.max(2, Math.ceil(most * 0.7));
    const chosen = new Map<number, number>();
    for (const [pair, n] of counts) if (n >= least) chosen.set(pair, -1);
    for (const s of sequences) {
      let to = 0;
      for (let i = 0; i < s.length; i++) {
        const pair = i + 1 < s.length ? s[i]! * SPAN + s[i + 1]! : -1;
        let symbol = chosen.get(pair);
        if (symbol === undefined) s[to++] = s[i]!;
        else {
          if (symbol < 0) {
            symbol = terminals + rules.push({ body: [s[i]!, s[i + 1]!] }) - 1;
            chosen.set(pair, symbol);
          }
          s[to++] = symbol;
          i++;
        }
      }
      s.length = to;
    }
  }
  return rules;
}

class Grammar {
  private readonly terminals: number;
  private readonly live: boolean[];

  constructor(
    private readonly pieces: readonly Uint8Array[],
    private readonly sequences: number[][],
    private readonly rules: readonly Rule[],
  ) {
    this.terminals = pieces.length;
    this.live = rules.map(() => true);
  }

  /** Writes out rules that cost more than they save, the worst first, and those that would be called too deep. */
  prune(): void {
    for (let round = 0; round < 60; round++) {
      const uses = this.uses();
      const saving = this.rules.map((r, i) => (this.live[i] ? uses[i]! * (this.size(r.body) - CALL) - this.size(r.body) - KEEPING : 0));
      const idle = this.rules.flatMap((_, i) => (this.live[i] && uses[i]! < 2 ? [i] : []));
      const losing = this.rules.map((_, i) => i).filter((i) => this.live[i] && saving[i]! <= 0);
      const out = idle.length > 0 ? idle : losing.sort((a, b) => saving[a]! - saving[b]! || a - b).slice(0, Math.max(1, Math.ceil(losing.length * 0.3)));
      if (out.length === 0) break;
      for (const i of out) this.live[i] = false;
      this.expand();
    }
    const depth: number[] = [];
    this.rules.forEach((r, i) => {
      depth[i] = 1 + Math.max(0, ...r.body.map((s) => (s >= this.terminals ? depth[s - this.terminals]! : 0)));
      // What is made of a rule that is too deep is too deep itself.
      if (depth[i]! > DEEPEST) this.live[i] = false;
    });
    this.expand();
  }

  private size(body: readonly number[]): number {
    let n = 0;
    for (const s of body) n += s < this.terminals ? this.pieces[s]!.length : CALL;
    return n;
  }

  private uses(): number[] {
    const uses = this.rules.map(() => 0);
    const count = (body: readonly number[]) => {
      for (const s of body) if (s >= this.terminals) uses[s - this.terminals]!++;
    };
    for (const s of this.sequences) count(s);
    this.rules.forEach((r, i) => {
      if (this.live[i]) count(r.body);
    });
    return uses;
  }

  /** Puts the bodies of written-out rules in their places; earlier rules are never made of later ones. */
  private expand(): void {
    const replaced = (body: readonly number[]): number[] =>
      body.flatMap((s) => (s >= this.terminals && !this.live[s - this.terminals] ? this.rules[s - this.terminals]!.body : [s]));
    for (const r of this.rules) r.body = replaced(r.body);
    this.sequences.forEach((s, i) => {
      this.sequences[i] = replaced(s);
    });
  }

  write(): Shared {
    const uses = this.uses();
    const kept = this.rules.flatMap((_, i) => (this.live[i] ? [i] : [])).sort((a, b) => uses[b]! - uses[a]! || a - b);
    const bias = kept.length < 1240 ? 107 : kept.length < 33900 ? 1131 : 32768;
    // The most used get the numbers that take one byte: those around the bias.
    const slots = kept.map((_, i) => i).sort((a, b) => Math.abs(a - bias) - Math.abs(b - bias) || a - b);
    const numberOf = new Map(kept.map((rule, i) => [rule, slots[i]!]));
    const bytesOf = (body: readonly number[]): number[] =>
      body.flatMap((s) => (s < this.terminals ? [...this.pieces[s]!] : [...numberBytes(numberOf.get(s - this.terminals)! - bias), CALLGSUBR]));
    const subroutines: Uint8Array[] = [];
    for (const rule of kept) {
      const bytes = bytesOf(this.rules[rule]!.body);
      subroutines[numberOf.get(rule)!] = Uint8Array.from(this.ends(rule) ? bytes : [...bytes, RETURN]);
    }
    return { charstrings: this.sequences.map((s) => Uint8Array.from(bytesOf(s))), subroutines };
  }

  /** Whether a rule ends the glyph, so that nothing returns from it. */
  private ends(rule: number): boolean {
    const body = this.rules[rule]!.body;
    const last = body[body.length - 1]!;
    if (last >= this.terminals) return this.ends(last - this.terminals);
    const piece = this.pieces[last]!;
    return piece[piece.length - 1] === ENDCHAR;
  }
}

function numberBytes(v: number): number[] {
  if (v >= -107 && v <= 107) return [v + 139];
  if (v >= 108 && v <= 1131) return [247 + ((v - 108) >> 8), (v - 108) & 255];
  if (v >= -1131 && v <= -108) return [251 + ((-v - 108) >> 8), (-v - 108) & 255];
  return [28, (v >> 8) & 255, v & 255];
}
