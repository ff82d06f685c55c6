import 'reflect-metadata';
import { configureGlobal } from 'fast-check';
import { STAND_IN_TICKETS } from '../../bin/stack/programs';

/** What a program keeps while it lives. Files of tests share a process and what it has loaded; each begins as a program that has just started. */
const kept = globalThis as {
  dahliaSettings?: Readonly<Record<string, string | undefined>>;
  dahliaServices?: unknown;
  dahliaHearing?: unknown;
  dahliaPool?: { end(): Promise<void> };
};
kept.dahliaSettings ??= { ...process.env };
for (const name of Object.keys(process.env)) if (!(name in kept.dahliaSettings)) delete process.env[name];
Object.assign(process.env, kept.dahliaSettings);
delete kept.dahliaServices;
delete kept.dahliaHearing;
void kept.dahliaPool?.end();
delete kept.dahliaPool;

// As the template's database was made.
process.env.TICKET_SECRET = STAND_IN_TICKETS;

// The same cases each time: a law that breaks is found by whoever breaks it, not by the next one.
configureGlobal({ seed: 20261123, numRuns: 200 });
