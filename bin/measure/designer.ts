/** How fluent a block is dragged on a page of sixty. */
import { randomUUID } from 'node:crypto';
import { newBlock } from '@/core/page/page';
import { keepPage } from '@/flows/checkout/hosted-page';
import { beginOffer } from '@/flows/offer/offers';
import { startChromium } from '../../tests/support/chromium';
import { comeIn, visit } from '../../tests/support/person';
import { signIn } from '../../tests/support/signed-in';
import type { House } from '../../tests/support/workshop';
import { report } from './report';

const BLOCKS = 60;
const STEPS = 240;

/** Measures the time from frame to frame while a block is dragged up and down over the others by mouse. */
export async function measureDesigner(web: string, house: House, email: string, password: string): Promise<void> {
  const id = await beginOffer(house.owner, 'page');
  const blocks = Array.from({ length: BLOCKS }, (_, at) =>
    newBlock(randomUUID(), at % 6 === 5 ? 'offer' : 'heading', { text: `Block ${at + 1}` }),
  );
  await keepPage(house.owner, id, { blocks });
  const { browser, close } = await startChromium();
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await comeIn(page, web, (await signIn(email, password, 'bench')).token);
  await visit(page, `${web}/ask/design/${id}`);
  const handles = await page.$$('[data-block] button[aria-label^="Move"]');
  const box = await handles[2]?.boundingBox();
  if (!box || handles.length !== BLOCKS) throw new Error(`The designer shows ${handles.length} blocks`);
  const x = box.x + box.width / 2;
  const y = box.y + box.height / 2;
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 12, { steps: 3 });
  await page.evaluate(`window.frames60 = []; (function tick(at) {
    if (window.last60) window.frames60.push(at - window.last60);
    window.last60 = at;
    window.run60 = requestAnimationFrame(tick);
  })(0)`);
  // Up and down again over some twelve blocks, as a hand that looks for the place.
  for (let step = 0; step < STEPS; step++)
    await page.mouse.move(x, y + 260 - 250 * Math.cos((step / STEPS) * 6 * Math.PI));
  const frames = (await page.evaluate('cancelAnimationFrame(window.run60), window.frames60.slice(2)')) as number[];
  await page.mouse.up();
  await close();
  const late = frames.filter((time) => time > 1000 / 60 + 4).length;
  report(
    'page designer, a drag over 60 blocks: frame to frame',
    frames,
    frames.reduce((sum, time) => sum + time, 0) / 1000,
    {
      lateFrames: late,
    },
  );
}
