import { jsPDF } from 'jspdf';
import { svg2pdf } from 'svg2pdf.js';
import { MUSIC_FONT, piecesOf } from '../tab/index.ts';
import { breath, loadDocumentFonts, type DocumentFonts } from './fonts.ts';
import { MUSIC_SCALE, type HandoutBlock, type WordsLook } from './handout.ts';
import type { PagePlan } from './pagePlan.ts';
import { paperPixels, type PaperName } from './paper.ts';
import { WORDS } from './wordLooks.ts';

/** Points to a pixel. */
const PT = 0.75;
/** So long the page may be kept busy at a stretch, milliseconds. */
const SLICE_MS = 50;
const FAMILY = 'DejaVu Sans';

/** What a document is made of and for. */
export interface PdfJob {
  readonly plan: PagePlan<HandoutBlock>;
  readonly paper: PaperName;
  readonly title: string;
  /** Told how much is done, 0 to 1. */
  readonly tell: (share: number) => void;
  readonly signal: AbortSignal;
}

/**
 * A handout as PDF: vectors, words as text in an embedded font, signs of music as outlines. Works in slices, so that the page goes on.
 * @throws Error where it was stopped, or fonts cannot be fetched
 */
export async function makePdf({ plan, paper, title, tell, signal }: PdfJob): Promise<ArrayBuffer> {
  const fonts = await loadDocumentFonts();
  const { width, height, margin } = paperPixels(paper);
  const doc = new jsPDF({ unit: 'pt', format: [width * PT, height * PT], compress: true, putOnlyUsedFonts: true });
  doc.setProperties({ title, creator: 'Jam Ledger' });
  for (const { style, bytes } of fonts.words) {
    doc.addFileToVFS(`${style}.ttf`, binary(bytes));
    doc.addFont(`${style}.ttf`, FAMILY, style);
    await breath();
  }
  const host = document.createElement('div');
  host.className = 'ink-on-white';
  host.style.cssText = 'position:absolute;left:-20000px;top:0';
  document.body.append(host);
  const total = plan.pages.reduce((sum, { blocks }) => sum + blocks.length, 0);
  let done = 0;
  let since = performance.now();
  try {
    for (const [index, { blocks }] of plan.pages.entries()) {
      if (index > 0) doc.addPage();
      for (const { block, y, line } of blocks) {
        signal.throwIfAborted();
        const top = (margin + y) * PT;
        if (block.system) await drawMusic(doc, block.system, { fonts, host, x: margin * PT, y: top });
        else if (block.look !== 'music')
          words(doc, fonts, {
            look: block.look,
            text: block.says?.((id) => plan.places.get(id)) ?? '',
            x: margin * PT,
            y: top,
          });
        if (line !== undefined) lineNumber(doc, line, { x: (margin - 10) * PT, y: top + (block.height / 2) * PT });
        done += 1;
        if (performance.now() - since > SLICE_MS) {
          tell(done / total);
          await breath();
          since = performance.now();
        }
      }
      footer(doc, fonts, {
        text: `${title} · page ${index + 1} of ${plan.pages.length}`,
        x: (width / 2) * PT,
        y: (height - margin / 2) * PT,
      });
    }
  } finally {
    host.remove();
  }
  tell(1);
  await breath();
  return doc.output('arraybuffer');
}

function binary(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += 8192) text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return text;
}

/** What the font has no sign for would cut off the rest of a line; a square stands for it. */
function printable(text: string, { has }: DocumentFonts): string {
  return Array.from(text, (character) => (character === ' ' || has(character) ? character : '□')).join('');
}

function words(
  doc: jsPDF,
  fonts: DocumentFonts,
  { look, text, x, y }: { look: WordsLook; text: string; x: number; y: number },
): void {
  const { size, style, grey, above } = WORDS[look];
  doc.setFont(FAMILY, style).setFontSize(size).setTextColor(grey);
  doc.text(printable(text, fonts), x, y + above * PT + size);
}

function lineNumber(doc: jsPDF, line: number, { x, y }: { x: number; y: number }): void {
  doc.setFont(FAMILY, 'normal').setFontSize(7).setTextColor(110);
  doc.text(String(line), x, y, { align: 'right' });
}

function footer(doc: jsPDF, fonts: DocumentFonts, { text, x, y }: { text: string; x: number; y: number }): void {
  doc.setFont(FAMILY, 'normal').setFontSize(7.5).setTextColor(90);
  doc.text(printable(text, fonts), x, y, { align: 'center' });
}

async function drawMusic(
  doc: jsPDF,
  system: NonNullable<HandoutBlock['system']>,
  {
    fonts,
    host,
    x,
    y,
  }: { readonly fonts: DocumentFonts; readonly host: HTMLElement; readonly x: number; readonly y: number },
): Promise<void> {
  const element = document.createElement('div');
  host.replaceChildren(element);
  system.draw(element);
  for (const svg of element.querySelectorAll('svg')) {
    const { width, height } = svg.getBoundingClientRect();
    plainly(svg, fonts);
    if (!svg.hasAttribute('viewBox')) svg.setAttribute('viewBox', `0 0 ${width} ${height}`);
    const scale = MUSIC_SCALE * PT;
    await svg2pdf(svg, doc, { x, y, width: width * scale, height: height * scale });
  }
}

/** A drawing with its colours said, its signs of music as outlines, and its words in the font that is embedded. */
function plainly(svg: SVGSVGElement, fonts: DocumentFonts): void {
  for (const one of svg.querySelectorAll<SVGElement>('*')) {
    const style = getComputedStyle(one);
    for (const name of ['fill', 'stroke'] as const)
      if (one.getAttribute(name)?.includes('var(')) one.setAttribute(name, style[name]);
  }
  for (const text of svg.querySelectorAll('text')) {
    const style = getComputedStyle(text);
    if (style.fontFamily.includes(MUSIC_FONT)) text.replaceWith(outlines(text, fonts));
    else {
      text.setAttribute('font-family', FAMILY);
      // Bold and slanted at once is not among the fonts.
      const isBold = Number(style.fontWeight) >= 600 && style.fontStyle !== 'italic';
      text.setAttribute('font-weight', isBold ? 'bold' : 'normal');
      standApart(text, fonts);
    }
  }
}

/** Each word and sign of a text as an element with a place of its own, in letters that can be printed. */
function standApart(text: SVGTextElement, fonts: DocumentFonts): void {
  const pieces = piecesOf(text);
  for (const name of ['x', 'y']) text.removeAttribute(name);
  text.replaceChildren(
    ...pieces.map((piece) => {
      const span = document.createElementNS('http://www.w3.org/2000/svg', 'tspan');
      for (const name of ['x', 'y'] as const) span.setAttribute(name, String(piece[name]));
      span.textContent = printable(piece.text, fonts);
      return span;
    }),
  );
}

/** The signs of a text as one path. */
function outlines(text: SVGTextElement, { music }: DocumentFonts): SVGPathElement {
  const style = getComputedStyle(text);
  const size = parseFloat(style.fontSize);
  const d = piecesOf(text)
    .map((piece) => music.getPath(piece.text, piece.x, piece.y, size).toPathData(2))
    .join('');
  const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
  path.setAttribute('d', d);
  path.setAttribute('fill', style.fill);
  path.setAttribute('stroke', 'none');
  const transform = text.getAttribute('transform');
  if (transform !== null) path.setAttribute('transform', transform);
  return path;
}
