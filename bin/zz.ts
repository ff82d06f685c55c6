import { startChromium } from '../tests/support/chromium';
import { press, untilShown } from '../tests/support/person';

const web = 'http://localhost:3000';
const { browser, close } = await startChromium();
const page = await browser.newPage();
const shot = async (name: string, w = 1280, h = 800) => {
  await page.setViewport({ width: w, height: h });
  await new Promise((r) => setTimeout(r, 1300));
  await page.screenshot({ path: `/tmp/shots/${name}.png` });
};
await page.setViewport({ width: 1280, height: 800 });
await page.goto(`${web}/sign-in`);
await press(page, 'Come in as Ada', 'button');
await untilShown(page, 'Needs a hand');
await shot('today');
await page.goto(`${web}/money/payments?way=debit`);
await shot('reg');
await page.evaluate(() => (document.querySelectorAll('a[data-row]')[0] as HTMLElement)?.click());
await new Promise((r) => setTimeout(r, 1500));
await shot('pending', 1280, 1100);
await page.goto(`${web}/money/payments?way=debit`);
await new Promise((r) => setTimeout(r, 800));
await page.evaluate(() => (document.querySelectorAll('a[data-row]')[1] as HTMLElement)?.click());
await new Promise((r) => setTimeout(r, 1500));
await shot('returned', 1280, 1300);
const messages = (await (await fetch('http://127.0.0.1:4000/mail/api/messages')).json()) as {
  messages: { subject: string; text: string; to: string[] }[];
};
for (const m of messages.messages.slice(0, 60))
  if (/bank|debit/i.test(m.subject)) console.log(m.subject, m.text.slice(0, 900));
const pay = messages.messages.find(
  (m) => /Invoice .* from/.test(m.subject) && /\/i\//.test(m.text) && /Fenwick/.test(m.text),
);
const link = /http:\S+\/i\/[\w-]+/.exec(pay?.text ?? '')?.[0];
console.log(link);
if (link) {
  await page.goto(link);
  await shot('collecting-page', 390, 844 * 2);
}
await close();
