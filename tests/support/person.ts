/** A person at a browser: finds things by what they are called, and waits until they are there. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import axe from 'axe-core';
import type { Browser, ElementHandle, Frame, HTTPRequest, KeyInput, Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { PRETEND_ACCOUNTS } from '../../standins/cards/pretend-accounts';
import { PRETEND_CARDS } from '../../standins/cards/pretend-cards';
import { pause } from './until';

/** Long enough for a machine three times slower, or one that stood still for a minute: a test that goes well never waits so long. */
const PATIENCE = 150_000;

/**
 * Waits for something by a selector, and until it listens: what a page of ours shows first was drawn on the server, and a
 * press or a letter that comes before its program has taken it up is lost.
 */
async function listening(page: Page | Frame, selector: string): Promise<ElementHandle<Element> | null> {
  for (let tries = 0; tries < 5; tries++) {
    const element = (await page.waitForSelector(selector, { timeout: PATIENCE })) as ElementHandle<Element> | null;
    const listens = await page
      .waitForFunction(
        (one) =>
          !document.querySelector('script[src*="/_next/"]') ||
          Object.keys(one as Element).some((key) => key.startsWith('__reactProps')),
        { timeout: PATIENCE, polling: 80 },
        element,
      )
      .catch(() => null);
    // What was found first may have been drawn anew in the meantime.
    if (listens) return element;
  }
  throw new Error(`${selector} does not listen`);
}

/** Waits for something by its accessible name; several may carry it, the first is taken. */
export const byName = (page: Page | Frame, name: string, role = ''): Promise<ElementHandle<Element> | null> =>
  listening(page, `::-p-aria([name="${name}"]${role ? `[role="${role}"]` : ''})`);

/**
 * Presses it once it stands still and nothing lies over it: a bar that leads to what is out of sight goes a moment after that has
 * come into sight, and a press that begins on what then moves away is none.
 */
export async function press(page: Page | Frame, name: string, role = ''): Promise<void> {
  const element = await byName(page, name, role);
  await element?.scrollIntoView();
  await page
    .waitForFunction(
      (one) => {
        const { x, y, width, height } = (one as Element).getBoundingClientRect();
        const hit = document.elementFromPoint(x + width / 2, y + height / 2);
        const seen = one as Element & { lastSeenAt?: string };
        const isStill = seen.lastSeenAt === `${x} ${y}`;
        seen.lastSeenAt = `${x} ${y}`;
        return isStill && hit !== null && (seen.contains(hit) || hit.contains(seen));
      },
      { timeout: 5000, polling: 40 },
      element,
    )
    .catch(() => null);
  await element?.click();
}

/** Marks what a field holds and types over it; by focus and not by a click, so that nothing that moves can be missed. */
async function replaceText(element: ElementHandle<Element> | null, text: string): Promise<void> {
  await element?.evaluate((field) => {
    (field as HTMLInputElement).focus();
    (field as HTMLInputElement).select();
  });
  await element?.type(text);
}

/** Replaces what a field holds; a cell or a group may have the same name, a field is what can be typed into. */
export async function type(page: Page | Frame, name: string, text: string): Promise<void> {
  const field = ['textbox', 'searchbox'].map((role) => `::-p-aria([name="${name}"][role="${role}"])`).join(', ');
  await replaceText(await listening(page, field), text);
}

/**
 * Waits until something holds on the page. Looked at by the clock and not at each drawn frame: a page that another one
 * covers is not drawn, and would never be looked at.
 */
export const untilTrue = <Args extends unknown[]>(
  page: Page | Frame,
  holds: (...args: Args) => unknown,
  ...args: Args
): Promise<unknown> =>
  page
    .waitForFunction(holds as (...given: unknown[]) => unknown, { timeout: PATIENCE * 2, polling: 120 }, ...args)
    .catch(async (error: unknown) => {
      throw new Error(
        `${holds} ${JSON.stringify(args)} does not hold (${error}); there stands: ${await standing(page)}`,
      );
    });

/** What a page shows, for whoever reads why a test failed; one that is gone shows nothing. */
const standing = (page: Page | Frame): Promise<string> =>
  shown(page).then(
    (words) => `${page.url()} ${words.slice(0, 3000)}`,
    (error: unknown) => `nothing (${error})`,
  );

/** Waits until the page shows these words. */
export const untilShown = (page: Page | Frame, words: string): Promise<unknown> =>
  untilTrue(page, (wanted: string) => document.body?.innerText.replace(/\s+/g, ' ').includes(wanted), words);

export const shown = (page: Page | Frame): Promise<string> =>
  page.evaluate(() => document.body.innerText.replace(/\s+/g, ' '));

/**
 * What a console says that is no fault of a page: a refused request, which the page tells of itself; and an answer that broke off
 * (React's 412), after which the page asks once more. What should be shown then is looked for by each step.
 */
const NOT_OURS = /Failed to load resource|Minified React error #412/;

/**
 * A page of one's own: fresh cookies, and the console's errors collected. `close` leaves it for good and does not wait until
 * the browser has tidied up after it, which once in some hundred times it never says; its end ends every page.
 */
