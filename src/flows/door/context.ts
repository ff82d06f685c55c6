import type { Writing as OwnWriting } from '@/core/writing/writing';
import type { Actor } from '@/db/people';
import type { Connection, Db, Tx } from '@/db/pool';
import { inBusiness, inBusinessBySets, inBusinessInTurn, outsideBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { Refusal } from './refusal';

/** By whom something is done, as timelines tell it; `personId` is empty where that is nobody who signs in. */
export type By = {
  readonly name: string;
  readonly personId: string;
  /** Since when somebody at the desk showed who they are; nothing for a program or a link. */
  readonly provedSeconds?: number | undefined;
  /** How they write days and numbers, where not as the business does. */
  readonly writing?: OwnWriting | undefined;
};

/** A transaction of an operation that reads. */
export type Reading = Db & By;
/** A transaction of an operation that writes. */
export type Writing = Tx & By;

/** The same transaction, in the name of somebody else: of who once asked for what happens now. */
export const inNameOf = (tx: Tx, name: string): Writing => ({ ...tx, name, personId: '' });

/** The business's clock, as of now. */
export const clockNow = (): Promise<Date> => services().clock.now();

/**
 * What the inside of an operation works with: one business, who acts, and one moment of its clock. Only the door makes one, so
 * whoever holds it was let in.
 */
export class Context {
  readonly #by: By;
  readonly #actor: Actor | null;
  readonly #tells: boolean;
  readonly #locked: boolean;

  constructor(
    readonly businessId: string,
    by: By | Actor,
    readonly now: Date,
    tells: boolean,
    locked = false,
  ) {
    this.#by = { name: by.name, personId: by.personId, provedSeconds: by.provedSeconds, writing: by.writing };
    this.#actor = 'role' in by ? by : null;
    this.#tells = tells;
    this.#locked = locked;
  }

  /** @throws Refusal `business-closed` for somebody at a desk that is closed */
  #mayWrite(): void {
    if (this.#locked) throw new Refusal('business-closed');
  }

  get name(): string {
    return this.#by.name;
  }

  get personId(): string {
    return this.#by.personId;
  }

  /** Whoever is signed in, for an operation within this one. @throws Refusal `not-signed-in` where it is nobody at the desk */
  get actor(): Actor {
    if (!this.#actor) throw new Refusal('not-signed-in');
    return this.#actor;
  }

  /** Reads several things as of one moment. */
  read<T>(work: (db: Reading) => Promise<T>): Promise<T> {
    return readBusiness(this, (db) => work({ ...db, ...this.#by }));
  }

  /** One transaction, written as if it were alone. */
  async write<T>(work: (tx: Writing) => Promise<T>): Promise<T> {
    this.#mayWrite();
    return this.keep(work);
  }

  /** The same for what looking at something brings along, also where the business is closed: a paper that is made once and kept. */
  keep<T>(work: (tx: Writing) => Promise<T>): Promise<T> {
    return inBusiness(this, (tx) => work({ ...tx, ...this.#by }), this.#tells);
  }

  /** The same, one after the other within the business: for numbers and sums at which all would meet. */
  async turn<T>(work: (tx: Writing) => Promise<T>): Promise<T> {
    this.#mayWrite();
    return inBusinessInTurn(this, (tx) => work({ ...tx, ...this.#by }), this.#tells);
  }

  /** A turn that writes hundreds of rows at once; what it decides on, it must hold by row locks. */
  async sets<T>(work: (tx: Writing) => Promise<T>): Promise<T> {
    this.#mayWrite();
    return inBusinessBySets(this, (tx) => work({ ...tx, ...this.#by }), this.#tells);
  }

  /** What belongs to no business: who holds a public name. */
  outside<T>(work: (db: Connection) => Promise<T>): Promise<T> {
    return outsideBusiness(work);
  }

  /** The same, at the moment that it is by now: after something outside was waited for. */
  async later(): Promise<Context> {
    return this.at(await clockNow());
  }

  at(now: Date): Context {
    return new Context(this.businessId, this.#actor ?? this.#by, now, this.#tells, this.#locked);
  }

  /** The same, in the name of somebody else: of the customer whose link it is. */
  named(name: string): Context {
    return new Context(this.businessId, { name, personId: '' }, this.now, this.#tells, this.#locked);
  }
}
