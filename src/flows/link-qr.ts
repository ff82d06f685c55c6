import QRCode from 'qrcode';
import { invoiceById } from '@/db/invoices';
import { offerById } from '@/db/offers';
import { readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { type Actor, found, requireRight } from './access';
import { offerLink } from './offers';

const LOOK = { errorCorrectionLevel: 'M', margin: 2 } as const;

/** The customer's link of an invoice as a QR code, an SVG picture. */
export async function linkQr(actor: Actor, id: string): Promise<string> {
  requireRight(actor, 'read');
  const invoice = found(await readBusiness(actor.businessId, (db) => invoiceById(db, actor.businessId, id)));
  const link = `${services().publicUrl}/i/${invoice.linkToken}`;
  return QRCode.toString(link, { type: 'svg', width: 320, ...LOOK });
}

/** An offer's address as a QR code. */
export async function offerQr(actor: Actor, id: string, as: 'svg' | 'png'): Promise<{ name: string; bytes: Buffer }> {
  requireRight(actor, 'read');
  const placed = found(await readBusiness(actor.businessId, (db) => offerById(db, actor.businessId, id)));
  const link = offerLink(placed);
  const bytes =
    as === 'png'
      ? await QRCode.toBuffer(link, { type: 'png', width: 1024, ...LOOK })
      : Buffer.from(await QRCode.toString(link, { type: 'svg', width: 320, ...LOOK }));
  return { name: `${placed.address || placed.publicId}.${as}`, bytes };
}