export async function openPage(
  browser: Browser,
  size = { width: 1280, height: 800 },
): Promise<{ page: Page; errors: string[]; close: () => void }> {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  watchFetches(page);
  await page.evaluateOnNewDocument(noteHearing);
  await page.bringToFront();
  await page.setViewport(size);
  page.setDefaultTimeout(PATIENCE);
  page.setDefaultNavigationTimeout(PATIENCE * 2);
  const errors: string[] = [];
  const note = (words: string) => NOT_OURS.test(words) || errors.push(`${words} (${page.url()})`);
  page.on('pageerror', (error) => note(String(error)));
  page.on('console', (message) => message.type() === 'error' && note(message.text()));
  return { page, errors, close: () => void context.close().catch(() => undefined) };
}

/** In the page, before its program: notes when that begins to hear keys pressed anywhere. */
function noteHearing(): void {
  const add = window.addEventListener;
  window.addEventListener = function (this: Window, ...given: Parameters<typeof add>) {
    add.apply(this, given);
    if (given[0] === 'keydown') Object.assign(globalThis, { hearsKeys: true });
  } as typeof add;
}

// What a page is fetching: what a page that was left had open is nobody's any more, and a line that stays open is no fetching.
const fetching = new WeakMap<Page, Set<HTTPRequest>>();

function watchFetches(page: Page): void {
  const open = new Set<HTTPRequest>();
  fetching.set(page, open);
  page.on('request', (request) => {
    if (request.resourceType() !== 'eventsource' && !request.headers()['next-router-prefetch']) open.add(request);
  });
  page.on('framenavigated', (frame) => frame === page.mainFrame() && open.clear());
  page.on('requestfinished', (request) => open.delete(request));
  page.on('requestfailed', (request) => open.delete(request));
}

/** Looks of 50 ms each at which nothing may be fetched before a page counts as being there. */
const QUIET_LOOKS = 4;
const MOST_LOOKS = 160;

/**
 * Waits until every control of the page has been taken up by its program and what it fetches by itself has come; not longer than
 * a while, since a page may always be fetching something.
 */
async function settled(page: Page): Promise<void> {
  const taken = () =>
    !document.querySelector('script[src*="/_next/"]') ||
    [...document.querySelectorAll('button, a, input, select, textarea')].every((one) =>
      Object.keys(one).some((key) => key.startsWith('__reactProps')),
    );
  for (let looks = 0, quiet = 0; looks < MOST_LOOKS && quiet < QUIET_LOOKS; looks++) {
    const busy = (fetching.get(page)?.size ?? 0) > 0 || !(await page.evaluate(taken).catch(() => false));
    quiet = busy ? 0 : quiet + 1;
    await pause(50);
  }
}

/** Goes to an address, and waits until the page is there and listens. */
export async function visit(page: Page, address: string): Promise<void> {
  await page.goto(address, { waitUntil: 'load' });
  await settled(page);
}

/** Reloads the page, and waits likewise. */
export async function visitAgain(page: Page): Promise<void> {
  await page.reload({ waitUntil: 'load' });
  await settled(page);
}

/** Goes back in the browser's history, and waits likewise; no page may be fetched for it. */
export async function goBack(page: Page): Promise<void> {
  await page.goBack();
  await settled(page);
}

/** Presses a button until the page shows these words: a busy computer may swallow a press, and a second one does no harm. */
export async function pressUntilShown(page: Page | Frame, name: string, words: string): Promise<void> {
  for (let tries = 0; tries < 3; tries++) {
    if (await page.$(`::-p-aria([name="${name}"][role="button"])`)) await press(page, name, 'button');
    const there = await page
      .waitForFunction(
        (wanted: string) => document.body?.innerText.replace(/\s+/g, ' ').includes(wanted),
        { timeout: PATIENCE, polling: 120 },
        words,
      )
      .catch(() => null);
    if (there) return;
  }
  throw new Error(`${name} does not lead to “${words}”: ${await shown(page)}`);
}

/** Presses a button until it has led on, and never once it has: what it leads to may take long, and has no such button. */
export async function pressOn(page: Page, name: string, path: string): Promise<void> {
  const isThere = (wanted: string) => location.pathname.startsWith(wanted);
  for (let tries = 0; tries < 4 && !(await page.evaluate(isThere, path).catch(() => false)); tries++) {
    await press(page, name, 'button');
    await page.waitForFunction(isThere, { timeout: PATIENCE / 4, polling: 100 }, path).catch(() => null);
  }
  await untilTrue(page, isThere, path);
}

/** Follows what leads to another page, and waits likewise. */
export async function follow(page: Page, selector: string): Promise<void> {
  await Promise.all([page.waitForNavigation({ waitUntil: 'load' }), page.click(selector)]);
  await settled(page);
}

/**
 * Presses a key once the page's program hears keys. Once only: what comes after the first may be a field, and a second press
 * would be a letter in it.
 */
export async function pressHeard(page: Page, key: KeyInput): Promise<void> {
  await untilTrue(page, () => (globalThis as typeof globalThis & { hearsKeys?: boolean }).hearsKeys === true);
  await page.keyboard.press(key);
}

