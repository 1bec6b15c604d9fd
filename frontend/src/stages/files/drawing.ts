/** A drawing of the page as a picture that stands by itself: its inks written into it, its faces of type with it. */

import { shipped } from '../../api/client';

/** What a mark of a drawing has from the page's styles. */
const INKS = [
  'fill', 'fill-opacity', 'stroke', 'stroke-width', 'stroke-dasharray', 'stroke-linecap', 'stroke-linejoin', 'stroke-opacity', 'opacity',
  'font-family', 'font-size', 'font-weight', 'font-stretch', 'letter-spacing', 'text-anchor', 'dominant-baseline', 'visibility',
] as const; // prettier-ignore

async function asData(url: string): Promise<string> {
  const blob = await shipped(url);
  return new Promise((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result));
    reader.onerror = () => failed(new Error('A face of type could not be read.'));
    reader.readAsDataURL(blob);
  });
}

/** The faces of type that the page has loaded, as rules with the type in them. */
async function faces(): Promise<string> {
  const loaded = new Set([...document.fonts].filter((f) => f.status === 'loaded').map(({ family, weight, unicodeRange }) => `${family.replaceAll('"', '')} ${weight} ${unicodeRange}`)); // prettier-ignore
  const rules: string[] = [];
  for (const sheet of document.styleSheets) {
    for (const rule of sheet.cssRules) {
      if (!(rule instanceof CSSFontFaceRule)) continue;
      const { style } = rule;
      const family = style.getPropertyValue('font-family').replaceAll('"', '');
      const weight = style.getPropertyValue('font-weight');
      const range = style.getPropertyValue('unicode-range');
      const url = /url\("?([^")]+\.woff2)"?\)/.exec(style.getPropertyValue('src'))?.[1];
      if (!url || !loaded.has(`${family} ${weight} ${range}`)) continue;
      const data = await asData(new URL(url, sheet.href ?? document.baseURI).href);
      rules.push(
        `@font-face{font-family:"${family}";font-weight:${weight};unicode-range:${range};src:url(${data}) format("woff2")}`,
      );
    }
  }
  return rules.join('\n');
}

/** An SVG of the page as one that stands by itself: its text, and its size in pixels. */
export async function standing(svg: SVGSVGElement): Promise<{ text: string; width: number; height: number }> {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = [svg, ...svg.querySelectorAll<SVGElement>('*')];
  const to = [copy, ...copy.querySelectorAll<SVGElement>('*')];
  from.forEach((element, i) => {
    const own = to[i];
    if (!own) return;
    const inks = getComputedStyle(element);
    own.removeAttribute('class');
    own.setAttribute('style', INKS.map((ink) => `${ink}:${inks.getPropertyValue(ink)}`).join(';'));
  });
  const [, , width = 0, height = 0] = (svg.getAttribute('viewBox') ?? '').split(' ').map(Number);
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  paper.setAttribute('width', '100%');
  paper.setAttribute('height', '100%');
  paper.setAttribute('fill', getComputedStyle(document.body).backgroundColor);
  const style = document.createElementNS('http://www.w3.org/2000/svg', 'style');
  style.textContent = await faces();
  copy.prepend(style, paper);
  return { text: new XMLSerializer().serializeToString(copy), width, height };
}

/** The same as a PNG, twice as large as it is drawn. */
export async function asPng({ text, width, height }: Awaited<ReturnType<typeof standing>>): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width * 2;
  canvas.height = height * 2;
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((done, failed) =>
    canvas.toBlob((blob) => (blob ? done(blob) : failed(new Error('No picture could be made.'))), 'image/png'),
  );
}

const KEPT_MS = 10_000; // a browser may begin to save a moment later
export function keep(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  window.setTimeout(() => URL.revokeObjectURL(link.href), KEPT_MS);
}
