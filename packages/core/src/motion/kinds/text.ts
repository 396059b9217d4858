import { isText } from '../../document/is';
import { cutText, sound } from '../../document/text';
import { FORMS } from '../textForms';
import { type Kind, type ParamOf, step } from './types';

const inLines = ({ lines }: ParamOf<'text'>, text: string): string =>
  lines === 'one' ? text.replace(/\s*[\n\r]+\s*/g, ' ') : text;

export const text: Kind<'text'> = {
  kind: 'text',
  wanted: ({ form, most, lines }) =>
    form ? FORMS[form].wanted : `a text of at most ${most} characters${lines === 'one' ? ' in one line' : ''}`,
  is: ({ form, most, lines }, v) => {
    if (!isText(v)) return false;
    if (form) return v === '' || (v.length <= most && FORMS[form].is(v));
    return v.length <= most && (lines === 'many' || !/[\n\r]/.test(v));
  },
  fitted: (param, v) => {
    if (param.form) return v === '' || FORMS[param.form].is(v) ? v : param.default;
    return cutText(inLines(param, sound(v)), param.most);
  },
  accept: (param) => (v) => (v.length > param.most ? null : inLines(param, v)),
  mix: step,
  says: (_param, v) => `“${v.replaceAll('\n', ' ')}”`,
};
