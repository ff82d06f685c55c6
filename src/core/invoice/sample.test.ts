import { expect, test } from 'vitest';
import { completePaper } from '../paper/paper';
import { readPaper } from './read-paper';
import { sampleLines } from './sample';

test.each(['USD', 'JPY', 'BHD'])(
  'what a sample says that it comes to is what it comes to once it is used, in %s',
  (currency) => {
    let ids = 0;
    for (const { line, netMinor } of sampleLines(currency, () => `line-${ids++}`)) {
      const paper = completePaper({ lines: [line] });
      const { tally } = readPaper(paper, {
        taxes: [],
        currency,
        pricesIncludeTax: false,
        home: { country: 'US' },
        customer: null,
      });
      expect(tally.total).toBe(netMinor);
    }
  },
);
