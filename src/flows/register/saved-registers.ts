import { randomUUID } from 'node:crypto';
import type { RegisterAsk } from '@/core/register/ask';
import { registerCurrencies } from '@/db/register';
import { keepSavedList, type SavedList, savedLists } from '@/db/saved-lists';
import { desk } from '@/flows/door/operation';

/** What the register can be narrowed by: the lists kept under a name, and the currencies in which money moved. */
export const registerChoices = desk('see').read(
  async (db): Promise<{ saved: SavedList<RegisterAsk>[]; currencies: string[] }> => ({
    saved: await savedLists<RegisterAsk>(db, 'payments'),
    currencies: await registerCurrencies(db),
  }),
);

/** Keeps what is asked of the register under a name; the name's earlier list gives way. */
export const saveRegister = desk('ask').write(async (tx, name: string, asked: RegisterAsk): Promise<void> => {
  await keepSavedList(tx, 'payments', { id: randomUUID(), name, asked });
});
