/**
 * Frames as one SVG that moves by itself, without a script (SVG 2 with SMIL, as in SVG Animations Level 2): documents, one for
 * each frame, are folded into one. Elements that stand in the same place are one element, attributes
 * that change are animated from frame to frame, and what is not there in a frame is not displayed in it.
 */
interface Element {
  readonly tag: string;
  readonly attributes: ReadonlyMap<string, string>;
  readonly children: Element[];
}

const TAG = /<(\/?)([\w]+)((?:\s+[\w:-]+="[^"]*")*)\s*(\/?)>/g;
const ATTRIBUTE = /([\w:-]+)="([^"]*)"/g;

/** What paint/svg.ts writes: elements and attributes, no text. */
const parsed = (svg: string): Element => {
  const root: Element = { tag: '', attributes: new Map(), children: [] };
  const open = [root];
  for (const [, closing, tag = '', attributes = '', empty] of svg.matchAll(TAG)) {
    if (closing) {
      open.pop();
      continue;
    }
    const own = new Map([...attributes.matchAll(ATTRIBUTE)].map(([, name = '', value = '']) => [name, value]));
    const element: Element = { tag, attributes: own, children: [] };
    (open.at(-1) as Element).children.push(element);
    if (!empty) open.push(element);
  }
  return root.children[0] as Element;
};

/** What cannot change from frame to frame: elements that differ in it, or in what they have at all, are different ones. */
const FIXED = ['id', 'style', 'result', 'in', 'in2', 'type', 'mode', 'operator', 'mask', 'clip-path', 'filter', 'href'];

/** Attributes that say what they say by being left out. */
const MISSING: Readonly<Record<string, string>> = {
  opacity: '1',
  transform: '',
  'fill-opacity': '1',
  'stroke-opacity': '1',
  'stop-opacity': '1',
  'fill-rule': 'nonzero',
  'stroke-linecap': 'butt',
  'stroke-linejoin': 'miter',
  'stroke-miterlimit': '4',
  'stroke-dashoffset': '0',
};

