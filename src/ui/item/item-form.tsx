'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Item } from '@/core/item/item';
import type { Measures } from '@/core/parcel/measure';
import { FileDrop } from '../import/file-drop';
import { Button } from '../kit/button';
import { Form, type Typed, useTyped } from '../kit/form';
import { FormDialog } from '../kit/form-dialog';
import { send } from '../kit/send';
import { upload } from '../kit/send-file';
import { say, sayTrouble } from '../kit/toasts';
import { ItemBasics } from './item-basics';
import { ItemGoingFields } from './item-going';
import { ItemOptions } from './item-options';
import { ItemPrices } from './item-prices';
import { ItemStock } from './item-stock';
import { BLANK_ITEM, type ItemTyped, itemTyped } from './item-typed';

const rules = () => import('@/input/item-input').then(({ ItemInput }) => ItemInput);

function ItemPicture({ of: { values, set }, mayAsk }: { of: Typed<ItemTyped>; mayAsk: boolean }) {
  async function picture(file: File) {
    const answer = await upload(file, 'picture', file.name);
    if (answer.ok) set({ pictureId: answer.value.id });
    else sayTrouble(answer.words);
  }
  return (
    <div className="flex flex-wrap items-center gap-4">
      {values.pictureId ? (
        <>
          {/* biome-ignore lint/performance/noImgElement: a picture of the business's own, already small */}
          <img src={`/files/own/${values.pictureId}`} alt={values.name} className="h-24 w-auto border border-rule" />
          <Button look="link" onClick={() => set({ pictureId: null })}>
            Without a picture
          </Button>
        </>
      ) : mayAsk ? (
        <FileDrop label="Add a picture" accept="image/png,image/jpeg,image/webp,image/gif" onFile={picture} />
      ) : null}
    </div>
  );
}

/** An item whole: what it is, what it costs, in which ways it comes, how many there are. */
type ItemUses = { readonly offers: readonly string[]; readonly plans: number; readonly recurring: number };

const counted = (count: number, one: string, many: string): string[] =>
  count === 0 ? [] : [count === 1 ? `one ${one}` : `${count} ${many}`];

const usesText = ({ offers, plans, recurring }: ItemUses): string =>
  [
    ...offers.map((name) => `“${name}”`),
    ...counted(plans, 'billing plan', 'billing plans'),
    ...counted(recurring, 'recurring invoice', 'recurring invoices'),
  ].join(', ');

export function ItemForm({
  item,
  currency,
  classes,
  measures,
  promised,
  mayAsk,
}: {
  item: Item | null;
  currency: string;
  classes: readonly string[];
  measures: Measures;
  promised: Readonly<Record<string, string>>;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const form = useTyped<ItemTyped, Item>({
    start: item ? itemTyped(item) : BLANK_ITEM,
    keepAs: `item:${item?.id ?? 'new'}`,
    shape: rules,
    body: itemTyped,
    send: (body) => (item ? send<Item>('PUT', `/api/items/${item.id}`, body) : send<Item>('POST', '/api/items', body)),
    done: (kept) => {
      say(item ? 'The changes are saved' : `${kept.name} is saved`);
      if (!item) router.push(`/records/items/${kept.id}` as Route);
      router.refresh();
    },
  });
  const { values, set } = form;
  const [uses, setUses] = useState<ItemUses | null>(null);

  async function remove() {
    if (!item) return;
    const answer = await send('DELETE', `/api/items/${item.id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    form.leave();
    router.push('/records/items');
    router.refresh();
    say(`${item.name} is removed from the list`, {
      label: 'Undo',
      onClick: () =>
        void send('POST', `/api/items/${item.id}`).then((back) => {
          if (!back.ok) return sayTrouble(back.words);
          router.push(`/records/items/${item.id}` as Route);
          router.refresh();
        }),
    });
  }

  /** What hangs on it is said before; what nothing hangs on goes at once, and can be put back. */
  async function askToRemove() {
    if (!item) return;
    const answer = await send<ItemUses>('GET', `/api/items/${item.id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    const { offers, plans, recurring } = answer.value;
    if (offers.length + plans + recurring === 0) return remove();
    setUses(answer.value);
  }

  return (
    <article className="sheet max-w-[760px] px-7 py-5" aria-label={item?.name ?? 'A new item'}>
      {uses && item ? (
        <FormDialog
          title="Remove it from the list"
          about={`${item.name} stands in ${usesText(uses)}. They go on as they are, at the prices that stand there, and take nothing from the stock any more.`}
          action="Remove it"
          danger
          busy={false}
          onClose={() => setUses(null)}
          onSure={async () => {
            setUses(null);
            await remove();
            return '';
          }}
        >
          {null}
        </FormDialog>
      ) : null}
      <Form of={form} legend="The item" disabled={!mayAsk}>
        <div className="flex flex-wrap items-baseline gap-4">
          <h1 className="title-screen min-w-0 flex-1 break-words">{item?.name ?? 'A new item'}</h1>
          {item && mayAsk ? (
            <Button look="link" onClick={() => void askToRemove()}>
              Remove from the list
            </Button>
          ) : null}
          <Button type="submit" look="go" busy={form.busy} disabled={!mayAsk} busyWords="Saving">
            {item ? 'Save changes' : 'Save item'}
          </Button>
        </div>
        <ItemBasics of={form} currency={currency} classes={classes} />
        <ItemPrices label="Price" prices={values.prices} currency={currency} onChange={(prices) => set({ prices })} />
        {values.options.length === 0 ? <ItemStock of={form} item={item} promised={promised} /> : null}
        <ItemOptions of={form} item={item} currency={currency} measures={measures} promised={promised} />
        {values.kind === 'service' ? null : <ItemGoingFields of={form} measures={measures} />}
        <ItemPicture of={form} mayAsk={mayAsk} />
      </Form>
    </article>
  );
}
