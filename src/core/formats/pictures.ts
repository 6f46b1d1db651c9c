/** The kind and size in pixels of a PNG or JPEG picture from its header; undefined when it is neither or is cut short. */
export function pictureSize(
  bytes: Uint8Array,
): { type: 'image/png' | 'image/jpeg'; width: number; height: number } | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (
    bytes.length >= 33 &&
    view.getUint32(0) === 0x89504e47 &&
    view.getUint32(4) === 0x0d0a1a0a &&
    view.getUint32(12) === 0x49484452
  ) {
    return sized('image/png', view.getUint32(16), view.getUint32(20));
  }
  if (bytes.length < 4 || bytes[0] !== 0xff || bytes[1] !== 0xd8) return undefined;
  for (let at = 2; at + 9 < bytes.length && bytes[at] === 0xff; ) {
    const marker = bytes[at + 1]!;
    const isFrame = marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;
    if (isFrame) return sized('image/jpeg', view.getUint16(at + 7), view.getUint16(at + 5));
    at += 2 + view.getUint16(at + 2);
  }
  return undefined;
}

const sized = <T extends string>(type: T, width: number, height: number) =>
  width > 0 && height > 0 ? { type, width, height } : undefined;
