import { PDFDocument } from '@cantoo/pdf-lib';

/** A paper to be put behind another: PDF, or a picture (PNG or JPEG). */
export type Bindable = { readonly name: string; readonly type: string; readonly bytes: Uint8Array };

const A4 = { width: 595.28, height: 841.89 };
const EDGE = 40;

/** Whether something can be put behind a PDF at all. */
export const canBind = ({ type }: Pick<Bindable, 'type'>): boolean =>
  ['application/pdf', 'image/png', 'image/jpeg'].includes(type);

/**
 * Puts papers behind a PDF: pages as they are, a picture on a page of its own. One that cannot be read (locked, damaged) stays out.
 *
 * @returns the whole, and the names of those that stayed out
 */
export async function bound(
  first: Uint8Array,
  papers: readonly Bindable[],
): Promise<{ bytes: Buffer; leftOut: string[] }> {
  const whole = await PDFDocument.load(first);
  const leftOut: string[] = [];
  for (const paper of papers) {
    try {
      if (paper.type === 'application/pdf') {
        const other = await PDFDocument.load(paper.bytes);
        for (const page of await whole.copyPages(other, other.getPageIndices())) whole.addPage(page);
      } else if (canBind(paper)) {
        const picture =
          paper.type === 'image/png' ? await whole.embedPng(paper.bytes) : await whole.embedJpg(paper.bytes);
        const { width, height } = picture.scaleToFit(A4.width - 2 * EDGE, A4.height - 2 * EDGE);
        const page = whole.addPage([A4.width, A4.height]);
        page.drawImage(picture, { x: (A4.width - width) / 2, y: A4.height - EDGE - height, width, height });
      } else leftOut.push(paper.name);
    } catch {
      leftOut.push(paper.name);
    }
  }
  return { bytes: Buffer.from(await whole.save()), leftOut };
}
