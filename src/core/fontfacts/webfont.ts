/** A font file as WOFF2, by the reference encoder compiled to WebAssembly, which is loaded on first use. */
export async function toWoff2(font: Uint8Array): Promise<Uint8Array> {
  const { compress } = await import('woff2-encoder');
  return compress(font);
}

/** The font file inside a WOFF2. */
export async function fromWoff2(bytes: Uint8Array): Promise<Uint8Array> {
  const { decompress } = await import('woff2-encoder');
  return decompress(bytes);
}
