/** What is told of an address by its path alone: for the one place where every request passes. */

/** Addresses whose handler says itself what may run and who may keep the answer; all others are pages. */
const HANDLED: readonly RegExp[] = [
  /^\/(api|files|served|b|p|fonts|v1)\//,
  /^\/(checkout\.js|bare\/finished|metrics)$/,
  /^\/i\/[^/]+\/(back|invoice\.pdf|invoice\.xml|pay-code|(files|receipts|given)\/[^/]+|return(\/picture|\/[^/]+\/label)?)$/,
  /^\/o\/[^/]+\/(back|logo|receipt|given\/[^/]+|return(\/picture|\/[^/]+\/label)?)$/,
  /^\/c\/[^/]+\/(logo|picture)$/,
  /^\/m\/[^/]+\/data$/,
  /^\/v\/[^/]+\/voucher\.pdf$/,
  /^\/proof\/([^/]+\/(mail|pdf|pay-code)|hosted\/[^/]+|offer\/[^/]+\/mail)$/,
];

/** Whether a handler answers here, and not a page. @param path as it stands in the address */
export const isHandled = (path: string): boolean => HANDLED.some((pattern) => pattern.test(path));

/** Finished pages and what belongs to them, the same for everybody: no cookie is looked at, and no policy worked out. */
const FINISHED = /^\/(served|b|p|fonts|bare)\/|^\/checkout\.js$/;

export const isFinished = (path: string): boolean => FINISHED.test(path);

/** The longest address of ours names two hundred parcels whose labels are printed at once. */
const LONGEST = 8000;

/** Whether an address can be read at all: whole signs, no NUL, of a length that ours have. */
export function isReadable({ pathname, search }: { readonly pathname: string; readonly search: string }): boolean {
  if (pathname.length + search.length > LONGEST) return false;
  try {
    const text = decodeURIComponent(pathname) + decodeURIComponent(search.replaceAll('+', ' '));
    return !text.includes('\u0000') && text.isWellFormed();
  } catch {
    return false;
  }
}

/** Under which name a page reads the path it was asked by: where there is nothing, its parameters are not known. */
export const ASKED_PATH = 'x-asked-path';
