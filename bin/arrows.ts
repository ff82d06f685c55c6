/** Holds the arrows between the rooms. A cruise that read nothing has checked nothing, so that fails too. */
import { execFileSync } from 'node:child_process';

type Summary = { totalCruised: number; violations: { rule: { name: string }; from: string; to: string }[] };
const LEAST_MODULES = 100;

const text = execFileSync(
  process.execPath,
  ['node_modules/dependency-cruiser/bin/dependency-cruise.mjs', 'src', 'standins', '--output-type', 'json'],
  { encoding: 'utf8', maxBuffer: 100_000_000 },
);
const { summary } = JSON.parse(text) as { summary: Summary };
for (const { rule, from, to } of summary.violations) process.stdout.write(`${rule.name}: ${from} → ${to}\n`);
process.stdout.write(`${summary.totalCruised} modules read, ${summary.violations.length} arrows the wrong way\n`);
process.exit(summary.violations.length === 0 && summary.totalCruised >= LEAST_MODULES ? 0 : 1);
