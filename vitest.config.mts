import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

const alias = { '@': new URL('./src', import.meta.url).pathname };
const base = { alias, environment: 'node' as const, setupFiles: ['tests/support/setup.ts'], isolate: false };

/** What takes minutes, longest first. */
const LONG = [
  'faults/blows',
  'faults/fuzz',
  'browser/offers',
  'browser/invoice',
  'browser/plans',
  'browser/desk',
  'browser/full',
  'browser/debits-vouchers',
  'faults/kill',
  'charging/year.db',
  'door/every-operation.db',
  'charging/charge-faults.db',
];

/** Whatever takes longest begins first, so that nothing long is left over for one worker alone. */
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const usual = await super.sort(files);
    const place = ({ moduleId }: TestSpecification) => LONG.findIndex((name) => moduleId.includes(`/${name}.`)) >>> 0;
    return usual.toSorted((a, b) => place(a) - place(b));
  }
}

const MAIN_PATHS = [
  'src/db/{walls,ledger}.db.test.ts',
  'src/flows/payment/take-payment.db.test.ts',
  'src/flows/checkout/{offers,card-testing}.db.test.ts',
  'src/flows/charging/sets.db.test.ts',
  'src/flows/plan/{plans,plans-at-desk,plans-by-link}.db.test.ts',
  'src/flows/invoice/{send-invoice,recurring}.db.test.ts',
  'src/flows/day/day-batches.db.test.ts',
  'tests/scale/**/*.test.ts',
];

/** Four suites: `unit` needs nothing, `db` and `scale` a PostgreSQL cluster, `browser` the built application and Chromium. */
export default defineConfig({
  resolve: { alias },
  test: {
    // Three files at once, each with a database and, in the browser, programs of its own: most of a test is waiting.
    maxWorkers: 3,
    sequence: { sequencer: LongestFirst },
    // What is loaded stays loaded from file to file (a third of the database suite was loading); `setup.ts` lets go of all else.
    isolate: false,
    projects: [
      {
        resolve: { alias },
        test: {
          ...base,
          name: 'unit',
          include: ['src/**/*.test.{ts,tsx}', 'standins/**/*.test.ts', 'bin/**/*.test.ts'],
          exclude: ['**/*.db.test.ts'],
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
      {
        resolve: { alias },
        test: {
          ...base,
          name: 'db',
          include: ['src/**/*.db.test.ts', 'standins/**/*.db.test.ts'],
          globalSetup: ['tests/support/database-template.ts'],
          testTimeout: 600_000,
          hookTimeout: 600_000,
        },
      },
      {
        resolve: { alias },
        test: {
          ...base,
          // The main paths once more, on the schema as a distributed PostgreSQL asks for it (docs/scale.md).
          name: 'scale',
          include: MAIN_PATHS,
          globalSetup: ['tests/support/database-template.ts'],
          testTimeout: 600_000,
          hookTimeout: 600_000,
        },
      },
      {
        resolve: { alias },
        test: {
          ...base,
          name: 'browser',
          include: ['tests/browser/**/*.test.ts', 'tests/faults/**/*.test.ts'],
          globalSetup: ['tests/support/database-template.ts', 'tests/support/built-application.ts'],
          testTimeout: 600_000,
          hookTimeout: 900_000,
        },
      },
    ],
  },
});
