/** Blows upon a running Dahlia: tsx bin/faults.ts BLOWS SEED [MOVEMENTS]; ten movements for each blow unless said otherwise. */
import { resolve } from 'node:path';
import { blowUpon } from '../tests/faults/blows/run';
import { DIST } from '../tests/support/built-application';
import { buildApplication } from './stack/build';

const [blows = 30, seed = 1, movements = blows * 10] = process.argv.slice(2).map(Number);
const say = (words: string): void => void process.stderr.write(`${new Date().toISOString().slice(11, 19)} ${words}\n`);
buildApplication(DIST);
const outcome = await blowUpon({ blows, seed, movements, folder: resolve('.data/faults'), say });
process.stdout.write(`${JSON.stringify({ name: 'faults', seed, ...outcome }, null, 2)}\n`);
process.exit(outcome.troubles.length === 0 ? 0 : 1);
