/** Source without what definitions tell the interface, which a player has no use for. */
import { parseSync, Visitor } from 'rolldown/utils';

interface Cut {
  readonly from: number;
  readonly to: number;
  readonly instead: string;
}

/** What parameters are made by: their first argument is what they are called. */
const MAKERS = /\/document\/params$/;

/** Without these properties of its objects; `called` without what parameters are called by, too. */
export const untold = (path: string, source: string, keys: ReadonlySet<string>, called: boolean): string => {
  const cuts: Cut[] = [];
  const makers = new Set<string>();
  new Visitor({
    ImportDeclaration: ({ source: from, specifiers }) => {
      if (MAKERS.test(from.value)) for (const { local } of specifiers) makers.add(local.name);
    },
    ObjectExpression: ({ properties }) => {
      for (const property of properties) {
        if (property.type !== 'Property' || property.key.type !== 'Identifier' || !keys.has(property.key.name))
          continue;
        const comma = /^\s*,/.exec(source.slice(property.end))?.[0] ?? '';
        cuts.push({ from: property.start, to: property.end + comma.length, instead: '' });
      }
    },
    CallExpression: ({ callee, arguments: [name] }) => {
      if (called || callee.type !== 'Identifier' || !makers.has(callee.name)) return;
      if (name?.type === 'Literal' && typeof name.value === 'string')
        cuts.push({ from: name.start, to: name.end, instead: "''" });
    },
  }).visit(parseSync(path, source).program);
  let out = '';
  let at = 0;
  for (const { from, to, instead } of cuts.sort((a, b) => a.from - b.from)) {
    // What stands in something that is cut is gone with it.
    if (from < at) continue;
    out += source.slice(at, from) + instead;
    at = to;
  }
  return out + source.slice(at);
};
