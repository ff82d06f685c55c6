import type { Table } from '@/core/file/table';

/** Reads a file in a worker. @throws Error for one that is no table */
export function readTable(file: File): Promise<Table> {
  const worker = new Worker(new URL('./read-table.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<Table>((resolve, reject) => {
    worker.onmessage = (event: MessageEvent<Table>) => resolve(event.data);
    worker.onerror = () => reject(new Error('The file could not be read'));
    worker.postMessage({ file });
  }).finally(() => worker.terminate());
}
