/** Reads a file of rows away from the page, so that a hundred thousand of them do not hold it up. */
import { csvTable } from '@/core/file/csv-table';
import { fileText } from './file-text';
import { vcardTable } from './vcard-table';

addEventListener('message', async (event: MessageEvent<{ file: File }>) => {
  const text = await fileText(event.data.file);
  postMessage(/^\s*BEGIN:VCARD/i.test(text) ? vcardTable(text) : csvTable(text));
});