/** The name that an attribute leads to; none where it leads nowhere. */
const addressIn = (value: string): string => /^url\(#(.*)\)$/.exec(value)?.[1] ?? '';

/** What browsers animate to nothing else but its like: a colour to no address, and dashes to no more, fewer or none. */
const ALIKE: readonly (readonly [name: string, kindOf: (value: string) => string])[] = [
  ['fill', addressIn],
  ['stroke', addressIn],
  ['stroke-dasharray', (dashes) => String(dashes.split(' ').length)],
];

const likenessOf = ({ tag, attributes }: Element): string =>
  [
    tag,
    ...FIXED.map((name) => attributes.get(name) ?? ''),
    ...ALIKE.map(([name, kindOf]) => kindOf(attributes.get(name) ?? '')),
    ...[...attributes.keys()].filter((name) => !(name in MISSING)).sort(),
  ].join('|');

/** How an element is built, all that is in it too, whatever it is called. */
const buildOf = ({ attributes, ...element }: Element): string => {
  const nameless = new Map([...attributes].filter(([name]) => name !== 'id'));
  return `${likenessOf({ ...element, attributes: nameless })}(${element.children.map(buildOf).join('')})`;
};

/** What has parts that cannot be away for a while, as elements that are drawn can. */
const WHOLE = ['linearGradient', 'radialGradient', 'filter'];

/** Names for a frame's gradients and filters that tell how they are built: the same in all frames, whatever else these define. */
const namesIn = (definitions: readonly Element[], known: Map<string, number>): Map<string, string> => {
  const counts = new Map<string, number>();
  return new Map(
    definitions.flatMap((definition) => {
      if (!WHOLE.includes(definition.tag)) return [];
      const build = buildOf(definition);
      if (!known.has(build)) known.set(build, known.size + 1);
      const count = (counts.get(build) ?? 0) + 1;
      counts.set(build, count);
      return [[definition.attributes.get('id') as string, `${definition.tag}${known.get(build)}-${count}`]];
    }),
  );
};

const renamed = ({ tag, attributes, children }: Element, names: ReadonlyMap<string, string>): Element => ({
  tag,
  attributes: new Map(
    [...attributes].map(([name, value]) => {
      if (name === 'id') return [name, names.get(value) ?? value];
      const address = names.get(addressIn(value));
      return [name, address ? `url(#${address})` : value];
    }),
  ),
  children: children.map((child) => renamed(child, names)),
});

/** Elements of as many frames that are one: null in the frames in which it is not there. */
type Slot = (Element | null)[];

/** How much two elements of the same kind have in common: 1, and up to 1 more for what they share. */
const sharedBy = (a: Element, b: Element): number => {
  let same = 0;
  for (const [name, value] of b.attributes) if (a.attributes.get(name) === value) same++;
  return 1 + same / Math.max(1, b.attributes.size);
};

/** An element through the frames so far. */
interface Row {
  readonly slot: Slot;
  readonly likeness: string;
  /** As it was when it was last there. */
  readonly latest: Element;
}

/**
 * Puts the elements of one more frame beside those of the frames before, in their order: those go together that have the
 * most in common in all, what is new stands between.
 */
const aligned = (rows: readonly Row[], frame: readonly Element[], count: number): Row[] => {
  const likes = frame.map(likenessOf);
  const gain = (i: number, j: number): number => {
    const row = rows[i] as Row;
    return row.likeness === likes[j] ? sharedBy(row.latest, frame[j] as Element) : 0;
  };
  const best = Array.from({ length: rows.length + 1 }, () => new Float64Array(likes.length + 1));
  for (let i = rows.length - 1; i >= 0; i--) {
    for (let j = likes.length - 1; j >= 0; j--) {
      const [row, next] = [best[i] as Float64Array, best[i + 1] as Float64Array];
      const own = gain(i, j);
      row[j] = Math.max(own > 0 ? own + next[j + 1]! : 0, next[j]!, row[j + 1]!);
    }
  }
  const result: Row[] = [];
  let [i, j] = [0, 0];
  while (i < rows.length || j < likes.length) {
    const [row, element] = [rows[i], frame[j]];
    const own = row && element ? gain(i, j) : 0;
    if (row && element && own > 0 && best[i]![j]! <= own + best[i + 1]![j + 1]! + 1e-9) {
      result.push({ ...row, slot: [...row.slot, element], latest: element });
      [i, j] = [i + 1, j + 1];
    } else if (row && (!element || best[i + 1]![j]! >= best[i]![j + 1]!)) {
      result.push({ ...row, slot: [...row.slot, null] });
      i++;
    } else {
      const before = Array.from({ length: count }, () => null);
      result.push({ slot: [...before, element as Element], likeness: likes[j] as string, latest: element as Element });
      j++;
    }
  }
  return result;
};

/** Definitions through all frames: what has the same name is the same one, wherever it stands. */
const definitionsOf = (element: Slot): Slot[] => {
  const slots = new Map<string, Slot>();
  element.forEach((own, frame) => {
    for (const child of own?.children ?? []) {
      const id = child.attributes.get('id') as string;
      const slot = slots.get(id) ?? element.map(() => null);
      slot[frame] = child;
      slots.set(id, slot);
    }
  });
  return [...slots.values()];
};

/** The children of one element through all frames. */
const slotsOf = (element: Slot): Slot[] => {
  if (element.find((own) => own !== null)?.tag === 'defs') return definitionsOf(element);
  let rows: Row[] = [];
  element.forEach((own, frame) => {
    rows = aligned(rows, own?.children ?? [], frame);
  });
  return rows.map(({ slot }) => slot);
};

/** Where each frame begins, 0..1, and how it repeats. */
interface Timing {
  readonly starts: readonly number[];
  readonly rest: string;
}

const short = (n: number): string => String(Math.round(n * 1e5) / 1e5);

/** Values at the frames at which they change. */
const changes = (
  values: readonly string[],
  { starts }: Timing,
): { readonly values: string; readonly times: string } => {
  const at = values.flatMap((value, i) => (i === 0 || value !== values[i - 1] ? [i] : []));
  return { values: at.map((i) => values[i]).join(';'), times: at.map((i) => short(starts[i] as number)).join(';') };
};

const animate = (name: string, values: readonly string[], timing: Timing): string => {
  const { values: list, times } = changes(values, timing);
  return `<animate attributeName="${name}" calcMode="discrete" values="${list}" keyTimes="${times}" ${timing.rest}/>`;
};

type Six = readonly [number, number, number, number, number, number];
const matrixIn = (transform: string): Six => {
  const numbers = transform.match(/-?[\d.]+(e-?\d+)?/g)?.map(Number) ?? [];
  return (numbers.length === 6 ? numbers : [1, 0, 0, 1, 0, 0]) as unknown as Six;
};

/** What a matrix does one after another: a move, a turn, a slant and a size, in degrees and pixels. */
const partsOf = ([a, b, c, d, e, f]: Six) => {
  const angle = Math.atan2(b, a);
  const width = Math.hypot(a, b);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const height = d * cos - c * sin;
  const slant = height === 0 ? 0 : Math.atan2(c * cos + d * sin, height);
  const degrees = (r: number) => (r * 180) / Math.PI;
  return {
    translate: `${short(e)} ${short(f)}`,
    rotate: short(degrees(angle)),
    skewX: short(degrees(slant)),
    scale: `${short(width)} ${short(height)}`,
  };
};
const STEPS = ['translate', 'rotate', 'skewX', 'scale'] as const;

/** A matrix cannot be animated as such. */
const animateTransform = (values: readonly string[], timing: Timing): string => {
  const parts = values.map((value) => partsOf(matrixIn(value)));
  return STEPS.map((step, i) => {
    const { values: list, times } = changes(
      parts.map((part) => part[step]),
      timing,
    );
    const how = i === 0 ? 'replace' : 'sum';
    return `<animateTransform attributeName="transform" type="${step}" additive="${how}" calcMode="discrete" values="${list}" keyTimes="${times}" ${timing.rest}/>`;
  }).join('');
};

/** Definitions that nothing names in a frame do no harm. */
const isDefinition = (tag: string, parent: string): boolean => parent === 'defs' || tag === 'defs';

/** Whether something in an element is masked in turn. */
const isMaskedWithin = ({ children }: Element): boolean =>
  children.some((child) => child.attributes.has('mask') || isMaskedWithin(child));

/**
 * What moves in a mask of something in a mask is not drawn anew by every browser (seen in Chromium), unless something that stands in
 * the outer one itself moves: this does, and shows nothing.
 */
const pulse = (timing: Timing): string =>
  `<rect width="0" height="0">${animate(
    'x',
    timing.starts.map((_, i) => String(i % 2)),
    timing,
  )}</rect>`;

const written = (slot: Slot, parent: Slot, timing: Timing, out: string[]): void => {
  const first = slot.find((own) => own !== null) as Element;
  // While it is not there it may be whatever it was.
  const known: Element[] = [];
  slot.forEach((own, i) => known.push(own ?? known[i - 1] ?? first));
  const names = new Set(known.flatMap(({ attributes }) => [...attributes.keys()]));
  const moving: string[] = [];
  out.push(`<${first.tag}`);
  for (const name of names) {
    const values = known.map(({ attributes }) => attributes.get(name) ?? MISSING[name] ?? '');
    if (values.every((value) => value === values[0])) out.push(` ${name}="${values[0]}"`);
    else if (name === 'transform') moving.push(animateTransform(values, timing));
    else {
      out.push(` ${name}="${values[0]}"`);
      moving.push(animate(name, values, timing));
    }
  }
  const around = parent.find((own) => own !== null)?.tag ?? '';
  if (slot.some((own, i) => own === null && parent[i] !== null) && !isDefinition(first.tag, around)) {
    const shown = slot.map((own) => (own ? 'inline' : 'none'));
    out.push(` display="${shown[0]}"`);
    moving.push(animate('display', shown, timing));
  }
  if (first.tag === 'mask' && known.some(isMaskedWithin)) moving.push(pulse(timing));
  const inner = slotsOf(slot);
  if (moving.length + inner.length === 0) {
    out.push('/>');
    return;
  }
  out.push('>', ...moving);
  for (const child of inner) written(child, slot, timing, out);
  out.push(`</${first.tag}>`);
};

export interface MovingHow {
  /** How long each frame is there, in seconds. */
  readonly seconds: readonly number[];
  /** How often it plays; 0 is for ever. */
  readonly plays: number;
}

/** Frames, each as paint/svg.ts writes it, as one document. */
export const movingSvgOf = (frames: readonly string[], { seconds, plays }: MovingHow): string => {
  const builds = new Map<string, number>();
  const roots = frames.map((svg) => {
    const root = parsed(svg);
    const definitions = root.children.filter(({ tag }) => tag === 'defs').flatMap(({ children }) => children);
    return renamed(root, namesIn(definitions, builds));
  });
  const whole = seconds.reduce((sum, s) => sum + s, 0);
  let gone = 0;
  const starts = seconds.map((s) => {
    const start = gone / whole;
    gone += s;
    return start;
  });
  const rest = `dur="${short(whole)}s" repeatCount="${plays === 0 ? 'indefinite' : plays}" fill="freeze"`;
  const out: string[] = [];
  written(roots, roots, { starts, rest }, out);
  return `${out.join('')}\n`;
};
