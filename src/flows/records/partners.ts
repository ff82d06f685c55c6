import { randomUUID } from 'node:crypto';
import { changedBetween, partnerSettings } from '@/core/business/money-settings';
import {
  archivePartner,
  keepPartner,
  latestShares,
  type Partner,
  type PartnerRow,
  partnerById,
  partnerRows,
  type SharedPayment,
} from '@/db/partners';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { noteSettings } from '@/flows/log/log';

export type { PartnerRow };

/** The partners by name, with what each has earned. */
export const partnerList = desk('see').read(async (db): Promise<PartnerRow[]> => {
  return partnerRows(db);
});

/** The latest payments that were shared. */
export const partnerShares = desk('see').read((db): Promise<SharedPayment[]> => latestShares(db, 12));

/** Keeps a partner, new or changed. @throws Refusal `not-found` */
export const storePartner = desk('settings').run(
  async (ctx, id: string | null, fields: Omit<Partner, 'id'>): Promise<Partner> => {
    const partner = { id: id ?? randomUUID(), ...fields };
    await ctx.write(async (tx) => {
      const before = id ? await partnerById(tx, id) : null;
      if ((await keepPartner(tx, partner)) === 0) throw new Refusal('not-found');
      await noteSettings(tx, 'partner', changedBetween(partnerSettings(before), partnerSettings(partner)));
    });
    return partner;
  },
);

/** Takes a partner off the list; what they were given stays theirs. */
export const removePartner = desk('settings').write(async (tx, id: string): Promise<void> => {
  const before = await partnerById(tx, id);
  if ((await archivePartner(tx, id)) === 0) throw new Refusal('not-found');
  await noteSettings(tx, 'partner', changedBetween(partnerSettings(before), partnerSettings(null)));
});
