/** Properties that a drawing takes from the page's style and needs on its own. */
const KEPT = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'opacity',
  'paint-order',
];

/** A drawing of the page as an SVG file that stands alone, black on white whatever the bench's light. */
export function svgFile(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = [svg, ...svg.querySelectorAll<SVGElement>('*')];
  const to = [copy, ...copy.querySelectorAll<SVGElement>('*')];
  from.forEach((element, i) => {
    const style = getComputedStyle(element);
    to[i]!.setAttribute('style', KEPT.map((name) => `${name}:${style.getPropertyValue(name)}`).join(';'));
    to[i]!.removeAttribute('class');
  });
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('style', 'background:#fff');
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(copy)}\n`;
}
