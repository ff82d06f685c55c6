import { fileById, fileBytes } from '@/db/files';
import { invoiceById, linkHolder } from '@/db/invoices';
import type { Actor } from '@/db/people';
import { outsideBusiness, readBusiness } from '@/db/transaction';
import { found, requireRight } from './access';
import type { File } from './files';
import { isSigned, signatureOf } from './signing';

/** How long an address of a file opens it. */
const SECONDS = 3600;

/** An address under which a file can be fetched for a while without any cookie: it names the file and is signed. */
export function servedPath(businessId: string, fileId: string): string {
  const of = `${businessId}.${fileId}.${Math.floor(Date.now() / 1000) + SECONDS}`;
  return `/served/${of}.${signatureOf('served', of)}`;
}

/** The file that a signed address names. @throws Refusal `not-found` for one that is not ours or has lapsed */
export async function servedFile(address: string): Promise<File> {
  const parts = address.split('.');
  const [businessId = '', fileId = '', until = '', given = ''] = parts;
  const genuine = parts.length === 4 && isSigned('served', `${businessId}.${fileId}.${until}`, given);
  if (!genuine || Number(until) < Date.now() / 1000) found(null);
  return found(await readBusiness(businessId, (db) => fileBytes(db, businessId, fileId)));
}

/** Where somebody at the desk fetches a file of the business. */
export async function deskFilePath(actor: Actor, id: string): Promise<string> {
  requireRight(actor, 'read');
  found(await readBusiness(actor.businessId, (db) => fileById(db, actor.businessId, id)));
  return servedPath(actor.businessId, id);
}

/** Where the customer fetches a file that goes with the linked invoice, or the logo on it. */
export async function linkedFilePath(link: string, fileId: string): Promise<string> {
  const { businessId, invoiceId } = found(await outsideBusiness((db) => linkHolder(db, link)));
  const invoice = found(await readBusiness(businessId, (db) => invoiceById(db, businessId, invoiceId)));
  const { files, logoId } = found(invoice.printed);
  if (logoId !== fileId && !files.some(({ id }) => id === fileId)) found(null);
  return servedPath(businessId, fileId);
}
