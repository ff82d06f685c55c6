/** A thread that reads files: what it is asked, one at a time, and what it found. */
import { parentPort } from 'node:worker_threads';
import { NotAnInvoice } from '@/documents/xml/tree';
import { READERS } from './readers';

/** What the thread is asked. */
export type Asked = { readonly reader: keyof typeof READERS; readonly args: readonly unknown[] };
/** What it answers: what was read, or in words why the file is not what it should be, or that reading broke. */
export type Told =
  // Its program is read, and it begins with what it is asked.
  | { readonly ready: true }
  | { readonly read: unknown }
  | { readonly refused: string }
  | { readonly broke: { readonly name: string; readonly at: string } };

parentPort?.on('message', async ({ reader, args }: Asked) => {
  let told: Told;
  try {
    told = { read: await (READERS[reader] as (...given: readonly unknown[]) => unknown)(...args) };
  } catch (error) {
    // Of what broke only kind and place go on: the message can hold what somebody wrote.
    const { name, stack = '' } = error instanceof Error ? error : new Error();
    told = error instanceof NotAnInvoice ? { refused: error.message } : { broke: { name, at: stack.slice(-1000) } };
  }
  parentPort?.postMessage(told);
});
parentPort?.postMessage({ ready: true } satisfies Told);
