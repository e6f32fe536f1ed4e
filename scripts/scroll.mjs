// How a long log scrolls: its pages are loaded as one comes near their end, and the time from frame to
// frame is taken all the way down, in headless Chromium.
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';

const lines = 4000;
const root = fileURLToPath(new URL('..', import.meta.url));
const program = spawn(`${root}bin/yokeswap`, ['demo', '--listen', '127.0.0.1:0'], {
  stdio: ['ignore', 'pipe', 'ignore'],
});
const url = await new Promise((resolve) =>
  program.stdout.on('data', (text) => resolve(/http:\/\/[^\s/]+/.exec(String(text))?.[0])),
);
for (let i = 0; i < lines; i++) {
  const put = await fetch(`${url}/api/quads/quern/log`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: url },
    body: JSON.stringify({ says: `line ${i} of a long log, as one writes them at the bench` }),
  });
  if (!put.ok) throw new Error(await put.text());
}
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(`${url}/#/log`);
await page.getByRole('button', { name: 'Older' }).waitFor();
const took = await page.evaluate(async () => {
  const frames = [];
  let last = performance.now();
  let still = 0;
  for (let down = 0; still < 90;) {
    scrollBy(0, 240);
    await new Promise(requestAnimationFrame);
    const now = performance.now();
    frames.push(now - last);
    last = now;
    still = scrollY > down ? 0 : still + 1;
    down = Math.max(down, scrollY);
  }
  return frames;
});
const shown = await page.locator('section.day li').count();
took.sort((a, b) => a - b);
const at = (share) => took[Math.floor(share * (took.length - 1))].toFixed(1);
console.log(
  `scrolling ${shown} lines of the log, ${took.length} frames: ${at(0.5)} ms a frame, 95 of 100 in ${at(0.95)} ms, the slowest ${at(1)} ms; goal 16.7 ms`,
);
await browser.close();
program.kill();
