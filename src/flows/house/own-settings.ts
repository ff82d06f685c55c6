/** What is somebody's own at a desk: how they write days and numbers, and what they hear of. */
import { randomUUID } from 'node:crypto';
import { isQuiet } from '@/core/business/business';
import { clockTime } from '@/core/dates/date-text';
import { afterQuiet, newsMailedFrom } from '@/core/news/news';
import type { Writing as OwnWriting } from '@/core/writing/writing';
import { businessById } from '@/db/businesses';
import {
  latestNews,
  moveMail,
  type News,
  type NewsSettings,
  newsSettings,
  peopleToMail,
  seeNews,
  takeForMail,
  unseenNews,
  updateNewsSettings,
} from '@/db/news';
import { isUnconfirmed, personWithEmail, updateWriting, writingOf } from '@/db/people';
import { type Context, desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';

/** So many lines stand behind the bell. */
const MOST_SHOWN = 30;

export type OwnSettings = {
  readonly writing: OwnWriting;
  /** Null where what news tell of is hidden from them. */
  readonly news: NewsSettings | null;
  /** Whether their address is known to be theirs: before, nothing is mailed there but what confirms it. */
  readonly canBeMailed: boolean;
};

export const ownSettings = desk('own').read(
  async (db): Promise<OwnSettings> => ({
    writing: await writingOf(db, db.personId),
    news: await newsSettings(db, db.personId),
    canBeMailed: !(await isUnconfirmed(db, db.personId)),
  }),
);

/** Keeps how whoever is signed in writes days and numbers, at all their desks. */
export const keepWriting = desk('own', { tells: false, whenClosed: true }).write(
  (tx, writing: OwnWriting): Promise<void> => updateWriting(tx, tx.personId, writing),
);

/** Keeps what whoever is signed in hears of, from now on; what waits to be mailed follows the new hours. */
export const keepNews = desk('see', { tells: false }).write(async (tx, settings: NewsSettings): Promise<void> => {
  await updateNewsSettings(tx, tx.personId, settings);
  const wantsMail = Object.values(settings.wanted).some((ways) => ways.includes('mail'));
  const { zone } = await businessById(tx);
  await moveMail(tx, tx.personId, wantsMail ? newsMailedFrom(tx.now, settings, zone) : null);
});

/** What somebody hears of at the desk, newest first, and how much of it they have not seen. */
export type DeskNews = {
  readonly unseen: number;
  readonly news: readonly News[];
  /** Whether the browser is to make no sign of them by now. */
  readonly isQuiet: boolean;
};

export const deskNews = desk('see').read(async (db): Promise<DeskNews> => {
  const { zone } = await businessById(db);
  return {
    unseen: await unseenNews(db, db.personId),
    news: await latestNews(db, db.personId, MOST_SHOWN),
    isQuiet: isQuiet(found(await newsSettings(db, db.personId)), clockTime(db.now, zone)),
  };
});

/** Notes that whoever is signed in has seen their news up to one. */
export const haveSeenNews = desk('see', { tells: false, whenClosed: true }).write(async (tx, upTo: number) => {
  await seeNews(tx, tx.personId, BigInt(upTo));
});

/** Mails everybody the news that wait for them: one mail each, unless they are within their quiet hours by now. */
export async function mailNews(ctx: Context): Promise<void> {
  for (const personId of await ctx.read(peopleToMail))
    await ctx.write(async (tx) => {
      const person = await personWithEmail(tx, personId);
      const settings = await newsSettings(tx, personId);
      if (!person || !settings || (await isUnconfirmed(tx, personId))) return moveMail(tx, personId, null);
      const { zone } = await businessById(tx);
      const quietUntil = afterQuiet(tx.now, settings, zone);
      if (quietUntil > tx.now) return moveMail(tx, personId, quietUntil);
      const key = randomUUID();
      const count = await takeForMail(tx, personId, key);
      if (count === 0) return;
      await queueMessage(tx, {
        kind: 'own-news',
        key: `own-news:${key}`,
        toName: person.name,
        toAddress: person.email,
        details: { personId, newsId: key },
      });
    });
}
