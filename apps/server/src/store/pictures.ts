/** Whether the file of a picture goes on to its end: decoders fill up what is missing, and say nothing. */

const endsWith = (bytes: Uint8Array, end: readonly number[]): boolean => {
  // Some programs put a few bytes behind the end.
  const tail = Buffer.from(bytes.subarray(Math.max(0, bytes.length - 64 - end.length)));
  return tail.includes(Buffer.from(end));
};

const IEND = [0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82];

/** By the marks that formats have at their end: PNG 11.2.5, JPEG B.1.1.3 (EOI), GIF89a 27, RIFF sizes of WebP. */
export const isWhole = (type: string, bytes: Uint8Array): boolean => {
  switch (type) {
    case 'image/png':
      return endsWith(bytes, IEND);
    case 'image/jpeg':
      return endsWith(bytes, [0xff, 0xd9]);
    case 'image/gif':
      return endsWith(bytes, [0x3b]);
    default:
      return bytes.length >= 12 && Buffer.from(bytes.buffer, bytes.byteOffset).readUInt32LE(4) + 8 <= bytes.length;
  }
};
