import type { TextForm } from '../document/params';

/** An address that a click may open: http or https only. */
const isAddress = (v: string): boolean => {
  if (v.length > 2_000) return false;
  // A host, with its port, and no name or password before it (RFC 3986, 3.2).
  const [, authority] = /^https?:\/\/([^/?#\s"'<>\\]+)[^\s"'<>\\]*$/i.exec(v) ?? [];
  return authority !== undefined && /^([\p{L}\p{N}._~-]+|\[[0-9a-f:.]+\])(:\d{1,5})?$/iu.test(authority);
};

/** What texts of each form are, beside nothing. */
export const FORMS: { readonly [F in TextForm]: { readonly wanted: string; readonly is: (v: string) => boolean } } = {
  address: {
    wanted: 'an address of a page: https:// or http://, a host, and no password; or nothing',
    is: isAddress,
  },
  areas: {
    wanted: 'lines such as Button = https://lamp.example/, each a layer and the address of a page; or nothing',
    is: (v) =>
      v.split('\n').every((line) => /^[^=\n]+=\s*\S/.test(line) && isAddress(line.slice(line.indexOf('=') + 1).trim())),
  },
  colors: {
    wanted: '2 to 255 colours such as #1B1F4B, with spaces between; or nothing',
    is: (v) => /^(#[0-9a-f]{6}\s+){1,254}#[0-9a-f]{6}$/i.test(v),
  },
  features: {
    wanted: 'a line of OpenType features such as tnum, ss01, or -liga for one that is put off; or nothing',
    // What is no tag is passed over where they are read.
    is: (v) => !/[\n\r]/.test(v),
  },
  stays: {
    wanted: 'frames and the seconds that they stay, such as 12: 0.5, 40: 1; or nothing',
    is: (v) => v.split(',').every((part) => /^\s*\d{1,6}\s*:\s*\d{1,2}(\.\d{1,2})?\s*$/.test(part)),
  },
};
