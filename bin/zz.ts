/** throwaway: npx tsx bin/zz.ts OUT PATH [js…]  env W,H,FULL */
import { startChromium } from '../tests/support/chromium';
import { press, untilShown } from '../tests/support/person';
const [out, path, ...steps] = process.argv.slice(2);
const { browser, close } = await startChromium();
const page = await browser.newPage();
const size = { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) };
await page.setViewport(size);
const web = 'http://localhost:3000';
if (!process.env.ANON) {
  await page.goto(`${web}/sign-in`, { waitUntil: 'load' });
  await press(page, process.env.AS ?? 'Come in as Ada', 'button');
  await untilShown(page, 'Needs a hand');
}
await page.goto(path!.startsWith('http') ? path! : `${web}${path}`, { waitUntil: 'load' });
const nap = (ms: number) => new Promise((r) => setTimeout(r, ms));
await nap(1300);
for (const step of steps) {
  if (step.startsWith('key:')) for (const k of step.slice(4).split(',')) await page.keyboard.press(k as never);
  else if (step.startsWith('type:')) await page.keyboard.type(step.slice(5));
  else console.log(await page.evaluate(step));
  await nap(900);
}
await page.screenshot({ path: out as `${string}.png`, fullPage: Boolean(process.env.FULL) });
await close();
