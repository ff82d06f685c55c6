/** Takes the pictures in docs/screenshots from a demo that is running and fresh: npx tsx bin/screenshots.ts [WEB] [STANDINS] */
import type { Page } from 'puppeteer-core';
import { startChromium } from '../tests/support/chromium';
import { choose, press, type, untilShown } from '../tests/support/person';

const [web = 'http://localhost:3000', standIns = 'http://127.0.0.1:4000'] = process.argv.slice(2);
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844, deviceScaleFactor: 2 };
const settle = () => new Promise((resolve) => setTimeout(resolve, 1200));

const { browser, close } = await startChromium();
const page = await browser.newPage();

async function take(name: string, size: { width: number; height: number } = DESK, at: Page = page): Promise<void> {
  await at.setViewport(size);
  await settle();
  await at.screenshot({ path: `docs/screenshots/${name}.png` });
  process.stdout.write(`${name}\n`);
}
const go = async (path: string, size: { width: number; height: number } = DESK): Promise<void> => {
  await page.setViewport(size);
  await page.goto(path.startsWith('http') ? path : `${web}${path}`, { waitUntil: 'load' });
};
/** The link in the latest mail whose subject begins with this. */
async function linkOf(beginning: string, to: string): Promise<string> {
  const answer = await fetch(`${standIns}/mail/api/messages`);
  const { messages } = (await answer.json()) as { messages: { subject: string; text: string }[] };
  const text = messages.find((mail) => mail.subject.startsWith(beginning) && mail.text.includes(to))?.text ?? '';
  const [link] = /http:\S+\/i\/[\w-]+/.exec(text) ?? [];
  if (!link) throw new Error(`No mail “${beginning}…” to ${to} with a link`);
  return link;
}
const openRow = (name: string): Promise<unknown> =>
  page.evaluate((wanted) => {
    const rows = [...document.querySelectorAll<HTMLAnchorElement>('a[data-row]')];
    rows.find((row) => row.innerText.includes(wanted))?.click();
  }, name);

await go('/sign-in');
await press(page, 'Come in as Ada', 'button');
await untilShown(page, 'Needs a hand');
await take('today');
await go('/settings/people');
await untilShown(page, 'How people sign in');
await take('people');
await go('/ask/invoices');
await openRow('Marguerite');
await untilShown(page, 'still due');
await take('list-and-sheet');
await go('/ask/invoices');
await openRow('Ingrid Fallowell');
await untilShown(page, 'Total due');
await press(page, 'Tally of the Sales tax', 'button');
await take('composer');
await go('/ask/links');
await openRow('Five lessons');
await untilShown(page, 'Copy link');
await press(page, 'Edit', 'link');
await untilShown(page, 'What the payer is asked');
await settle();
await settle();
await take('offer');
await go('/ask/pages');
await openRow('Lend a child');
await untilShown(page, 'Copy link');
await press(page, 'Design the page', 'link');
await untilShown(page, 'Published versions');
await settle();
await settle();
await take('page-designer');
await go('/ask/plans');
await openRow('Rosalind Achterberg');
await untilShown(page, 'Cards on file');
await take('plan');
await choose(page, 'More', 'Copy');
await untilShown(page, 'Every charge, drawn');
await untilShown(page, 'Draft, saved');
await take('plan-composer');
await go('/c/five-lessons');
await settle();
await take('checkout');
await go('/deliver/stock');
await untilShown(page, 'Cost of one');
await take('stock');
await go('/money/payouts');
await page.evaluate(() => {
  // The business's own of the week in which partners got theirs too.
  const rows = [...document.querySelectorAll<HTMLAnchorElement>('a[data-row]')];
  const at = rows.findIndex((row) => row.innerText.includes('Small Hands') && row.innerText.includes('Arrived'));
  rows
    .slice(at)
    .find((row) => /Payout \d+\nArrived/.test(row.innerText))
    ?.click();
});
await untilShown(page, 'in the account since');
await take('payout');
await go('/money/bank');
await untilShown(page, 'lines wait');
await page.keyboard.press('ArrowDown');
await take('bank');
await go('/money/disputes');
await untilShown(page, 'To be answered');
await openRow('Answer by then');
await untilShown(page, 'What the file holds');
await take('dispute');
await go('/deliver/pack');
await untilShown(page, 'Going out on');
await take('to-pack');
await go('/deliver/shipments');
await openRow('Orrin Pell');
await untilShown(page, 'In it');
await settle();
await take('shipment');
const open = await linkOf('Invoice ', 'The Saltmarsh Fiddle Club');
await go(open);
await take('customer');
await go(open, PHONE);
await take('customer-phone', PHONE);
await go(open.replace('/i/', '/kept/'));
await take('kept');
const stranger = await (await browser.createBrowserContext()).newPage();
await stranger.setViewport(DESK);
await stranger.goto(`${web}/sign-up`, { waitUntil: 'load' });
await type(stranger, 'Your name', 'Wren Osei');
await type(stranger, 'Your business', 'Lark Joinery');
await type(stranger, 'E-mail address', 'wren@lark.example');
await type(stranger, 'Password', 'seven larks and a plane');
await press(stranger, 'Write your first invoice', 'button');
await untilShown(stranger, 'What opens what');
await press(stranger, 'Use “Two hours of work”', 'button');
await take('first-day', DESK, stranger);
await close();
process.exit(0);
