/** An owner who is signed in, at a stack and a browser of their own. */
import type { Browser, Page } from 'puppeteer-core';
import { afterAll } from 'vitest';
import { passwordHash } from '@/flows/house/password';
import { startChromium } from './chromium';
import { openPage, signInAs } from './person';
import { type Stack, startStack } from './stack';
import { foundHouse, type House } from './workshop';

type OwnerDesk = {
  readonly stack: Stack;
  readonly house: House;
  readonly browser: Browser;
  readonly page: Page;
  /** What the page's console says is wrong. */
  readonly errors: string[];
  readonly signIn: () => Promise<void>;
  readonly close: () => Promise<void>;
};

const EMAIL = 'owner@sallow.example';
const PASSWORD = 'rosin and maple';

async function openOwnerDesk(): Promise<OwnerDesk> {
  const stack = await startStack();
  const house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD), EMAIL);
  const { browser, close } = await startChromium();
  const { page, errors } = await openPage(browser, { width: 1280, height: 800 });
  // Also where a session still goes on: how long a test's days took depends on the weekday it runs on.
  const signIn = async () => {
    await page.deleteCookie({ name: 'dahlia_session', url: stack.web });
    await signInAs(page, stack.web, EMAIL, PASSWORD);
  };
  await signIn();
  return {
    stack,
    house,
    browser,
    page,
    errors,
    signIn,
    close: async () => {
      await close();
      await stack.close();
    },
  };
}

/** The same for all tests of the file that asks for it, closed after the last of them: `const { page } = await sharedOwnerDesk();` */
export async function sharedOwnerDesk(): Promise<OwnerDesk> {
  const desk = await openOwnerDesk();
  afterAll(() => desk.close());
  return desk;
}
