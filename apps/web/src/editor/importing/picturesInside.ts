/** The pictures in a drawing: as they will be before they are sent, and sent. */
import { type Asset, type PictureAsset, PICTURE_TYPES } from '@kite/core/document/types';
import type { SvgFiles } from '@kite/core/interchange/svg/layers';
import { send } from './importFiles';

interface FileInside {
  /** Its media type, in small letters. */
  readonly type: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** Each byte as a letter of its code. */
const unescaped = (text: string): string =>
  text.replace(/%([\da-f]{2})/gi, (_, code: string) => String.fromCharCode(parseInt(code, 16)));

/** What stands in a data address (RFC 2397); throws where it is not written as one is. */
export const fileAt = (address: string): FileInside => {
  const parts = /^data:([^;,]*)(?:;(?!base64)[^;,]*)*(;base64)?,([\s\S]*)$/i.exec(address) ?? [];
  const [, type = '', coded, body = ''] = parts;
  const text = coded ? atob(unescaped(body).replace(/\s/g, '')) : unescaped(body);
  return { type: type.toLowerCase(), bytes: Uint8Array.from(text, (c) => c.charCodeAt(0)) };
};

/** Those that this browser can read, called by their addresses. */
export const picturesAt = async (addresses: readonly string[]): Promise<SvgFiles> => {
  const files = new Map<string, PictureAsset>();
  for (const address of addresses) {
    try {
      const image = new Image();
      image.src = address;
      await image.decode();
      const { naturalWidth: width, naturalHeight: height } = image;
      const { type: said, bytes } = fileAt(address);
      const type = PICTURE_TYPES.find((one) => one === said) ?? 'image/jpeg';
      const size = { bytes: bytes.length, width, height };
      files.set(address, { kind: 'picture', id: address, sha: address, name: '', type, ...size });
    } catch {
      // It is left out, which the notes of the drawing say.
    }
  }
  return files;
};

/** Sends pictures as files of a name; null where one of them was refused, which is told. */
export const sentPictures = async (
  addresses: readonly string[],
  name: string,
): Promise<readonly (readonly [address: string, asset: Asset])[] | null> => {
  const files = addresses.map((address, i) => {
    const { type, bytes } = fileAt(address);
    return new File([bytes], addresses.length > 1 ? `${name} ${i + 1}` : name, { type });
  });
  const sent = await send(files);
  const pairs = addresses.flatMap((address, i) => {
    const asset = sent[i];
    return asset ? [[address, asset] as const] : [];
  });
  return pairs.length === addresses.length ? pairs : null;
};
