import type { Choice } from '@/core/offer/choice';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** An offer sent to one person with some of it filled in; what is locked cannot be changed by the payer. */
export type Request = {
  readonly id: string;
  readonly offerId: string;
  readonly toName: string;
  readonly toAddress: string;
  readonly filled: Partial<Choice>;
  readonly locked: boolean;
  readonly way: 'mail' | 'text' | 'chat' | 'link';
  readonly words: string;
  readonly state: 'sent' | 'seen' | 'paid' | 'withdrawn';
  readonly byName: string;
  readonly sentAt: Date;
  readonly seenAt: Date | null;
  readonly endedAt: Date | null;
};

const REQUEST = sql`id, offer_id as "offerId", to_name as "toName", to_address as "toAddress", filled, locked, way, words, state,
  by_name as "byName", sent_at as "sentAt", seen_at as "seenAt", ended_at as "endedAt"`;

export const requestById = (db: Db, id: string): Promise<Request | null> =>
  maybeOne(db, sql`select ${REQUEST} from requests where business_id = ${db.businessId} and id = ${id}`);

/** An offer's requests, latest first, and whether their message has not arrived. */
export const requestsOf = (db: Db, offerId: string): Promise<(Request & { readonly failed: boolean })[]> =>
  many(
    db,
    sql`select ${REQUEST}, exists (select 1 from messages where messages.business_id = requests.business_id
            and messages.state in ('failed', 'bounced') and messages.request_id = requests.id) as failed
        from requests where business_id = ${db.businessId} and offer_id = ${offerId} order by sent_at desc, id desc limit 200`,
  );

export const insertRequest = (
  tx: Tx,
  request: Pick<Request, 'id' | 'offerId' | 'toName' | 'toAddress' | 'filled' | 'locked' | 'way' | 'words' | 'byName'>,
): Promise<number> =>
  run(
    tx,
    sql`insert into requests (id, business_id, offer_id, to_name, to_address, filled, locked, way, words, state, by_name, sent_at)
        values (${request.id}, ${tx.businessId}, ${request.offerId}, ${request.toName}, ${request.toAddress},
          ${JSON.stringify(request.filled)}, ${request.locked}, ${request.way}, ${request.words}, 'sent', ${request.byName}, ${tx.now})`,
  );

/** Moves a request on; what is paid or withdrawn stays so. */
export const updateRequest = (tx: Tx, id: string, state: 'seen' | 'paid' | 'withdrawn'): Promise<number> =>
  run(
    tx,
    sql`update requests set state = ${state}, seen_at = coalesce(seen_at, ${tx.now}),
          ended_at = case when ${state} = 'seen' then ended_at else ${tx.now} end
        where business_id = ${tx.businessId} and id = ${id}
          and (state = 'sent' or (state = 'seen' and ${state} <> 'seen'))`,
  );
