import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser } from 'puppeteer-core';

/** Debian's Chromium without a window, which spares a fifth of the time, with a fresh profile; `close` also clears the profile away. */
export async function startChromium(): Promise<{ browser: Browser; close: () => Promise<void> }> {
  const userDataDir = mkdtempSync(join(tmpdir(), 'dahlia-chromium-'));
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
    headless: true,
    userDataDir,
    protocolTimeout: 600_000,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      // A camera that shows a moving picture of nothing, and needs nobody's leave.
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
    ],
  });
  return {
    browser,
    close: async () => {
      await browser.close();
      rmSync(userDataDir, { recursive: true, force: true });
    },
  };
}
