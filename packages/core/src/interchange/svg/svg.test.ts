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
import type { SvgGroup, SvgShape, SvgText } from './nodes';
import { readSvg } from './read';

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
  it('follow what is important, parents, variables, and lists within brackets', () => {
    const sheet =
      '<style>:root{--a:#000001}g>rect{fill:var(--a)}rect{stroke:none}.x{fill:var(--b, var(--a)) !important}</style>';
    const rect = (rest: string) => `<rect width="9" height="9" ${rest}/>`;
    const inner = `<g>${rect('')}<a>${rect('fill="#000002"')}</a></g>`;
    expect(colors(`${sheet}${inner}${rect('class="x" style="fill:#000003"')}`)).toEqual([
      '#000001',
      '#000002',
      '#000001',
    ]);
    expect(colors(rect('style="marker:url(data:image/png;base64,AA);fill:#000004"'))).toEqual(['#000004']);
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
  it('a switch shows what is for everybody, not what its program keeps for itself', () => {
    const own = '<foreignObject requiredExtensions="http://example.invalid/own"><g/></foreignObject>';
    const drawing = readSvg(
      svg(`<switch>${own}<g systemLanguage="fi"/><rect width="9" height="9" fill="#123456"/></switch>`),
    );
    expect(drawing.nodes).toMatchObject([{ kind: 'shape', fill: { color: '#123456' } }]);
    expect(drawing.notes).toEqual([]);
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

it('a radial gradient keeps its ellipse through a turn and a stretch', () => {
  const gradient =
    '<radialGradient id="g" gradientUnits="userSpaceOnUse" cx="5" cy="5" r="2" gradientTransform="rotate(30 5 5) translate(5 5) scale(1 3) translate(-5 -5)"><stop/><stop offset="1" stop-color="#fff"/></radialGradient>';
  const [s] = shapes(`${gradient}<rect width="40" height="20" fill="url(#g)"/>`);
  const ink = s?.fill as Extract<NonNullable<SvgShape['fill']>, { style: 'radial' }>;
  // Its longer half axis is the one that was stretched, a quarter turn on from the other, 6 pixels long.
  expect(ink.breadth).toBeCloseTo(1 / 3, 3);
  const [dx, dy] = [ink.to[0] - ink.from[0], ink.to[1] - ink.from[1]];
  expect(Math.hypot(dx, dy)).toBeCloseTo(6, 9);
  expect(Math.abs(dx * Math.cos(Math.PI / 6) + dy * Math.sin(Math.PI / 6))).toBeCloseTo(0, 9);
});

it('a gradient that repeats has its stops as often as its shape is long', () => {
  const gradient =
    '<linearGradient id="g" x1="0.25" x2="0.5" spreadMethod="reflect"><stop stop-color="#f00"/><stop offset="1" stop-color="#00f"/></linearGradient>';
  const [s] = shapes(`${gradient}<rect width="40" height="20" fill="url(#g)"/>`);
  const ink = s?.fill as Extract<NonNullable<SvgShape['fill']>, { style: 'linear' }>;
  expect([ink.from, ink.to]).toEqual([
    [0, 0],
    [40, 0],
  ]);
  expect(ink.stops.map(({ at, color }) => `${at} ${color}`)).toEqual([
    ...['0 #0000FF', '0.25 #FF0000', '0.25 #FF0000', '0.5 #0000FF'],
    ...['0.5 #0000FF', '0.75 #FF0000', '0.75 #FF0000', '1 #0000FF'],
  ]);
});

it('clips become masks, opacity groups, text text', () => {
  const drawing = readSvg(
    svg(
      '<clipPath id="c"><circle cx="5" cy="5" r="4"/></clipPath><g clip-path="url(#c)" opacity=".5"><rect width="9" height="9"/></g>' +
        '<text x="3" y="8" font-family="\'Lora\', serif" font-size="12" font-weight="bold" text-anchor="middle">Night <tspan>pass</tspan></text>',
    ),
  );
  const [group, text] = drawing.nodes as [SvgGroup, SvgText];
  expect([group.opacity, group.cut?.by]).toEqual([0.5, 'outlines']);
  expect([text.text, text.family, text.weight, text.size, text.align]).toEqual([
    'Night pass',
    'Lora',
    700,
    12,
    'center',
  ]);
});

it('a text along a path begins where it says', () => {
  const text = (anchor: string, offset: string, path = 'M0 0H80') => {
    const body = `<path id="p" d="${path}" transform="translate(5 40)" fill="none"/><text text-anchor="${anchor}">Ride <textPath href="#p" startOffset="${offset}">home</textPath></text>`;
    const [before, along] = readSvg(svg(body)).nodes as SvgText[];
    expect(before?.text).toBe('Ride');
    expect(along?.along?.path.vertices[0]?.slice(0, 2)).toEqual([5, 40]);
    return [along?.text, along?.along?.stands, along?.along?.shift];
  };
  expect(text('start', '20')).toEqual(['home', 'start', 0.25]);
  expect(text('middle', '50%')).toEqual(['home', 'middle', 0]);
  expect(text('end', '100%')).toEqual(['home', 'end', 0]);
  expect(text('middle', '25%', 'M0 0H80V20H0z')).toEqual(['home', 'middle', 0.25]);
});

describe('what cannot be kept', () => {
  const rect = (style: string) => `<rect width="9" height="9" ${style}/>`;
  it.each([
    ['<image href="http://example.invalid/x.png"/>', 'a picture in a file of its own is left out'],
    ['<image href="data:image/bmp;base64,AA"/>', 'a picture of a kind that is not read is left out'],
    ['<script>alert(1)</script>', 'a script is left out'],
    ['<use href="http://example.invalid/x.svg#a"/>', 'a part of another file is left out'],
    [`<filter id="f"><feTurbulence/></filter>${rect('filter="url(#f)"')}`, 'a filter is left out'],
    [
      `<filter id="f"><feComponentTransfer><feFuncR type="gamma"/></feComponentTransfer></filter>${rect('filter="url(#f)"')}`,
      'a filter is left out',
    ],
    [rect('clip-path="circle(4px)"'), 'a clip that is written as a shape is left out'],
    [rect('style="mix-blend-mode:plus-lighter"'), 'a blend mode is left out'],
    ['<pattern id="p" width="2" height="2"/><text fill="url(#p)">Night</text>', 'a pattern on a text is left out'],
    [
      `<pattern id="p" width="0.01" height="0.01"><path d="M0 0h1"/></pattern>${rect('fill="url(#p)"')}`,
      'a pattern of more than 2,500 tiles is left out',
    ],
    [
      `<radialGradient id="g" fx="0.2"><stop/><stop offset="1"/></radialGradient>${rect('fill="url(#g)"')}`,
      'a gradient with its focus off its middle is drawn from its middle',
    ],
    ['<text><textPath href="#p">Night</textPath></text>', 'a text along a path that is not there is left out'],
    ['<foreignObject><body/></foreignObject>', 'foreign content is left out'],
  ])('is named: %s', (body, note) => {
    expect(readSvg(svg(body)).notes).toContain(note);
  });
});

describe('what is done to a group as one picture', () => {
  const effects = (filter: string, attributes = 'filter="url(#f)"') => {
    const drawing = readSvg(svg(`${filter}<g ${attributes}><rect width="9" height="9"/></g>`));
    expect(drawing.notes).toEqual([]);
    return (drawing.nodes[0] as SvgGroup).effects;
  };
  const written = (body: string) => effects(`<filter id="f">${body}</filter>`);
  const shadow = {
    kind: 'shadow',
    move: [3, 4],
    deviation: 2,
    spread: 0,
    color: '#FF0000',
    strength: 0.5,
    alone: false,
  };
  it.each([
    ['<feDropShadow dx="3" dy="4" stdDeviation="2" flood-color="red" flood-opacity="0.5"/>'],
    [
      '<feOffset in="SourceAlpha" dx="3" dy="4"/><feGaussianBlur stdDeviation="2" result="b"/><feFlood flood-color="#f008"/>' +
        '<feComposite in2="b" operator="in"/><feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/></feMerge>',
    ],
    [
      '<feGaussianBlur in="SourceAlpha" stdDeviation="2"/><feOffset dx="3" dy="4"/>' +
        '<feColorMatrix values="0 0 0 0 1  0 0 0 0 0  0 0 0 0 0  0 0 0 0.5 0" result="s"/><feBlend in="SourceGraphic" in2="s"/>',
    ],
  ])('is a shadow, however it is written: %s', (body) => {
    const [found] = written(body);
    expect(found).toMatchObject({ ...shadow, strength: expect.closeTo(0.5, 1) as number });
  });
  it('is soft by the deviation that is said, through what enlarges it', () => {
    expect(written('<feGaussianBlur stdDeviation="3"/>')).toEqual([{ kind: 'blur', deviation: 3, way: 'both' }]);
    expect(written('<feGaussianBlur stdDeviation="0 3"/>')).toEqual([{ kind: 'blur', deviation: 3, way: 'down' }]);
    expect(effects('', 'transform="scale(2)" style="filter:blur(3px)"')).toEqual([
      { kind: 'blur', deviation: 6, way: 'both' },
    ]);
  });
  it('is nothing where what is said of it is not there', () => {
    const rect = '<rect width="9" height="9" filter="url(#f)" mask="url(#m)" clip-path="url(#c)"/>';
    expect(readSvg(svg(rect))).toMatchObject({ nodes: [{ kind: 'shape' }], notes: [] });
  });
  it('is what a style says, in its order', () => {
    expect(effects('', 'style="filter:grayscale(25%) drop-shadow(rgb(255 0 0 / 0.5) 3px 4px 2px) invert(1)"')).toEqual([
      { kind: 'colors', card: 'colorturn', values: { strength: 0.75 } },
      { ...shadow, strength: expect.closeTo(0.5, 1) as number },
      { kind: 'colors', card: 'invert', values: { strength: 1 } },
    ]);
  });
  it('is what tables and lines do to all colours', () => {
    const through = (values: string) => {
      const all = ['R', 'G', 'B'].map((channel) => `<feFunc${channel} ${values}/>`).join('');
      const attributes = 'color-interpolation-filters="sRGB"';
      return written(`<feComponentTransfer ${attributes}>${all}</feComponentTransfer>`).map(
        (e) => e.kind === 'colors' && e.values,
      );
    };
    expect(through('type="linear" slope="1.5"')).toEqual([{ brightness: 1.5 }]);
    expect(through('type="linear" slope="2" intercept="-0.5"')).toEqual([{ contrast: 2 }]);
    expect(through('type="table" tableValues="1 0.5 0"')).toEqual([{ strength: 1 }]);
    expect(through('type="table" tableValues="0.2 0.8"')).toEqual([{ contrast: expect.closeTo(0.6, 6) as number }]);
  });
  it('is two shadows, the nearer one laid first', () => {
    const near = '<feGaussianBlur in="SourceAlpha" stdDeviation="1" result="near"/>';
    const far = '<feGaussianBlur in="SourceAlpha" stdDeviation="5" result="far"/>';
    const nodes = ['far', 'near', 'SourceGraphic'].map((name) => `<feMergeNode in="${name}"/>`).join('');
    expect(written(`${near}${far}<feMerge>${nodes}</feMerge>`)).toMatchObject([{ deviation: 1 }, { deviation: 5 }]);
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
  it('with variables that multiply end', () => {
    const levels = Array.from({ length: 9 }, (_, i) => `--v${i}:${`var(--v${i + 1}) `.repeat(40)}`);
    expect(
      colors(`<g style="${levels.join(';')};--v9:#000001"><rect width="9" height="9" fill="var(--v0)"/></g>`),
    ).toEqual([]);
  });
  it('with patterns in patterns end, and gradients that repeat without end are drawn once', () => {
    const rect = (i: number) => `<rect width="9" height="9" fill="url(#p${i})"/>`;
    const deep = Array.from(
      { length: 30 },
      (_, i) => `<pattern id="p${i}" width="0.4" height="0.4">${rect(i + 1)}</pattern>`,
    );
    expect(() => readSvg(svg(`${deep.join('')}<pattern id="p30" width="1" height="1"/>${rect(0)}`))).not.toThrow();
    const gradient =
      '<linearGradient id="g" x1="0" x2="1e-9" spreadMethod="repeat"><stop/><stop offset="1" stop-color="#fff"/></linearGradient>';
    const drawing = readSvg(svg(`${gradient}<rect width="9" height="9" fill="url(#g)"/>`));
    expect(drawing.notes).toEqual(['a gradient that repeats more often than 32 colours last is drawn once']);
    expect((drawing.nodes[0] as SvgShape).fill).toMatchObject({ style: 'linear', stops: [{ at: 0 }, { at: 1 }] });
  });
  it('with filters, masks, patterns and markers that lead to themselves end', () => {
    const merged = '<feMerge result="a"><feMergeNode in="a"/><feMergeNode in="a"/></feMerge>'.repeat(60);
    const rect = '<rect width="9" height="9" filter="url(#f)" mask="url(#m)" clip-path="url(#c)" fill="url(#p)"/>';
    const line = '<path d="M0 0L1 1L2 2" stroke="red" marker-mid="url(#k)"/>';
    const all = `${rect}${rect}${line}`;
    const body =
      `<filter id="f"><feOffset result="a"/>${merged}</filter><mask id="m" mask="url(#m)">${all}</mask>` +
      `<clipPath id="c" clip-path="url(#c)">${all}</clipPath><pattern id="p" width="1" height="1">${all}</pattern>` +
      `<marker id="k" overflow="visible">${all}</marker>`;
    const { notes } = readSvg(svg(body + all));
    expect(notes).toContain('a filter is left out');
    expect(notes).toContain('what comes after 20,000 elements, all copies counted, is left out');
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
