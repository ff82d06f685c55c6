import QRCode from 'qrcode';
import { invoiceById } from '@/db/invoices';
import { offerById } from '@/db/offers';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { services } from '@/outside/services';
import { offerLink } from './offers';

const LOOK = { errorCorrectionLevel: 'M', margin: 2 } as const;

/** The customer's link of an invoice as a QR code, an SVG picture. */
export const linkQr = desk('see').run(async (ctx, id: string): Promise<string> => {
  const invoice = found(await ctx.read((db) => invoiceById(db, id)));
  const link = `${services().publicUrl}/i/${invoice.linkToken}`;
  return QRCode.toString(link, { type: 'svg', width: 320, ...LOOK });
});

/** An offer's address as a QR code. */
export const offerQr = desk('see').run(
  async (ctx, id: string, as: 'svg' | 'png'): Promise<{ name: string; bytes: Buffer }> => {
    const placed = found(await ctx.read((db) => offerById(db, id)));
    const link = offerLink(placed);
    const bytes =
      as === 'png'
        ? await QRCode.toBuffer(link, { type: 'png', width: 1024, ...LOOK })
        : Buffer.from(await QRCode.toString(link, { type: 'svg', width: 320, ...LOOK }));
    return { name: `${placed.address || placed.publicId}.${as}`, bytes };
  },
);
