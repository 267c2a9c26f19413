/** Properties that a drawing takes from the page's style and needs on its own. */
const KEPT = ['stroke-width', 'stroke-dasharray', 'stroke-linecap', 'stroke-linejoin', 'font-family', 'font-size', 'font-weight', 'text-anchor', 'paint-order'];

/** Nothing is painted: no colour, or one that is seen through. */
const isClear = (colour: string) => colour === 'none' || colour === 'transparent' || /^rgba\(.*,\s*0\)$/.test(colour);

/** Black on white: bodies of chips and the halo round a figure are white, all else that is painted is black. */
function inks(element: SVGElement, style: CSSStyleDeclaration): string[] {
  const [body, text] = [element.tagName === 'rect', element.tagName === 'text'];
  const ink = (property: 'fill' | 'stroke', white: boolean) => (isClear(style.getPropertyValue(property)) ? 'none' : white ? '#fff' : '#000');
  return [`fill:${ink('fill', body)}`, `stroke:${ink('stroke', text)}`];
}

/** A drawing of the page as an SVG file that stands alone, black on white whatever the bench's light. */
export function svgFile(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = [...svg.querySelectorAll<SVGElement>('*')];
  const to = [...copy.querySelectorAll<SVGElement>('*')];
  from.forEach((element, i) => {
    const style = getComputedStyle(element);
    to[i]!.setAttribute('style', [...inks(element, style), ...KEPT.map((name) => `${name}:${style.getPropertyValue(name)}`)].join(';'));
    for (const attribute of ['class', 'role', 'tabindex']) to[i]!.removeAttribute(attribute);
  });
  copy.removeAttribute('class');
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('style', 'background:#fff');
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(copy)}\n`;
}
