import 'reflect-metadata';
import { configureGlobal } from 'fast-check';
import { STAND_IN_TICKETS } from '../../bin/stack/programs';

// As the template's database was made.
process.env.TICKET_SECRET = STAND_IN_TICKETS;

// The same cases each time: a law that breaks is found by whoever breaks it, not by the next one.
configureGlobal({ seed: 20261123, numRuns: 200 });
