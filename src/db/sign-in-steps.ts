/** Second steps of whoever an address is: app, passkeys, recovery codes. Reached by doors alone, within a business those of its people. */
import type { Connection } from './pool';
import { many, maybeOne, one, run, sql } from './sql';

export type StoredSteps = {
  /** What authenticators know their person by. */
  readonly handle: Buffer;
  /** The key of the authenticator app, encrypted; null without one. */
  readonly timeKey: Buffer | null;
  readonly timeSince: Date | null;
  /** The last step whose code was taken. */
  readonly timeStep: bigint;
  readonly lostAt: Date | null;
  readonly codesLeft: number;
  readonly passkeys: number;
};

export type Passkey = {
  readonly id: string;
  /** COSE. */
  readonly publicKey: Buffer;
  /** How often it says that it was used; 0 always for one that does not count. */
  readonly counter: bigint;
  readonly transports: readonly string[];
  readonly name: string;
  readonly madeAt: Date;
  readonly usedAt: Date | null;
};

/** Whose a passkey is. */
export type PasskeyHolder = Pick<Passkey, 'publicKey' | 'counter' | 'transports'> & {
  readonly address: string;
  readonly handle: Buffer;
};

export const storedSteps = (db: Connection, address: string): Promise<StoredSteps | null> =>
  maybeOne(
    db,
    sql`select handle, time_key as "timeKey", time_since as "timeSince", time_step as "timeStep", lost_at as "lostAt",
          codes_left as "codesLeft", passkeys from steps_of(${address})`,
  );

/** Makes somebody known to authenticators; nothing where they are already. @param handle 32 random bytes */
export const beginSteps = (db: Connection, address: string, handle: Buffer): Promise<number> =>
  run(db, sql`select begin_steps(${address}, ${handle})`);

/** Keeps the key of an app, encrypted, of which one code was taken already; null takes the app away. */
export const setTimeKey = (
  db: Connection,
  address: string,
  timeKey: { readonly sealed: Buffer; readonly step: bigint; readonly at: Date } | null,
): Promise<number> =>
  run(
    db,
    timeKey
      ? sql`select set_time_key(${address}, ${timeKey.sealed}, ${timeKey.step}, ${timeKey.at})`
      : sql`select set_time_key(${address}, null, null, null)`,
  );

/** Takes a step's code, once. Returns false for one that was taken before, or lies before one that was. */
export const takeTimeStep = async (db: Connection, address: string, step: bigint): Promise<boolean> =>
  (await one<{ taken: boolean }>(db, sql`select take_time_step(${address}, ${step}) as taken`)).taken;

/** Since when somebody waits for the end of steps that they lost; null stops it. */
export const setStepsLost = (db: Connection, address: string, at: Date | null): Promise<number> =>
  run(db, sql`select set_steps_lost(${address}, ${at})`);

/** Takes all steps of somebody off. */
export const forgetSteps = (db: Connection, address: string): Promise<number> =>
  run(db, sql`select forget_steps(${address})`);

export const passkeysOf = (db: Connection, address: string): Promise<Passkey[]> =>
  many(
    db,
    sql`select id, public_key as "publicKey", counter, transports, name, made_at as "madeAt", used_at as "usedAt"
        from passkeys_of(${address})`,
  );

/** Whose a passkey is. Outside any business. */
export const passkeyHolder = (db: Connection, id: string): Promise<PasskeyHolder | null> =>
  maybeOne(db, sql`select address, handle, public_key as "publicKey", counter, transports from passkey_holder(${id})`);

/** Keeps a passkey; false where it is somebody's already. */
export const addPasskey = async (
  db: Connection,
  address: string,
  { id, publicKey, counter, transports, name, madeAt }: Omit<Passkey, 'usedAt'>,
): Promise<boolean> =>
  (
    await one<{ added: boolean }>(
      db,
      sql`select add_passkey(${address}, ${id}, ${publicKey}, ${counter}, ${[...transports]}, ${name}, ${madeAt}) as added`,
    )
  ).added;

/** Notes that a passkey was used; false where it has not counted on, as a copy of it would. */
export const noteUsedPasskey = async (db: Connection, id: string, counter: bigint, at: Date): Promise<boolean> =>
  (await one<{ used: boolean }>(db, sql`select use_passkey(${id}, ${counter}, ${at}) as used`)).used;

/** Takes a passkey away. Returns its name; null where somebody does not have it. */
export const removePasskey = async (db: Connection, address: string, id: string): Promise<string | null> =>
  (await one<{ name: string | null }>(db, sql`select remove_passkey(${address}, ${id}) as name`)).name;

/** Puts recovery codes in the place of those before. @param hashes keyed with what does not stand in the database */
export const setRecoveryCodes = (db: Connection, address: string, hashes: readonly Buffer[]): Promise<number> =>
  run(db, sql`select set_recovery_codes(${address}, ${[...hashes]}::bytea[])`);

/** Takes a recovery code, once. */
export const takeRecoveryCode = async (db: Connection, address: string, hash: Buffer, at: Date): Promise<boolean> =>
  (await one<{ taken: boolean }>(db, sql`select take_recovery_code(${address}, ${hash}, ${at}) as taken`)).taken;

/** Gives a person another address, at all their desks; false where it is somebody's. */
export const moveSignInName = async (db: Connection, personId: string, address: string): Promise<boolean> =>
  (await one<{ moved: boolean }>(db, sql`select move_sign_in_name(${personId}, ${address}) as moved`)).moved;
