import PDFDocument from 'pdfkit';
import type { CustomsPaper } from '@/core/customs/form';
import type { PaymentFilePaper } from '@/core/dispute/payment-file';
import type { PrintedInvoice } from '@/core/invoice/printed';
import type { HandoverList } from '@/core/parcel/handover-list';
import type { PrintedLabel } from '@/core/parcel/label';
import type { PackingSlip, PickingList } from '@/core/parcel/slip';
import type { PayoutPaper } from '@/core/payout/paper';
import type { AuthorisationPaper } from '@/core/plan/authorisation-paper';
import type { PrintedReceipt } from '@/core/receipt/receipt';
import type { PrintedCredit } from '@/core/refund/printed-credit';
import type { GiftLetter } from '@/core/statement/gifts';
import type { Statement } from '@/core/statement/statement';
import type { PrintedVoucher } from '@/core/voucher/printed-voucher';
import { codeRows } from '../code';
import { authorisationPages } from './authorisation-pages';
import { customsPages } from './customs-pages';
import type { FaceName } from './face-files';
import { faceOf, featuresOf, lineOf, REORDERED } from './faces';
import { creditPages, invoicePages } from './invoice-pages';
import { labelPages } from './label-pages';
import { handoverPages, pickingPages, slipPages } from './packing-pages';
import { paymentFilePages } from './payment-file-pages';
import { payoutPages } from './payout-pages';
import { giftPages, receiptPages } from './receipt-pages';
import type { Mark, Measure, PictureName, PictureSize, PictureSizes, SetDocument } from './setter';
import { statementPages } from './statement-pages';
import { voucherPages } from './voucher-pages';

const INK = '#241A26';
const SOFT = '#635463';

/** Chooses a face for what is drawn next; a document takes up a face when it first needs it. */
function withFace(pdf: PDFKit.PDFDocument, face: FaceName, size: number): PDFKit.PDFDocument {
  pdf.registerFont(face, faceOf(face));
  return pdf.font(face).fontSize(size);
}

const widthOf = (pdf: PDFKit.PDFDocument, text: string, face: FaceName, size: number): number =>
  withFace(pdf, face, size).widthOfString(text, { features: featuresOf(face) });

/** A document, and how wide text runs in it. @param archived as PDF/A-3b (ISO 19005-3), which may hold files */
function opened(archived = false): { pdf: PDFKit.PDFDocument; measure: Measure } {
  const pdf = new PDFDocument({
    autoFirstPage: false,
    font: '',
    pdfVersion: '1.7',
    tagged: true,
    displayTitle: true,
    ...(archived ? { subset: 'PDF/A-3b' } : {}),
  });
  const measure: Measure = (text, face, size) =>
    lineOf(text, face).reduce((width, run) => width + widthOf(pdf, run.text, run.face, size), 0);
  return { pdf, measure };
}

/** A picture of the business's: PNG or JPEG, and its size in pixels. */
export type Picture = PictureSize & { readonly bytes: Buffer };
export type Pictures = Readonly<Partial<Record<PictureName, Picture>>>;

function drawn(pdf: PDFKit.PDFDocument, documents: readonly SetDocument[], pictures: Pictures): Promise<Buffer> {
  const chunks: Buffer[] = [];
  const finished = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(Buffer.concat(chunks)));
    pdf.on('error', reject);
  });
  const [first] = documents;
  if (first) {
    pdf.info.Title = first.title;
    pdf.options.lang = first.language;
  }
  pdf.info.Creator = 'Dahlia';
  const root = pdf.struct('Document');
  pdf.addStructure(root);
  for (const { width, height, pages } of documents) {
    for (const marks of pages) {
      pdf.addPage({ size: [width, height], margin: 0 });
      for (const mark of marks) drawMark(pdf, root, mark, pictures);
    }
  }
  root.end();
  pdf.end();
  return finished;
}