/** Presses a key that leads on, and waits until it has. */
export async function pressKeyOn(page: Page, key: KeyInput, path: string): Promise<void> {
  await pressHeard(page, key);
  await untilTrue(page, (wanted: string) => location.pathname.startsWith(wanted), path);
}

/** "Find or do" by its key. */
export async function openFinder(page: Page): Promise<void> {
  await pressHeard(page, '/');
  await page.waitForSelector('[cmdk-input]');
}

export async function signInAs(page: Page, web: string, email: string, password: string): Promise<void> {
  await visit(page, `${web}/sign-in`);
  await type(page, 'E-mail address', email);
  await type(page, 'Password', password);
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname === '/today');
}

/** Comes in with a session that is already there: for tests that are about something else than signing in. */
export const comeIn = (page: Page, web: string, token: string): Promise<void> =>
  page.setCookie({ name: 'dahlia_session', value: token, url: web, httpOnly: true });

/** Opens a menu by its button's name, once the page stands: a field that takes the focus late would close it; takes one of its items. */
export async function choose(page: Page, menu: string, item: string): Promise<void> {
  await settled(page);
  await press(page, menu, 'button');
  await (
    await page.waitForSelector(`::-p-xpath(//*[@role='menuitem'][normalize-space()=${JSON.stringify(item)}])`, {
      visible: true,
    })
  )?.click();
}

/**
 * Opens a list of ours by its name and takes the first of its options that begins so. A list that is closed again before it was read, as
 * one is by a page that is drawn anew just then, is opened again, as anybody would.
 */
export async function pick(page: Page, name: string, option: string): Promise<void> {
  const wanted = `::-p-xpath(//*[@role='option'][starts-with(normalize-space(), ${JSON.stringify(option)})])`;
  for (let opened = 0; opened < 5; opened++) {
    await press(page, name, 'combobox');
    await page.waitForSelector(wanted, { visible: true, timeout: PATIENCE / 15 }).catch(() => null);
    if (await page.$('[role="listbox"]')) break;
  }
  await (await page.waitForSelector(wanted, { visible: true }))?.click();
  await page.waitForFunction(() => !document.querySelector('[data-radix-select-viewport]'));
}

/** Gives the page's file chooser a file of this name and content, written into `folder`. */
export async function give(page: Page, folder: string, name: string, content: string | Buffer): Promise<void> {
  const path = join(folder, name);
  writeFileSync(path, content);
  const input = (await listening(page, 'input[type=file]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
}

/** The frame with the processor's own fields. */
export async function cardFields(page: Page | Frame): Promise<Frame> {
  const element = await page.waitForSelector('iframe.card-fields', { visible: true, timeout: PATIENCE });
  const frame = await element?.contentFrame();
  if (!frame) throw new Error('No card fields');
  await frame.waitForSelector('input[name="code"]');
  return frame;
}

/** Types a pretend card into the processor's fields. */
export async function fillCard(page: Page | Frame, cardName: string): Promise<void> {
  const card = PRETEND_CARDS.find(({ name }) => name === cardName);
  const frame = await cardFields(page);
  const year = String(new Date().getUTCFullYear() + 2).slice(2);
  for (const [field, text] of [
    ['number', card?.number],
    ['expiry', `08${year}`],
    ['code', '123'],
  ] as const) {
    const input = await frame.waitForSelector(`input[name="${field}"]`);
    await replaceText(input, text ?? '');
  }
}

/** Chooses the bank account in the processor's fields, and types a pretend one. */
export async function fillAccount(page: Page | Frame, accountName: string): Promise<void> {
  const account = PRETEND_ACCOUNTS.find(({ name }) => name === accountName);
  const frame = await cardFields(page);
  const way = await frame.waitForSelector('button[data-way="account"]', { visible: true });
  await way?.click();
  for (const [field, text] of [
    ['account', account?.number],
    ['holder', 'Wren Abernathy'],
  ] as const) {
    const input = await frame.waitForSelector(`input[name="${field}"]`, { visible: true });
    await replaceText(input, text ?? '');
  }
}

/** No serious finding of the accessibility check on what is shown now, once the page has its title; toasts are left out, since they may just be fading in. */
export async function expectAccessible(page: Page, where: string): Promise<void> {
  await untilTrue(page, () => document.title !== '');
  await page.evaluate(axe.source);
  const findings = await page.evaluate(async () => {
    const { axe: check } = window as unknown as { axe: typeof axe };
    const { violations } = await check.run(
      { exclude: ['[data-sonner-toaster]'] },
      {
        // Nothing is told but what is wrong, and no style sheet is fetched once more.
        resultTypes: ['violations'],
        preload: false,
        runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
      },
    );
    return violations
      .filter(({ impact }) => impact === 'serious' || impact === 'critical')
      .flatMap(({ id, nodes }) =>
        nodes.map((node) => `${id}: ${node.target.join(' ')} ${node.failureSummary?.split('\n')[1] ?? ''}`),
      );
  });
  expect(findings, where).toEqual([]);
}
