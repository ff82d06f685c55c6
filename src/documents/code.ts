import QRCode from 'qrcode';

/** How much of a code may be unreadable: level M, as the payment code's standard asks for. */
const LEVEL = { errorCorrectionLevel: 'M' } as const;

/** A run of dark modules of one row. */
type Run = { readonly x: number; readonly y: number; readonly width: number };

/** A text as a QR code (ISO/IEC 18004): how many modules it is wide, and its dark ones, row by row. */
export function codeRows(text: string): { readonly size: number; readonly rows: readonly Run[] } {
  const { size, data } = QRCode.create(text, LEVEL).modules;
  const rows: Run[] = [];
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      if (!data[y * size + x]) continue;
      let width = 1;
      while (x + width < size && data[y * size + x + width]) width++;
      rows.push({ x, y, width });
      x += width;
    }
  return { size, rows };
}

/** The same as a picture. */
export const codePng = (text: string): Promise<Buffer> =>
  QRCode.toBuffer(text, { type: 'png', width: 480, margin: 2, ...LEVEL });
