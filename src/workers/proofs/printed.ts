import type { ProofWanted, ScriptOutput } from '../../core/scripting/session';

/** The reports of a script with its proofs printed; `created` is the date in the files, in seconds since 1970. */
export async function printed(
  outputs: readonly (ScriptOutput | ProofWanted)[],
  created: number,
): Promise<ScriptOutput[]> {
  const all: ScriptOutput[] = [];
  for (const o of outputs) {
    if (o.kind !== 'proof') {
      all.push(o);
      continue;
    }
    // The PDF library is loaded where a proof is printed.
    const { makeProof } = await import('./proof');
    all.push({ kind: 'file', name: o.name, bytes: await makeProof({ ...o, created }) });
  }
  return all;
}
