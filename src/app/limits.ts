/** How many bytes each address takes: read by the program that faces the world, and by every handler. */
import { MOST_FILE_BYTES } from '@/core/file/size';

/** What an address takes where nothing else is said, in bytes. */
const USUAL = 64 * 1024;
/** What a payer chose and wrote, with thirty answers in any script. */
const CHOICE = 256 * 1024;
/** The rows of a part of a table, or a file of rates as text. */
const TABLE = 6 * 1024 * 1024;
/** A whole paper of 500 lines, a page of an offer. */
const PAPER = 2 * 1024 * 1024;
/** A calendar of holidays. */
const CALENDAR = 1_000_000;
/** What an outside service tells of one thing. */
const EVENT = 10_000;

/** Addresses that take more or less than usual; `[name]` stands for one part. */
const OTHERS: Readonly<Record<string, number>> = {
  '/api/bank/statements': MOST_FILE_BYTES,
  '/api/bulk': PAPER,
  '/api/charging': CHOICE,
  '/api/checkout/[name]': CHOICE,
  '/api/checkout/[name]/file': MOST_FILE_BYTES,
  '/api/checkout/[name]/quote': CHOICE,
  '/api/customers/import': TABLE,
  '/api/items/import': TABLE,
  '/api/invoices/import': TABLE,
  '/api/disputes/[id]': CHOICE,
  '/api/einvoice': MOST_FILE_BYTES,
  '/api/files': MOST_FILE_BYTES,
  '/api/gift-letters': PAPER,
  '/api/holidays': CALENDAR,
  '/api/hooks/cards': EVENT,
  '/api/hooks/mail': EVENT,
  '/api/identity/pictures': MOST_FILE_BYTES,
  '/v1/[...path]': PAPER,
  '/api/invoices/[id]': PAPER,
  '/api/invoices/[id]/change': PAPER,
  '/api/offers/[id]': PAPER,
  '/api/offers/[id]/publish': PAPER,
  '/api/plans': PAPER,
  '/api/plans/[id]': PAPER,
  '/api/plans/many': PAPER,
  '/api/fronts': CHOICE,
  '/api/pack': CHOICE,
  '/api/pack/buy': CHOICE,
  '/api/pack/day': CHOICE,
  '/api/pack/off': CHOICE,
  '/api/pack/profile': CHOICE,
  '/api/parcel-rules': CHOICE,
  '/api/parcel-rules/try': CHOICE,
  '/api/parcels/notices': CHOICE,
  '/api/profile': PAPER,
  '/api/rates': TABLE,
  '/api/recurring': PAPER,
  '/api/recurring/[id]/paper': PAPER,
  '/api/rehearse/[id]': CHOICE,
  '/api/rehearse/[id]/quote': CHOICE,
  '/api/taxes': PAPER,
  '/api/templates': PAPER,
  '/api/terms': PAPER,
};

const isPart = (part: string): boolean => part.startsWith('[');
const PATTERNS = Object.entries(OTHERS).map(([address, most]) => ({ parts: address.split('/'), most }));

/** How many bytes of a body an address takes. @param path as it stands in the address, or as routes are written (`/api/plans/[id]`) */
export function mostAt(path: string): number {
  const exact = Object.hasOwn(OTHERS, path) ? OTHERS[path] : undefined;
  if (exact !== undefined) return exact;
  const given = path.split('/');
  const pattern = PATTERNS.find(
    ({ parts }) => parts.length === given.length && parts.every((part, at) => isPart(part) || part === given[at]),
  );
  return pattern?.most ?? USUAL;
}

/** The addresses that the table names, for the test that they are there. */
export const namedAddresses = (): readonly string[] => Object.keys(OTHERS);

/** Whether what an address takes is a file, for the words of a refusal. */
export const takesFile = (path: string): boolean => mostAt(path) === MOST_FILE_BYTES;