function drawMark(
  pdf: PDFKit.PDFDocument,
  root: PDFKit.PDFStructureElement,
  mark: SetDocument['pages'][number][number],
  pictures: Pictures,
): void {
  if (mark.kind === 'text') {
    root.add(pdf.struct(mark.role ?? 'P', {}, () => drawText(pdf, mark)));
  } else if (mark.kind === 'picture') {
    const picture = pictures[mark.name];
    if (!picture) return;
    const draw = () => pdf.image(picture.bytes, mark.x, mark.y, { width: mark.width, height: mark.height });
    root.add(pdf.struct('Figure', { alt: mark.says }, () => void draw()));
  } else if (mark.kind === 'code') {
    root.add(pdf.struct('Figure', { alt: mark.says }, () => void drawCode(pdf, mark)));
  } else if (mark.kind === 'bars') {
    if (mark.says) root.add(pdf.struct('Figure', { alt: mark.says }, () => void drawBars(pdf, mark)));
    else {
      pdf.markContent('Artifact');
      drawBars(pdf, mark);
      pdf.endMarkedContent();
    }
  } else {
    pdf.markContent('Artifact');
    pdf
      .lineWidth(mark.weight)
      .strokeColor(INK)
      .moveTo(mark.x, mark.y)
      .lineTo(mark.x + mark.width, mark.y)
      .stroke();
    pdf.endMarkedContent();
  }
}

function drawCode(pdf: PDFKit.PDFDocument, mark: Extract<Mark, { kind: 'code' }>): void {
  const { size, rows } = codeRows(mark.text);
  const module = mark.width / size;
  for (const { x, y, width } of rows)
    pdf
      .rect(mark.x + x * module, mark.y + y * module, width * module, module)
      .fillColor(INK)
      .fill();
}

/** All bars as one shape, in pure black: a reader wants the most contrast that there is. */
function drawBars(pdf: PDFKit.PDFDocument, { x, y, across, down, bars }: Extract<Mark, { kind: 'bars' }>): void {
  for (const bar of bars) pdf.rect(x + bar.x * across, y + bar.y * down, bar.width * across, bar.height * down);
  pdf.fillColor('#000000').fill();
}

/** Draws a line, run by run, on one baseline whatever faces they are in. */
function drawText(pdf: PDFKit.PDFDocument, mark: Extract<Mark, { kind: 'text' }>): void {
  const runs = lineOf(mark.text, mark.face);
  const rise = (face: FaceName) => (faceOf(face).ascent / faceOf(face).unitsPerEm) * mark.size;
  const base = mark.y + rise(mark.face);
  let { x } = mark;
  for (const { text, face } of runs) {
    const isSpelt = REORDERED.has(face);
    if (isSpelt) pdf.markContent('Span', { actual: text });
    withFace(pdf, face, mark.size)
      .fillColor(mark.colour ?? (mark.soft ? SOFT : INK))
      .text(text, x, base - rise(face), { lineBreak: false, features: featuresOf(face) });
    if (isSpelt) pdf.endMarkedContent();
    x += runs.length > 1 ? widthOf(pdf, text, face, mark.size) : 0;
  }
}

function made<Of>(
  of: Of,
  pages: (of: Of, measure: Measure, pictures: PictureSizes) => SetDocument,
  pictures: Pictures = {},
): Promise<Buffer> {
  const { pdf, measure } = opened();
  return drawn(pdf, [pages(of, measure, pictures)], pictures);
}

/** The invoice as a PDF. @param xml the same as an e-invoice, which goes along inside (a hybrid invoice); null for none */
export function invoicePdf(
  invoice: PrintedInvoice,
  pictures: Pictures = {},
  xml: Buffer | null = null,
): Promise<Buffer> {
  const { pdf, measure } = opened(xml !== null);
  const attached = {
    name: 'invoice.xml',
    type: 'application/xml',
    relationship: 'Alternative',
    description: `${invoice.number}, EN 16931 (UBL 2.1)`,
    modifiedDate: new Date(`${invoice.issuedOn}T00:00:00Z`),
  };
  if (xml) pdf.file(xml, attached);
  return drawn(pdf, [invoicePages(invoice, measure, pictures)], pictures);
}

