/** `npm run -s core -- VERB`: one JSON document a line in, one JSON answer a line out, in order. */
import { once } from 'node:events';
import { createInterface } from 'node:readline';
import { answerLine, verbs } from '@/core/command/verbs';

const verb = process.argv[2] ?? '';
if (!verbs.includes(verb)) {
  process.stderr.write(`usage: npm run -s core -- ${verbs.join('|')}\n`);
  process.exit(2);
}
for await (const line of createInterface({ input: process.stdin, crlfDelay: Number.POSITIVE_INFINITY })) {
  const answer = answerLine(verb, line);
  if (answer !== null && !process.stdout.write(`${answer}\n`)) await once(process.stdout, 'drain');
}
