/** Reads a file of rows away from the page, so that a hundred thousand of them do not hold it up. */
import Papa from 'papaparse';
import { vcardTable } from './vcard-table';

addEventListener('message', async (event: MessageEvent<{ file: File }>) => {
  const { file } = event.data;
  const text = await file.text();
  if (/^\s*BEGIN:VCARD/i.test(text)) return postMessage(vcardTable(text));
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const [headings = [], ...rows] = data;
  postMessage({ headings, rows });
});
