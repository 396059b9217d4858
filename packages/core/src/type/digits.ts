/** Numbers as they are written. */

const grouped = (text: string, sign: string): string => {
  const [whole = '', rest] = text.split('.');
  const apart = whole.replace(/\B(?=(\d{3})+(?!\d))/g, () => sign);
  return rest === undefined ? apart : `${apart}.${rest}`;
};

/** A number in digits: as many decimals as are asked for, groups of three apart where there is a sign for it. */
export const digits = (value: number, decimals: number, sign = ''): string => {
  const text = value.toFixed(Math.min(20, Math.max(0, Math.round(decimals) || 0)));
  // Nothing is shown as -0.
  return grouped(/^-[0.]*$/.test(text) ? text.slice(1) : text, sign);
};
