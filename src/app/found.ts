import { isUUID } from 'class-validator';
import type { Route } from 'next';
import { notFound, redirect } from 'next/navigation';
import { Refusal } from '@/flows/door/refusal';

/** What a page waits for; the not-found screen where there is no such thing, or the address holds nothing that `isId` takes. */
export async function orNotFound<T>(
  id: string,
  loading: Promise<T>,
  isId: (text: string) => boolean = isUUID,
): Promise<T> {
  if (!isId(id)) {
    loading.catch(() => undefined);
    notFound();
  }
  try {
    return await loading;
  } catch (error) {
    if (error instanceof Refusal && error.code === 'not-found') notFound();
    throw error;
  }
}

/** The same for what people throw away themselves: whoever still looks at it is led to where it was kept. */
export async function orGone<T>(id: string, loading: Promise<T>, home: Route): Promise<T> {
  if (!isUUID(id)) {
    loading.catch(() => undefined);
    notFound();
  }
  const found = await loading.catch((error: unknown) => {
    if (error instanceof Refusal && error.code === 'not-found') return null;
    throw error;
  });
  if (found === null) redirect(home);
  return found;
}
