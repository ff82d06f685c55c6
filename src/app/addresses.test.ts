import { readdirSync } from 'node:fs';
import { expect, test } from 'vitest';
import { addressOf } from '../../bin/docs/routes';
import { isHandled, isReadable } from './addresses';

const pathOf = (file: string): string => addressOf(file).replace(/\[\w+\]/g, 'abc');

test('every handler says its own policy, and no page does', () => {
  const files = readdirSync('src/app', { recursive: true, encoding: 'utf8' });
  const handlers = files.filter((file) => /(^|\/)route\.ts$/.test(file)).map(pathOf);
  const pages = files.filter((file) => /(^|\/)page\.tsx$/.test(file)).map(pathOf);
  expect(handlers.length).toBeGreaterThan(100);
  expect(handlers.filter((path) => !isHandled(path))).toEqual([]);
  expect(pages.filter(isHandled)).toEqual([]);
});

test.each([
  ['/i/%ff', '', false],
  ['/i/%00', '', false],
  ['/i/%ed%a0%80', '', false],
  ['/today', '?part=%00', false],
  ['/today', '?part=%e2%82', false],
  ['/today', `?part=${'x'.repeat(8500)}`, false],
  ['/p/%F0%9D%84%9E', '?words=a+b%2Bc', true],
])('%s%s can be read: %s', (pathname, search, readable) => expect(isReadable({ pathname, search })).toBe(readable));
