/** All that other programs can do: the one list from which it is answered, described and tested. */
import type { Endpoint } from './endpoint';
import { INVOICES } from './endpoints/invoices';
import { LINKS } from './endpoints/links';
import { PAYMENTS } from './endpoints/payments';
import { PLANS } from './endpoints/plans';
import { RECORDS } from './endpoints/records';
import { SHIPMENTS } from './endpoints/shipments';

export const ENDPOINTS: readonly Endpoint[] = [...RECORDS, ...INVOICES, ...LINKS, ...PLANS, ...PAYMENTS, ...SHIPMENTS];

const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** The ids in a path that this pattern describes; null where it describes another one. */
function idsIn(pattern: string, path: string): readonly string[] | null {
  const [wanted, given] = [pattern.split('/'), path.split('/')];
  if (wanted.length !== given.length) return null;
  const ids: string[] = [];
  for (const [at, part] of wanted.entries()) {
    if (part !== '{id}') {
      if (part !== given[at]) return null;
    } else if (ID.test(given[at] ?? '')) ids.push(given[at] ?? '');
    else return null;
  }
  return ids;
}

export type Found = { readonly endpoint: Endpoint; readonly ids: readonly string[] };

/** What answers there; else by which other methods something does. @param path behind `/v1` */
export function endpointAt(method: string, path: string): Found | { readonly methods: readonly string[] } {
  const there = ENDPOINTS.flatMap((endpoint) => {
    const ids = idsIn(endpoint.path, path);
    return ids ? [{ endpoint, ids }] : [];
  });
  return (
    there.find(({ endpoint }) => endpoint.method === method) ?? {
      methods: there.map(({ endpoint }) => endpoint.method),
    }
  );
}
