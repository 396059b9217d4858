import { describe, expect, it } from 'vitest';
import { checkProject } from '../../check/project';
import { Invalid } from '../../check/problem';
import { countingIds, newProject, newScene } from '../../document/make';
import { applyEdit } from '../../edits/apply';
import { addLayers } from '../../edits/layers';
import { notesOf, svgOf } from '../../paint/svg';
import { compileScene } from '../../scene/compile';
import { NO_LIBRARY } from '../../scene/program';
import { insideOf, layersOfSvg, partsOf } from './layers';
import { readSvg, type SvgGroup, type SvgShape, type SvgText } from './read';

const svg = (body: string, attributes = 'viewBox="0 0 100 100"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${body}</svg>`;
const shapes = (body: string): SvgShape[] => {
  const walk = (nodes: ReturnType<typeof readSvg>['nodes']): SvgShape[] =>
    nodes.flatMap((n) => (n.kind === 'group' ? walk(n.children) : n.kind === 'shape' ? [n] : []));
  return walk(readSvg(svg(body)).nodes);
};
const colors = (body: string) => shapes(body).map((s) => s.fill?.style === 'solid' && s.fill.color);
const xs = (body: string) => shapes(body).map((s) => s.paths[0]?.vertices.map((v) => [v[0], v[1]]));

describe('a drawing of too many points', () => {
  it('is refused before anything is made of them, however often they are used', () => {
    const curves = 'c1 2 3 4 5 6'.repeat(300_000);
    expect(() => readSvg(`<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0${curves}"/></svg>`)).toThrow(
      'more than 200,000 points',
    );
    const uses = '<use href="#a"/>'.repeat(3_000);
    const used = `<svg xmlns="http://www.w3.org/2000/svg"><path id="a" d="M0 0${'c1 2 3 4 5 6'.repeat(100)}"/>${uses}</svg>`;
    expect(() => readSvg(used)).toThrow('more than 200,000 points');
  });
});

describe('styles', () => {
  it('win by weight: attribute, sheet, class, id, style attribute', () => {
    const sheet = '<style>rect{fill:#000001} .a{fill:#000002} #i{fill:#000003}</style>';
    const rect = (rest: string) => `<rect width="9" height="9" fill="#000000" ${rest}/>`;
    const body =
      sheet + rect('') + rect('class="b a"') + rect('class="a" id="i"') + rect('id="i" style="fill:#000004"');
    expect(colors(body)).toEqual(['#000001', '#000002', '#000003', '#000004']);
  });
  it('are inherited, with currentColor and other notations', () => {
    const rect = '<rect width="9" height="9"/>';
    expect(colors(`<g fill="rgb(255, 0, 0)">${rect}</g><g color="teal" fill="currentColor">${rect}</g>`)).toEqual([
      '#FF0000',
      '#008080',
    ]);
    expect(colors(`<g fill="hsl(120 100% 25%)" fill-opacity=".5">${rect}</g>`)).toEqual(['#00800080']);
  });
  it('reach through descendant selectors and attributes', () => {
    const sheet = '<style>g.x rect{fill:#111111} [data-k="v"]{fill:#222222}</style>';
    expect(
      colors(`${sheet}<g class="x"><g><rect width="1" height="1"/></g></g><rect data-k="v" width="1" height="1"/>`),
    ).toEqual(['#111111', '#222222']);
  });
});

describe('places', () => {
  it('go through transforms, innermost first', () => {
    expect(xs('<g transform="translate(10 20) scale(2)"><path d="M1 1L3 1" transform="rotate(90)"/></g>')).toEqual([
      [
        [8, 22],
        [8, 26],
      ],
    ]);
  });
  it('come out of view boxes with their ratio kept', () => {
    const drawing = readSvg(svg('<path d="M0 0L10 10" stroke="red"/>', 'width="200" height="100" viewBox="0 0 10 10"'));
    expect((drawing.nodes[0] as SvgShape).paths[0]?.vertices.map((v) => [v[0], v[1]])).toEqual([
      [50, 0],
      [150, 100],
    ]);
  });
  it.each([
    ['width="100%" height="100%" viewBox="0 0 640 480"', [640, 480]],
    ['viewBox="10 10 640 480"', [640, 480]],
    ['width="320" viewBox="0 0 640 480"', [320, 240]],
    ['height="10mm" width="100%" viewBox="0 0 200 100"', [(20 * 96) / 25.4, (10 * 96) / 25.4]],
    ['width="50" height="70" viewBox="0 0 10 10"', [50, 70]],
    ['width="100%"', [300, 150]],
    ['', [300, 150]],
  ])('are as large as the drawing says, or its view box: %s', (attributes, [width, height]) => {
    const drawing = readSvg(svg('<path d="M0 0L1 1" stroke="red"/>', attributes));
    expect(drawing.width).toBeCloseTo(width!, 6);
    expect(drawing.height).toBeCloseTo(height!, 6);
  });
  it('follow use and symbol', () => {
    const body =
      '<defs><path id="p" d="M0 0L1 0" stroke="red"/></defs><use href="#p" x="5"/><use xlink:href="#p" y="7"/>';
    expect(xs(body)).toEqual([
      [
        [5, 0],
        [6, 0],
      ],
      [
        [0, 7],
        [1, 7],
      ],
    ]);
  });
});

it('strokes are as wide as their matrix makes them', () => {
  const [s] = shapes(
    '<g transform="scale(3)"><path d="M0 0H9" stroke="red" stroke-width="2" stroke-dasharray="1 2"/></g>',
  );
  expect([s?.stroke?.width, s?.stroke?.dashes]).toEqual([6, [3, 6]]);
});

it('a linear gradient keeps its lines of equal colour through an uneven matrix', () => {
  const gradient =
    '<linearGradient id="g" x1="0" y1="0" x2="1" y2="1"><stop offset="0"/><stop offset="100%" stop-color="#fff"/></linearGradient>';
  const [s] = shapes(`${gradient}<rect width="40" height="20" fill="url(#g)"/>`);
  const ink = s?.fill as Exclude<NonNullable<SvgShape['fill']>, { style: 'solid' }>;
  // The other corners, (40, 0) and (0, 20), are half way: the gradient runs square to the line between them.
  const [dx, dy] = [ink.to[0] - ink.from[0], ink.to[1] - ink.from[1]];
  expect(dx * 40 + dy * -20).toBeCloseTo(0, 9);
  const share = ((40 - ink.from[0]) * dx + (0 - ink.from[1]) * dy) / (dx * dx + dy * dy);
  expect(share).toBeCloseTo(0.5, 9);
});

it('clips become masks, opacity groups, text text', () => {
  const drawing = readSvg(
    svg(
      '<clipPath id="c"><circle cx="5" cy="5" r="4"/></clipPath><g clip-path="url(#c)" opacity=".5"><rect width="9" height="9"/></g>' +
        '<text x="3" y="8" font-family="\'Lora\', serif" font-size="12" font-weight="bold" text-anchor="middle">Night <tspan>pass</tspan></text>',
    ),
  );
  const [group, text] = drawing.nodes as [SvgGroup, SvgText];
  expect([group.opacity, group.clip?.paths.length]).toEqual([0.5, 1]);
  expect([text.text, text.family, text.weight, text.size, text.align]).toEqual([
    'Night pass',
    'Lora',
    700,
    12,
    'center',
  ]);
});

describe('what cannot be kept', () => {
  it.each([
    ['<image href="http://evil.example/x.png"/>', 'a picture inside the drawing is left out'],
    ['<script>alert(1)</script>', 'a script is left out'],
    ['<use href="http://evil.example/x.svg#a"/>', 'a part of another file is left out'],
    ['<rect width="9" height="9" filter="url(#f)"/>', 'a filter is left out'],
    ['<rect width="9" height="9" mask="url(#m)"/>', 'a mask is left out'],
    ['<path d="M0 0H9" marker-end="url(#m)" stroke="red"/>', 'markers on lines are left out'],
    ['<foreignObject><body/></foreignObject>', 'foreign content is left out'],
  ])('is named: %s', (body, note) => {
    expect(readSvg(svg(body)).notes).toContain(note);
  });
});

describe('hostile drawings', () => {
  const deep = '<g>'.repeat(400) + '</g>'.repeat(400);
  const bomb =
    '<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">' +
    Array.from({ length: 12 }, (_, i) => `<!ENTITY a${i} "${`&${i ? `a${i - 1}` : 'a'};`.repeat(10)}">`).join('') +
    `]>${svg('<text>&a11;</text>')}`;
  it.each([
    ['nested too deep', svg(deep), 'nested more than 256 deep'],
    ['too large', svg(`<!--${'x'.repeat(9 * 2 ** 20)}-->`), 'larger than 8 MB'],
    ['of too many elements', svg('<g/>'.repeat(21_000)), 'more than 20,000 elements'],
    ['no drawing', '<html><body>svg</body></html>', 'not an SVG'],
    ['empty', '', 'not an SVG'],
    ['cut short', svg('<g/>\n<rect wid').slice(0, -6), 'in line 2 a tag begins that has no end, “<rect wid'],
  ])('%s are refused', (_name, text, message) => {
    expect(() => readSvg(text)).toThrow(Invalid);
    expect(() => readSvg(text)).toThrow(message);
  });
  it('with an entity bomb end soon, refused or with little text', () => {
    let text = '';
    try {
      text = JSON.stringify(readSvg(bomb).nodes);
    } catch (error) {
      expect(error).toBeInstanceOf(Invalid);
    }
    expect(text.length).toBeLessThan(100_000);
  });
  it('with things that use themselves end', () => {
    const drawing = readSvg(svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/><use href="#a"/></g>'));
    expect(drawing.nodes.length).toBeLessThan(50);
    const tree = Array.from(
      { length: 30 },
      (_, i) => `<g id="n${i}"><use href="#n${i + 1}"/><use href="#n${i + 1}"/></g>`,
    );
    expect(() => readSvg(svg(`${tree.join('')}<rect id="n30" width="1" height="1"/>`))).not.toThrow();
  });
  it('with path data that breaks off keep what comes before', () => {
    expect(xs('<path d="M0 0L5 5 oops" stroke="red"/>')).toHaveLength(1);
    expect(shapes('<path d="rubbish"/><rect width="NaN" height="1e999"/>')).toHaveLength(0);
  });
});

const SCENE = newScene('s', 'Scene', {
  width: 100,
  height: 100,
  rate: { num: 25, den: 1 },
  length: 10,
  background: '#1B1F4B',
});
const BODY =
  '<g id="Rails"><rect x="10" y="60" width="80" height="6" fill="#2EC4B6"/><rect x="10" y="74" width="80" height="6" fill="#2EC4B6"/></g>' +
  '<g id="Moon" opacity=".5"><circle cx="50" cy="35" r="20" fill="#FFB23E"/></g>';

const brought = (how: 'one-each' | 'one-for-all') => {
  const drawing = readSvg(svg(BODY));
  const placing = { scale: 1, at: [50, 50] as const, layers: how };
  return layersOfSvg(drawing, partsOf(drawing.nodes), SCENE, 'Mark', placing, countingIds('n')).layers;
};

describe('as layers', () => {
  it('parts keep their names and their order: what is last is in front', () => {
    expect(brought('one-each').map((l) => l.name)).toEqual(['Moon', 'Rails']);
    expect(brought('one-for-all').map((l) => l.name)).toEqual(['Mark']);
  });
  it('are a sound project', () => {
    const { doc } = applyEdit(newProject('p', 'P', [SCENE]), addLayers('s', brought('one-each')));
    expect(checkProject(JSON.parse(JSON.stringify(doc)))).toBeTruthy();
  });
  it('written as an SVG again and read again give the same outlines', () => {
    const { doc } = applyEdit(newProject('p', 'P', [SCENE]), addLayers('s', brought('one-each')));
    const list = compileScene(doc.scenes.s!, NO_LIBRARY).at(0);
    const made = svgOf(list, { width: 100, height: 100 }, { pictureAt: () => null, drawn: () => '' });
    expect(notesOf([made])).toEqual([]);
    const again = readSvg(made.svg);
    const flat = (nodes: typeof again.nodes): SvgShape[] =>
      nodes.flatMap((n) => (n.kind === 'group' ? flat(n.children) : n.kind === 'shape' ? [n] : []));
    const [ground, ...rest] = flat(again.nodes);
    expect(ground?.fill).toEqual({ style: 'solid', color: '#1B1F4B' });
    expect(rest.map((s) => s.paths[0]?.vertices[0]?.slice(0, 2))).toEqual([
      [10, 60],
      [10, 74],
      [70, 35],
    ]);
  });
});

describe('what is in a group', () => {
  const groupIn = (inner: string): SvgGroup => {
    const [node] = readSvg(`<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40">${inner}</svg>`).nodes;
    return node as SvgGroup;
  };
  const dots = '<circle id="a" r="4"/><circle id="b" r="2"/>';
  it('is its children where it does nothing to them', () => {
    const group = groupIn(`<g id="g">${dots}</g>`);
    expect(insideOf(group)).toEqual(group.children);
    expect(insideOf(group)).toBe(insideOf(group));
  });
  it('is as faint as the group, and as those that hold nothing else', () => {
    const parts = insideOf(groupIn(`<g opacity="0.5"><g><g opacity="0.4">${dots}</g></g></g>`));
    expect(parts).toMatchObject([
      { name: 'a', opacity: 0.5, children: [{ name: 'a', opacity: 0.4, children: [{ kind: 'shape', name: 'a' }] }] },
      { name: 'b', opacity: 0.5, children: [{ name: 'b', opacity: 0.4, children: [{ kind: 'shape', name: 'b' }] }] },
    ]);
    // Taken apart once more there is nothing else in it.
    expect(insideOf(parts[0] as SvgGroup)).toHaveLength(1);
  });
});
