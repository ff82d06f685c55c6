import type { Tx } from './pool';

/** Runs part of a transaction so that what it wrote is taken back if it throws, and the rest stays. */
export async function inSavepoint<T>(tx: Tx, work: () => Promise<T>): Promise<T> {
  await tx.query('savepoint part');
  try {
    const result = await work();
    await tx.query('release savepoint part');
    return result;
  } catch (error) {
    await tx.query('rollback to savepoint part');
    throw error;
  }
}
