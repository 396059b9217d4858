/** Reads what people type into number fields: `12`, `100/3`, `2*(40+5)`. */

/** null for anything that is not a sum. */
export const calculate = (text: string): number | null => {
  const tokens = text.replaceAll(',', '.').match(/\d*\.?\d+|[-+*/()×÷]|\S/g) ?? [];
  let at = 0;
  const fail = Symbol('fail');
  const primary = (): number => {
    const token = tokens[at++];
    if (token === '-') return -primary();
    if (token === '+') return primary();
    if (token === '(') {
      const value = sum();
      if (tokens[at++] !== ')') throw fail;
      return value;
    }
    if (token === undefined || !/^[\d.]+$/.test(token)) throw fail;
    return Number(token);
  };
  const product = (): number => {
    let value = primary();
    while (tokens[at] !== undefined && '*/×÷'.includes(tokens[at] as string)) {
      const operator = tokens[at++];
      const right = primary();
      value = operator === '*' || operator === '×' ? value * right : value / right;
    }
    return value;
  };
  const sum = (): number => {
    let value = product();
    while (tokens[at] === '+' || tokens[at] === '-')
      value = tokens[at++] === '+' ? value + product() : value - product();
    return value;
  };
  try {
    const value = sum();
    return at === tokens.length && Number.isFinite(value) ? value : null;
  } catch (error) {
    if (error === fail) return null;
    throw error;
  }
};
