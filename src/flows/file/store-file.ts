import { createHash, randomUUID } from 'node:crypto';
import { MOST_FILE_BYTES } from '@/core/file/size';
import { type FilePurpose, insertFile } from '@/db/files';
import { countAttempt } from '@/db/limits';
import { offerById } from '@/db/offers';
import { INVOICE_LINK, OFFER_NAME, ORDER_LINK } from '@/flows/door/links';
import { byLink, type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { fileKind } from '@/outside/file-kind';
import { cleanPicture } from '@/outside/pictures';

export type { FilePurpose };

/** A file as papers name it. */
export type Stored = { readonly id: string; readonly name: string; readonly type: string; readonly size: number };

const LARGEST_SIDE: Readonly<Record<FilePurpose, number>> = {
  attachment: 4000,
  document: 4000,
  logo: 800,
  picture: 1600,
  answer: 4000,
  seal: 800,
  authorisation: 2400,
  digital: 6000,
};

/** A name without path and without signs that mean something to a system or a reader's eye. */
function safeName(name: string, ending: string): string {
  const last = name.split(/[/\\]/).at(-1) ?? '';
  const plain = last
    .normalize('NFC')
    // biome-ignore lint/suspicious/noControlCharactersInRegex: control signs and those that turn the direction of text
    .replace(/[\u0000-\u001f\u007f\u200e\u200f\u202a-\u202e\u2066-\u2069<>:"|?*]/g, '')
    .replace(/\.[^.]*$/, '')
    .replace(/^\.+/, '')
    .trim()
    .slice(0, 120);
  return `${plain || 'file'}.${ending}`;
}

/**
 * Keeps a file, recognised by its content. Pictures are drawn anew, so that nothing hides in them.
 *
 * @throws Refusal `file-not-taken`, `file-too-large`
 */
export const storeFile = desk('ask').run(
  async (ctx, name: string, purpose: FilePurpose, bytes: Buffer): Promise<Stored> => {
    return store(ctx, ctx.name, name, purpose, bytes);
  },
);

/** How many files one address may hand in an hour: answers to a form, not a place to keep things. */
const FILES_PER_ADDRESS = { name: 'answer-files', attempts: 20, seconds: 3600 };

/** Keeps a file that a payer hands in with a form; it is read on only where one is wanted. @throws Refusal as above, and `asked-too-often` */
export const storeAnswer = byLink(OFFER_NAME).run(
  async (ctx, offerId: string, name: string, file: () => Promise<Buffer>, address: string): Promise<Stored> => {
    if ((await countAttempt(FILES_PER_ADDRESS, address)) > 0) throw new Refusal('asked-too-often');
    const placed = found(await ctx.read((db) => offerById(db, offerId)));
    if (!placed.offer.fields.some(({ kind }) => kind === 'file')) throw new Refusal('not-found');
    return store(ctx, 'Payer', name, 'answer', await file());
  },
);

/** Keeps a picture that a customer sends along, by the link of what they bought. @throws Refusal as above, and `asked-too-often` */
const pictureBy = async (ctx: Context, name: string, file: () => Promise<Buffer>, address: string): Promise<Stored> => {
  if ((await countAttempt(FILES_PER_ADDRESS, address)) > 0) throw new Refusal('asked-too-often');
  return store(ctx, 'Customer', name, 'answer', await file(), true);
};
export const storePictureByInvoice = byLink(INVOICE_LINK).run(
  (ctx, _invoiceId: string, name: string, file: () => Promise<Buffer>, address: string) =>
    pictureBy(ctx, name, file, address),
);
export const storePictureByOrder = byLink(ORDER_LINK).run(
  (ctx, _orderId: string, name: string, file: () => Promise<Buffer>, address: string) =>
    pictureBy(ctx, name, file, address),
);

async function store(
  ctx: Context,
  byName: string,
  name: string,
  purpose: FilePurpose,
  bytes: Buffer,
  onlyPicture = false,
): Promise<Stored> {
  if (bytes.length > MOST_FILE_BYTES) throw new Refusal('file-too-large');
  const kind = bytes.length > 0 ? await fileKind(bytes, purpose === 'digital') : null;
  if (!kind) throw new Refusal('file-not-taken');
  const picture = kind.type.startsWith('image/');
  if (purpose === 'document' && kind.ending !== 'pdf') throw new Refusal('file-not-taken');
  if ((onlyPicture || ['logo', 'picture', 'seal'].includes(purpose)) && !picture) throw new Refusal('file-not-taken');
  const form = kind.ending === 'jpg' ? 'jpeg' : 'png';
  const clean = picture
    ? await cleanPicture(bytes, form, LARGEST_SIDE[purpose]).catch(() => {
        throw new Refusal('file-not-taken');
      })
    : bytes;
  if (clean.length > MOST_FILE_BYTES) throw new Refusal('file-too-large');
  const stored: Stored = {
    id: randomUUID(),
    name: safeName(name, picture ? (form === 'jpeg' ? 'jpg' : 'png') : kind.ending),
    type: picture ? `image/${form}` : kind.type,
    size: clean.length,
  };
  const sha256 = createHash('sha256').update(clean).digest('hex');
  await ctx.write((tx) => insertFile(tx, { ...stored, purpose, sha256, bytes: clean }, byName));
  return stored;
}
