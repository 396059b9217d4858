import { isText } from '../../document/is';
import { cutText, sound } from '../../document/text';
import { type Kind, type ParamOf, step } from './types';

/** An address that a click may open: http or https only. */
const isAddress = (v: string): boolean => {
  if (v.length > 2_000) return false;
  // A host, with its port, and no name or password before it (RFC 3986, 3.2).
  const [, authority] = /^https?:\/\/([^/?#\s"'<>\\]+)[^\s"'<>\\]*$/i.exec(v) ?? [];
  return authority !== undefined && /^([\p{L}\p{N}._~-]+|\[[0-9a-f:.]+\])(:\d{1,5})?$/iu.test(authority);
};

const inLines = ({ lines }: ParamOf<'text'>, text: string): string =>
  lines === 'one' ? text.replace(/\s*[\n\r]+\s*/g, ' ') : text;

export const text: Kind<'text'> = {
  kind: 'text',
  wanted: ({ form, most, lines }) =>
    form === 'address'
      ? 'an address of a page: https:// or http://, a host, and no password; or nothing'
      : `a text of at most ${most} characters${lines === 'one' ? ' in one line' : ''}`,
  is: ({ form, most, lines }, v) => {
    if (!isText(v)) return false;
    if (form === 'address') return v === '' || isAddress(v);
    return v.length <= most && (lines === 'many' || !/[\n\r]/.test(v));
  },
  fitted: (param, v) => {
    if (param.form === 'address') return v === '' || isAddress(v) ? v : param.default;
    return cutText(inLines(param, sound(v)), param.most);
  },
  accept: (param) => (v) => (v.length > param.most ? null : inLines(param, v)),
  mix: step,
  says: (_param, v) => `“${v.replaceAll('\n', ' ')}”`,
};
