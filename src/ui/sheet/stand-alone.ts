/** Paint and type that a drawing takes from the page’s style sheet. */
const PAINT = [
  'fill',
  'stroke',
  'font-family',
  'font-size',
  'font-weight',
  'font-stretch',
  'paint-order',
  'stroke-width',
];

/** A drawing as a file that needs no style sheet, with its true size in millimetres on it. */
export function standAlone(svg: SVGSVGElement, widthMm: number, heightMm: number): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const originals = [svg, ...svg.querySelectorAll('*')];
  const copies = [copy, ...copy.querySelectorAll('*')];
  originals.forEach((original, i) => {
    const style = getComputedStyle(original);
    const made = copies[i]!;
    made.removeAttribute('class');
    made.removeAttribute('style');
    for (const name of ['fill', 'stroke']) {
      if (original.tagName === 'text' || original.tagName === 'tspan' || original.hasAttribute(name))
        made.setAttribute(name, style.getPropertyValue(name));
    }
    if (original.tagName !== 'text' && original.tagName !== 'tspan') return;
    for (const name of PAINT.slice(2)) made.setAttribute(name, style.getPropertyValue(name));
  });
  const { width, height } =
    svg.viewBox.baseVal.width > 0 ? svg.viewBox.baseVal : { width: svg.clientWidth, height: svg.clientHeight };
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', `${widthMm}mm`);
  copy.setAttribute('height', `${heightMm}mm`);
  copy.setAttribute('viewBox', `0 0 ${width} ${height}`);
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(copy)}\n`;
}
