import { EventEmitter } from 'node:events';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { expect, test } from 'vitest';
import { metricsText } from '@/outside/metrics';
import { kindOf, Requests } from './requests';

test('addresses are counted by what they are for, and nobody’s link is told', async () => {
  let now = 0;
  const requests = new Requests(() => now);
  const answered = (url: string, statusCode: number, ms: number): void => {
    const response = Object.assign(new EventEmitter(), { statusCode });
    requests.count({ url } as IncomingMessage, response as unknown as ServerResponse);
    now += ms;
    response.emit('close');
  };
  answered('/i/Secret-Token', 200, 40);
  answered('/i/Secret-Token', 404, 4);
  answered('/v1/customers', 201, 700);
  const text = await metricsText([
    { name: 'dahlia_part_well', help: 'Well', by: 'part', values: [{ of: 'database', value: 1 }] },
    { name: 'dahlia_nothing', help: 'Nothing', values: [] },
  ]);
  expect(text).not.toContain('Secret');
  expect(text).toContain('dahlia_request_seconds_bucket{le="0.05",kind="customers",status="2xx"} 1');
  expect(text).toContain('dahlia_request_seconds_count{kind="programs",status="2xx"} 1');
  expect(text).toContain('dahlia_part_well{part="database"} 1');
});

test('the text is OpenMetrics as its specification writes it: each family once, its samples together, ended once', async () => {
  const text = await metricsText([
    { name: 'dahlia_part_well', help: 'Well', by: 'part', values: [{ of: 'a "quoted" \\ part\n', value: 0 }] },
  ]);
  expect(text.endsWith('# EOF\n')).toBe(true);
  expect(text.match(/# EOF/g)).toHaveLength(1);
  const families: string[] = [];
  let family = '';
  for (const line of text.trimEnd().split('\n')) {
    if (line === '' || line === '# EOF' || line.startsWith('# HELP')) continue;
    const [, named] = /^# TYPE (\S+) (counter|gauge|histogram|summary|info|unknown)$/.exec(line) ?? [];
    if (named) {
      families.push(named);
      family = named;
      continue;
    }
    // A sample: its name begins with the family's, labels are quoted, and a number follows.
    const [, name = ''] =
      /^([a-z_]\w*)(?:\{(?:\w+="(?:[^"\\\n]|\\["\\n])*",?)*\})? -?(?:[\d.]+(?:e[+-]?\d+)?|\+Inf|NaN)(?: [\d.]+)?$/i.exec(
        line,
      ) ?? [];
    expect(name.startsWith(family) && name !== '', line).toBe(true);
  }
  expect(new Set(families).size).toBe(families.length);
});

test.each([
  ['/today', 'desk'],
  ['/i/abc', 'customers'],
  ['/p/spring', 'customers'],
  ['/kept/abc', 'customers'],
  ['/api/pay/abc', 'interface'],
  ['/files/everything', 'files'],
  ['/v1/openapi.json', 'programs'],
  ['/_next/static/x.js', 'static'],
])('%s is counted as %s', (url, kind) => {
  expect(kindOf(url)).toBe(kind);
});
