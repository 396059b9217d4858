/** Web fonts unpacked to the OpenType fonts in them. */
import { unzlibSync } from 'fflate';

const tag = (bytes: Uint8Array): string => String.fromCharCode(...bytes.subarray(0, 4));

/** The most that a packed font may unpack to. */
const MOST = 64 * 2 ** 20;

/** WOFF File Format 1.0 (W3C, 2012), sections 3 to 5. */
const fromWoff = (bytes: Uint8Array): Uint8Array => {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = view.getUint16(12);
  const size = view.getUint32(16);
  if (size > MOST || 44 + count * 20 > bytes.length) throw new RangeError('is a damaged WOFF font');
  const out = new Uint8Array(size);
  const put = new DataView(out.buffer);
  put.setUint32(0, view.getUint32(4));
  put.setUint16(4, count);
  const power = Math.floor(Math.log2(count));
  put.setUint16(6, 16 * 2 ** power);
  put.setUint16(8, power);
  put.setUint16(10, 16 * (count - 2 ** power));
  let at = 12 + count * 16;
  for (let i = 0; i < count; i++) {
    const entry = 44 + i * 20;
    const [offset, packed, length] = [4, 8, 12].map((n) => view.getUint32(entry + n)) as [number, number, number];
    if (offset + packed > bytes.length || at + length > size) throw new RangeError('is a damaged WOFF font');
    const data = bytes.subarray(offset, offset + packed);
    out.set(packed < length ? unzlibSync(data, { out: new Uint8Array(length) }) : data, at);
    const row = 12 + i * 16;
    put.setUint32(row, view.getUint32(entry));
    put.setUint32(row + 4, view.getUint32(entry + 16));
    put.setUint32(row + 8, at);
    put.setUint32(row + 12, length);
    at += (length + 3) & ~3;
  }
  return out;
};

/** TTF, OTF, WOFF and WOFF2 as an OpenType font; a RangeError for anything else. */
export const toOpenType = async (bytes: Uint8Array): Promise<Uint8Array> => {
  switch (tag(bytes)) {
    case 'wOFF':
      return fromWoff(bytes);
    case 'wOF2': {
      // Bytes 16 to 19: the size unpacked (WOFF File Format 2.0, section 4.1).
      if (new DataView(bytes.buffer, bytes.byteOffset).getUint32(16) > MOST)
        throw new RangeError('is too large a font');
      // A WebAssembly decoder, which only uploads need.
      const { decompress } = await import('wawoff2');
      const out = await decompress(bytes);
      return new Uint8Array(out);
    }
    case '\0\x01\0\0':
    case 'OTTO':
    case 'true':
      return bytes;
    default:
      throw new RangeError('is not a TTF, OTF, WOFF or WOFF2 font');
  }
};
