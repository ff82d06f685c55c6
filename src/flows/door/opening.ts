/** What a business that has just begun may not do yet. */
import { cardsOpen, maySend, type Opened } from '@/core/business/opening';
import { businessById } from '@/db/businesses';
import type { Db } from '@/db/pool';
import { Refusal } from './refusal';

/** @param business read already, where it is @throws Refusal `mail-not-confirmed` before somebody has confirmed their address */
export async function requireSending(db: Db, business?: Opened): Promise<void> {
  if (!maySend(business ?? (await businessById(db)))) throw new Refusal('mail-not-confirmed');
}

/** @param business read already, where it is @throws Refusal `cards-not-open` before the two answers are given */
export async function requireCards(db: Db, business?: Opened): Promise<void> {
  if (!cardsOpen(business ?? (await businessById(db)))) throw new Refusal('cards-not-open');
}
