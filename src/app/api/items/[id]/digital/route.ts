import { desk } from '@/app/answer';
import { keepItemDigital } from '@/flows/digital/grants';
import { ItemDigitalInput } from '@/input/counter-input';

export const PUT = desk(ItemDigitalInput, (actor, { input: { fileId, words, mostDownloads, days }, params }) =>
  keepItemDigital(actor, params.id ?? '', {
    fileId: fileId ?? null,
    words: words.trim(),
    mostDownloads: mostDownloads ?? null,
    days: days ?? null,
  }),
);
