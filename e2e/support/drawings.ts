/** Drawings of one means of SVG each, 96 pixels wide: what the import keeps is compared with what Chromium draws. */

const svg = (body: string, attributes = 'width="96" height="96" viewBox="0 0 96 96"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${body}</svg>`;

/** 40 × 30 pixels: orange, with a blue quarter and a small teal corner. */
export const PICTURE =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAACgAAAAeCAYAAABe3VzdAAAABHNCSVQICAgIfAhkiAAAAAFzUkdCAK7OHOkAAABqSURBVFiF7daxCYBADEDRO+cRexs3s3ceCydwARdxhbsFbOTnIMV/A4RPIJDazq2VQPO+Ro4rU+i0AQykDKQMpAykDKQMpNIH1uh3K1r6DRpIpQ+sy339OpLnPcbVfEi/QQMpAykDKQOpDgM3C+aD0bx6AAAAAElFTkSuQmCC';

const STOPS =
  '<stop offset="0" stop-color="#FFB23E"/><stop offset="0.6" stop-color="#2B2F77"/><stop offset="1" stop-color="#2EC4B6"/>';
const linear = (attributes: string): string => `<linearGradient id="g" ${attributes}>${STOPS}</linearGradient>`;
const radial = (attributes: string): string => `<radialGradient id="g" ${attributes}>${STOPS}</radialGradient>`;
const FILLED = '<rect x="8" y="20" width="80" height="48" fill="url(#g)"/>';

const DISC = '<circle cx="48" cy="48" r="28" fill="#2B2F77"/>';
const TWO =
  '<rect x="12" y="12" width="50" height="50" fill="#FFB23E"/><circle cx="58" cy="58" r="26" fill="#2EC4B6"/>';
const LINE = 'd="M14 70L34 24L62 60L82 20" fill="none" stroke="#2B2F77" stroke-width="4"';
const ARROW = '<path d="M0 0L10 5L0 10z" fill="#D1495B"/>';

/** A filter as drawing programs write the shadow of a layer: flood, hardened alpha, offset, blur, colour, and blends. */
const WRITTEN_SHADOW =
  '<filter id="f" x="0" y="0" width="96" height="96" filterUnits="userSpaceOnUse" color-interpolation-filters="sRGB">' +
  '<feFlood flood-opacity="0" result="nothing"/><feColorMatrix in="SourceAlpha" values="0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 127 0" result="hard"/>' +
  '<feOffset dx="3" dy="6"/><feGaussianBlur stdDeviation="3"/><feComposite in2="hard" operator="out"/>' +
  '<feColorMatrix values="0 0 0 0 0.4 0 0 0 0 0 0 0 0 0 0.1 0 0 0 0.6 0"/><feBlend in2="nothing" result="shadow"/>' +
  '<feBlend in="SourceGraphic" in2="shadow"/></filter>';
const MERGED_SHADOW =
  '<filter id="f" x="-50%" y="-50%" width="200%" height="200%"><feGaussianBlur in="SourceAlpha" stdDeviation="2.5"/><feOffset dx="5" dy="4" result="soft"/>' +
  '<feFlood flood-color="#D1495B" flood-opacity="0.8"/><feComposite in2="soft" operator="in"/><feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/></feMerge></filter>';

export const DRAWINGS: Readonly<Record<string, string>> = {
  'a linear gradient of the page': svg(linear('gradientUnits="userSpaceOnUse" x1="0" y1="0" x2="96" y2="96"') + FILLED),
  'a linear gradient by percentages of the page': svg(
    linear('gradientUnits="userSpaceOnUse" x1="10%" y1="0%" x2="90%" y2="50%"') + FILLED,
  ),
  'a linear gradient that repeats': svg(linear('x1="0.3" y1="0.2" x2="0.5" y2="0.4" spreadMethod="repeat"') + FILLED),
  'a linear gradient that goes back and forth': svg(linear('x1="0.4" x2="0.6" spreadMethod="reflect"') + FILLED),
  'a linear gradient through a slant': svg(linear('gradientTransform="skewX(30) rotate(20)"') + FILLED),
  'a radial gradient in a wide box': svg(radial('') + FILLED),
  'a radial gradient through a turn and a stretch': svg(
    radial(
      'gradientUnits="userSpaceOnUse" cx="0" cy="0" r="20" gradientTransform="translate(50 44) rotate(30) scale(2 0.7)"',
    ) + FILLED,
  ),
  'a radial gradient that repeats': svg(radial('r="0.2" spreadMethod="repeat"') + FILLED),
  'a radial gradient that goes back and forth': svg(radial('r="0.25" cx="0.3" spreadMethod="reflect"') + FILLED),
  'a gradient of another': svg(
    `${linear('x1="0" y1="0" x2="0" y2="1"')}<linearGradient id="h" href="#g" x2="1"/>${FILLED.replace('#g', '#h')}`,
  ),
  'a gradient on a turned shape': svg(`${radial('')}<g transform="rotate(25 48 48)">${FILLED}</g>`),
  'a stroke that is stretched': svg(
    '<g transform="translate(10 20) scale(3 1)"><rect x="2" y="4" width="20" height="40" fill="none" stroke="#2B2F77" stroke-width="4"/></g>',
  ),
  'a stroke that is slanted, with dashes': svg(
    '<g transform="skewX(30)"><circle cx="30" cy="48" r="24" fill="#FFB23E" stroke="#2B2F77" stroke-width="8" stroke-dasharray="12 6"/></g>',
  ),
  'dashes by the length of a path': svg(`<path ${LINE} pathLength="10" stroke-dasharray="1 1"/>`),
  'a stroke below its fill': svg(
    '<circle cx="48" cy="48" r="28" fill="#FFB23E" stroke="#2B2F77" stroke-width="16" paint-order="stroke"/>',
  ),
  'a clip of two shapes': svg(
    `<clipPath id="c"><rect x="10" y="10" width="50" height="50"/><path d="M90 90V30H40V90z"/></clipPath><g clip-path="url(#c)">${DISC}${TWO}</g>`,
  ),
  'a clip of shapes without a fill': svg(
    `<clipPath id="c"><circle cx="48" cy="48" r="24" fill="none"/></clipPath><g clip-path="url(#c)">${TWO}</g>`,
  ),
  'a clip by the evenodd rule': svg(
    `<clipPath id="c"><path clip-rule="evenodd" d="M8 8h80v80h-80zM28 28h40v40h-40z"/></clipPath><g clip-path="url(#c)">${TWO}</g>`,
  ),
  'a clip by shares of a turned box': svg(
    `<clipPath id="c" clipPathUnits="objectBoundingBox"><circle cx="0.5" cy="0.5" r="0.5"/></clipPath><rect x="20" y="30" width="50" height="30" fill="#2EC4B6" transform="rotate(30 48 48)" clip-path="url(#c)"/>`,
  ),
  'a clip that is clipped': svg(
    `<clipPath id="d"><rect x="0" y="0" width="48" height="96"/></clipPath><clipPath id="c" clip-path="url(#d)"><circle cx="48" cy="48" r="30"/></clipPath><g clip-path="url(#c)">${TWO}</g>`,
  ),
  'a clip and a mask': svg(
    `<clipPath id="c"><circle cx="48" cy="48" r="34"/></clipPath><mask id="m"><rect width="96" height="60" fill="#999"/></mask><g clip-path="url(#c)" mask="url(#m)">${TWO}</g>`,
  ),
  'a mask by brightness': svg(
    `${linear('')}<mask id="m" maskUnits="userSpaceOnUse" x="0" y="0" width="96" height="96"><rect width="96" height="96" fill="url(#g)"/></mask><g mask="url(#m)">${TWO}</g>`,
  ),
  'a mask by opacity': svg(
    `<mask id="m" mask-type="alpha"><circle cx="40" cy="40" r="30" fill="#000" fill-opacity="0.7"/></mask><g mask="url(#m)">${TWO}</g>`,
  ),
  'a mask within its region': svg(
    `<mask id="m" x="0" y="0" width="0.5" height="1"><rect width="96" height="96" fill="#fff"/></mask><g mask="url(#m)">${TWO}</g>`,
  ),
  'a mask by shares of its box': svg(
    `<mask id="m" maskContentUnits="objectBoundingBox"><circle cx="0.5" cy="0.5" r="0.4" fill="#fff"/></mask><g mask="url(#m)">${TWO}</g>`,
  ),
  'a mask with a hole': svg(
    `<mask id="m"><rect width="96" height="96" fill="#fff"/><circle cx="48" cy="48" r="14"/></mask><g mask="url(#m)">${TWO}</g>`,
  ),
  'blend modes': svg(
    `<rect width="96" height="96" fill="#F2E9DC"/>${TWO}<rect x="4" y="30" width="88" height="20" fill="#D1495B" style="mix-blend-mode:multiply"/><g style="mix-blend-mode:screen"><rect x="40" y="4" width="20" height="88" fill="#2B2F77"/></g>`,
  ),
  'what blends in a group alone': svg(
    `<rect width="96" height="96" fill="#F2E9DC"/><g style="isolation:isolate">${TWO}<rect x="4" y="30" width="88" height="20" fill="#D1495B" style="mix-blend-mode:multiply"/></g><g style="filter:drop-shadow(2px 3px 1px #0008)"><rect x="50" y="4" width="30" height="40" fill="#2B2F77" style="mix-blend-mode:screen"/></g>`,
  ),
  'a blur': svg(
    `<filter id="f" color-interpolation-filters="sRGB"><feGaussianBlur stdDeviation="4"/></filter><g filter="url(#f)">${DISC}</g>`,
  ),
  'a blur along one way': svg(
    `<filter id="f" x="-50%" width="200%"><feGaussianBlur stdDeviation="8 0"/></filter><g filter="url(#f)">${DISC}</g>`,
  ),
  'a dropped shadow': svg(
    `<filter id="f" x="-50%" y="-50%" width="200%" height="200%"><feDropShadow dx="6" dy="4" stdDeviation="3" flood-color="#D1495B" flood-opacity="0.7"/></filter><g filter="url(#f)">${DISC}</g>`,
  ),
  'a shadow as it is written': svg(`${WRITTEN_SHADOW}<g filter="url(#f)">${DISC}</g>`),
  'a shadow that is merged': svg(`${MERGED_SHADOW}<g filter="url(#f)">${DISC}</g>`),
  'a shadow alone': svg(
    `<filter id="f"><feGaussianBlur in="SourceAlpha" stdDeviation="2"/><feColorMatrix values="0 0 0 0 1 0 0 0 0 0 0 0 0 0 0 0 0 0 0.5 0"/></filter><g filter="url(#f)">${DISC}</g>`,
  ),
  'a shadow in a style': svg(`<g style="filter: drop-shadow(4px 5px 3px rgba(209, 73, 91, 0.8))">${DISC}</g>`),
  'colours in a style': svg(`<g style="filter: hue-rotate(90deg) saturate(60%) brightness(1.2)">${TWO}</g>`),
  'inverted and grey': svg(`<g style="filter:grayscale(1) invert(80%)">${TWO}</g>`),
  'a shadow that is turned and enlarged': svg(
    `<filter id="f" x="-1" y="-1" width="3" height="3"><feDropShadow dx="4" dy="0" stdDeviation="1.5"/></filter><g transform="translate(48 48) rotate(60) scale(2)"><rect x="-10" y="-6" width="20" height="12" fill="#FFB23E" filter="url(#f)"/></g>`,
  ),
  arrowheads: svg(
    `<marker id="m" viewBox="0 0 10 10" refX="5" refY="5" markerWidth="4" markerHeight="4" orient="auto-start-reverse">${ARROW}</marker><path ${LINE} marker-start="url(#m)" marker-end="url(#m)"/>`,
  ),
  'markers on all points': svg(
    `<marker id="m" markerWidth="6" markerHeight="6" refX="3" refY="3" orient="auto" markerUnits="userSpaceOnUse"><rect width="9" height="6" fill="#D1495B"/></marker><polygon points="20,20 76,30 60,76" fill="#FFB23E" stroke="#2B2F77" style="marker:url(#m)"/>`,
  ),
  'markers on a curve, at an angle of their own': svg(
    `<marker id="m" viewBox="0 0 10 10" refX="0" refY="5" orient="45" overflow="visible">${ARROW}</marker><path d="M16 60C16 20 60 20 60 50S80 90 84 30" fill="none" stroke="#2B2F77" stroke-width="3" marker-mid="url(#m)" marker-end="url(#m)"/>`,
  ),
  'a pattern of the page': svg(
    '<pattern id="p" width="12" height="10" patternUnits="userSpaceOnUse"><circle cx="5" cy="5" r="3" fill="#D1495B"/></pattern><circle cx="48" cy="48" r="36" fill="url(#p)" stroke="#2B2F77" stroke-width="3"/>',
  ),
  'a pattern whose tiles cut': svg(
    '<pattern id="p" x="3" y="2" width="16" height="16" patternUnits="userSpaceOnUse" patternTransform="translate(5 3)"><rect width="16" height="16" fill="#FFB23E"/><circle r="9" fill="#2B2F77"/></pattern><rect x="10" y="10" width="76" height="70" fill="url(#p)"/>',
  ),
  'a pattern that is turned': svg(
    '<pattern id="p" width="20" height="20" patternUnits="userSpaceOnUse" patternTransform="rotate(30) scale(0.9 1.4)"><rect x="2" y="2" width="14" height="12" fill="#2B2F77"/></pattern><rect x="10" y="10" width="76" height="70" fill="url(#p)"/>',
  ),
  'a pattern on a line': svg(
    '<pattern id="p" width="8" height="8" patternUnits="userSpaceOnUse"><rect width="8" height="8" fill="#FFB23E"/><rect width="4" height="4" fill="#2B2F77"/></pattern><path d="M16 16V80H80" fill="#2EC4B6" fill-opacity="0.4" stroke="url(#p)" stroke-width="16"/>',
  ),
  'a radial gradient on a line, in a wide box': svg(
    `${radial('')}<rect x="14" y="28" width="68" height="40" rx="8" fill="#F2E9DC" stroke="url(#g)" stroke-width="12" stroke-dasharray="20 6"/>`,
  ),
  'a pattern by shares of a box': svg(
    '<pattern id="p" width="0.25" height="0.5" viewBox="0 0 10 10"><path d="M0 10L5 0L10 10z" fill="#2EC4B6"/></pattern><rect x="8" y="24" width="80" height="40" fill="url(#p)"/>',
  ),
  'a shape filled with a picture': svg(
    `<defs><pattern id="p" patternContentUnits="objectBoundingBox" width="1" height="1"><use href="#i" transform="translate(-0.1) scale(0.03 0.0333)"/></pattern><image id="i" width="40" height="30" preserveAspectRatio="none" href="${PICTURE}"/></defs><circle cx="48" cy="48" r="33.3" fill="url(#p)"/>`,
  ),
  'a shape, used for its shadow, its fill and its mask': svg(
    '<defs><path id="a" d="M20 20h56v50h-56z"/><filter id="f" x="-50%" y="-50%" width="200%" height="200%"><feOffset dy="6" in="SourceAlpha" result="o"/><feGaussianBlur stdDeviation="3" in="o" result="b"/><feColorMatrix values="0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0.4 0" in="b"/></filter></defs>' +
      '<mask id="m" fill="#fff"><use href="#a"/></mask><use fill="#000" filter="url(#f)" href="#a"/><use fill="#FFB23E" href="#a"/><g mask="url(#m)"><circle cx="70" cy="30" r="24" fill="#2EC4B6"/></g>',
  ),
  pictures: svg(
    `<image x="8" y="8" width="40" height="40" href="${PICTURE}" preserveAspectRatio="none"/><image x="52" y="8" width="36" height="40" href="${PICTURE}"/><image x="8" y="54" width="30" height="34" href="${PICTURE}" preserveAspectRatio="xMinYMid slice"/><image transform="translate(60 56) skewX(20)" width="24" height="30" opacity="0.5" preserveAspectRatio="none" xlink:href="${PICTURE}"/>`,
  ),
  'a symbol that shows a part': svg(
    '<symbol id="s" viewBox="0 0 20 20"><circle cx="10" cy="10" r="14" fill="#2EC4B6"/></symbol><use href="#s" x="8" y="8" width="40" height="40"/><use href="#s" x="52" y="40" width="36" height="50" transform="rotate(10 70 60)"/>',
  ),
  'a view in a view': svg(
    '<svg x="10" y="10" width="60" height="40" viewBox="0 0 30 30" preserveAspectRatio="xMidYMid slice"><circle cx="15" cy="15" r="14" fill="#D1495B"/></svg><svg x="50" y="50" width="40" height="40" overflow="visible"><rect x="10" y="10" width="40" height="40" fill="#2B2F77"/></svg>',
  ),
  'a style sheet': svg(
    '<style>:root{--own:#D1495B} g > rect{fill:var(--own)} g rect.b{fill:var(--none, #2EC4B6)} #x{fill:#000 !important} .t{transform:translate(10px, 5px) rotate(0.05turn);transform-origin:center}</style><rect width="20" height="20" x="4" y="4"/><g><rect x="30" y="4" width="20" height="20"/><rect class="b t" x="30" y="30" width="30" height="20"/><rect id="x" style="fill:#0f0" x="60" y="60" width="30" height="20"/></g>',
  ),
  'texts by their anchors, moved and struck': svg(
    '<g font-family="Inter" font-weight="700" font-size="16" fill="#2B2F77"><text x="4" y="18">Ride</text><text x="48" y="40" text-anchor="middle" letter-spacing="2">home</text>' +
      '<text x="92" y="62" dx="-4" dy="2" text-anchor="end" fill="#FFB23E" stroke="#2B2F77" paint-order="stroke" stroke-width="3">easy</text><text x="6" y="88">to <tspan x="40" y="88" font-size="24">12</tspan></text></g>',
  ),
  'a text that is slanted and turned': svg(
    '<text x="10" y="30" transform="rotate(20) skewX(-25) scale(1.5 1)" font-family="Inter" font-weight="600" font-size="20" fill="#D1495B">Night</text>',
  ),
  'texts along paths': svg(
    '<path id="p" d="M10 60A38 38 0 0 1 86 60" fill="none"/><path id="q" d="M66 66A18 18 0 1 1 66 65.9z" fill="none"/><g font-family="Inter" font-weight="600" font-size="12" fill="#2B2F77">' +
      '<text><textPath href="#p" startOffset="10%">Ride home</textPath></text><text text-anchor="middle" font-size="9"><textPath href="#q" startOffset="75%">easy</textPath></text></g>',
  ),
  'a text filled with a gradient of the page': svg(
    `${linear('gradientUnits="userSpaceOnUse" x1="10" y1="0" x2="90" y2="0"')}<text x="8" y="60" font-family="Inter" font-weight="800" font-size="40" fill="url(#g)">Lamp</text>`,
  ),
  'a text that clips': svg(
    `<clipPath id="c"><text x="6" y="62" font-family="Inter" font-weight="800" font-size="42">Late</text></clipPath><g clip-path="url(#c)">${TWO}</g>`,
  ),
};