/** Many invoices one after another in one PDF, each with its own page numbers. */
export function invoicesPdf(invoices: readonly PrintedInvoice[], pictures: Pictures = {}): Promise<Buffer> {
  const { pdf, measure } = opened();
  const set = invoices.map((invoice) => invoicePages(invoice, measure, invoice.logoId ? pictures : {}));
  return drawn(pdf, set, pictures);
}

/** The receipt as a PDF. */
export const receiptPdf = (receipt: PrintedReceipt, pictures?: Pictures): Promise<Buffer> =>
  made(receipt, receiptPages, pictures);

/** The letter over a year's gifts as a PDF. */
export const giftPdf = (letter: GiftLetter, pictures?: Pictures): Promise<Buffer> => made(letter, giftPages, pictures);

/** An authorisation as a PDF. */
export const authorisationPdf = (paper: AuthorisationPaper, pictures?: Pictures): Promise<Buffer> =>
  made(paper, authorisationPages, pictures);

/** The credit note as a PDF. */
export const creditPdf = (credit: PrintedCredit, pictures?: Pictures): Promise<Buffer> =>
  made(credit, creditPages, pictures);

/** Gift vouchers as one PDF, each on its page. */
export function vouchersPdf(vouchers: readonly PrintedVoucher[], pictures: Pictures = {}): Promise<Buffer> {
  const { pdf, measure } = opened();
  return drawn(
    pdf,
    vouchers.map((voucher) => voucherPages(voucher, measure, pictures)),
    pictures,
  );
}

/** The statement of account as a PDF. */
export const statementPdf = (statement: Statement, pictures?: Pictures): Promise<Buffer> =>
  made(statement, statementPages, pictures);

/** A payment's file as a PDF, without the papers that go along. */
export const paymentFilePdf = (paper: PaymentFilePaper, pictures?: Pictures): Promise<Buffer> =>
  made(paper, paymentFilePages, pictures);

/** Labels as one PDF, on their sheets. @param forms customs forms that follow them */
export function labelsPdf(
  labels: readonly PrintedLabel[],
  on: Parameters<typeof labelPages>[1],
  forms: readonly CustomsPaper[] = [],
): Promise<Buffer> {
  const { pdf, measure } = opened();
  return drawn(pdf, [labelPages(labels, on, measure), ...forms.map((form) => customsPages(form, measure))], {});
}

/** Customs forms as one PDF, each on its own sheet. */
export function customsPdf(papers: readonly CustomsPaper[]): Promise<Buffer> {
  const { pdf, measure } = opened();
  return drawn(
    pdf,
    papers.map((paper) => customsPages(paper, measure)),
    {},
  );
}

/** What goes along in parcels, each on a sheet of its own. */
export function slipsPdf(slips: readonly PackingSlip[], pictures: Pictures = {}): Promise<Buffer> {
  const { pdf, measure } = opened();
  return drawn(
    pdf,
    slips.map((slip) => slipPages(slip, measure, slip.logoId ? pictures : {})),
    pictures,
  );
}

/** The list that goes to the carrier with parcels, to be signed for. */
export const handoverPdf = (list: HandoverList): Promise<Buffer> =>
  made(list, (of, measure) => handoverPages(of, measure));

/** What is taken from the shelves, as a PDF. */
export const pickingPdf = (list: PickingList): Promise<Buffer> =>
  made(list, (of, measure) => pickingPages(of, measure));

/** A payout, or a partner's month, as a PDF. */
export const payoutPdf = (paper: PayoutPaper, pictures?: Pictures): Promise<Buffer> =>
  made(paper, payoutPages, pictures);
