'use client';
import { useRouter } from 'next/navigation';
import type { Fronts } from '@/core/front/front';
import { type Typed, useTyped } from '../kit/form';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

const rules = () => import('@/input/profile-input').then(({ FrontsInput }) => FrontsInput);

/** One front while it is written: kept with all the others, which stay as they are. */
export function useFront<One extends { readonly id: string; readonly name: string }>(
  fronts: Fronts,
  list: 'tradingNames' | 'locations',
  one: One,
  onClose: () => void,
): { readonly form: Typed<One>; readonly at: (field: string) => string | undefined; readonly known: boolean } {
  const router = useRouter();
  const all = fronts[list] as readonly { readonly id: string }[];
  const found = all.findIndex(({ id }) => id === one.id);
  const index = found < 0 ? all.length : found;
  const form = useTyped<One>({
    start: one,
    shape: rules,
    body: (values) => ({ ...fronts, [list]: all.toSpliced(index, found < 0 ? 0 : 1, values as One) }),
    send: (body) => send('PUT', '/api/fronts', body),
    done: (_value, values) => {
      onClose();
      say(`${values.name} is saved`);
      router.refresh();
    },
  });
  return {
    form,
    at: (field) => form.at(`${list}.${index}.${field}`) ?? (field === 'name' ? form.at(list) : undefined),
    known: found >= 0,
  };
}
