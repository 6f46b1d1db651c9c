/** Lets what waits go first: a pointer, a key. */
export const rest = () => new Promise<void>((resolve) => setTimeout(resolve));

/** For long work in pieces: called between two of them, it rests when so many milliseconds have been worked since the last rest. */
export function restEvery(milliseconds: number): () => Promise<void> {
  let since = Date.now();
  return async () => {
    if (Date.now() - since < milliseconds) return;
    await rest();
    since = Date.now();
  };
}
