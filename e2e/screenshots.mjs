// Takes docs/screenshots anew from the built program with the demo.
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';

const root = fileURLToPath(new URL('..', import.meta.url));
const desk = { width: 1280, height: 800 };
const phone = { width: 390, height: 844 };
const shots = [
  { name: 'fleet', hash: '/', viewport: desk },
  { name: 'swap-power', hash: '/swap/wallower/power', viewport: desk },
  { name: 'swap-link', hash: '/swap/damsel/link', viewport: desk },
  { name: 'swap-feeds', hash: '/swap/damsel/power', viewport: desk, to: 'When the pack' },
  { name: 'swap-pins', hash: '/swap/quern/pins', viewport: desk },
  { name: 'swap-mount', hash: '/swap/hopper/mount', viewport: desk },
  { name: 'swap-antenna', hash: '/swap/wallower/antenna', viewport: desk, dark: true },
  { name: 'shopping', hash: '/shopping', viewport: desk },
  { name: 'together', hash: '/together?quads=quern,fantail,brayer,whip&guests=fell-analog', viewport: desk },
  { name: 'route', hash: '/route', viewport: desk },
  { name: 'route-steps', hash: '/route', viewport: desk, dark: true, to: 'The steps' },
  { name: 'route-back', hash: '/route/back', viewport: desk },
  { name: 'route-bench', hash: '/walk', viewport: desk },
  { name: 'rehearse', hash: '/rehearse', viewport: desk },
  { name: 'bench', hash: '/bench/brayer', viewport: desk, step: /Meter the supply/ },
  { name: 'shelf', hash: '/shelf', viewport: desk },
  { name: 'shelf-entry', hash: '/shelf/edit/board/bramble-f7', viewport: desk },
  { name: 'fleet-phone', hash: '/', viewport: phone },
  { name: 'bench-phone', hash: '/bench/brayer', viewport: phone, step: /First power-up/ },
];

const program = spawn(`${root}bin/yokeswap`, ['demo', '--listen', '127.0.0.1:0']);
const url = await new Promise((resolve, reject) => {
  program.stdout.on('data', (text) => resolve(/http:\/\/[^\s/]+/.exec(String(text))?.[0]));
  program.on('exit', (code) => reject(new Error(`the program ended with ${code}`)));
});
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
});
for (const { name, hash, viewport, dark, step, to } of shots) {
  const page = await browser.newPage({ viewport, colorScheme: dark ? 'dark' : 'light', reducedMotion: 'reduce' });
  await page.goto(`${url}/#${hash}`);
  await page.getByRole('heading').first().waitFor();
  if (step) await page.getByRole('button', { name: step }).click();
  if (step) await page.evaluate(() => scrollTo(0, 0));
  if (to) await page.getByRole('heading', { name: to }).evaluate((e) => e.scrollIntoView());
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: `${root}docs/screenshots/${name}.png` });
  await page.close();
  console.log(`docs/screenshots/${name}.png`);
}
await browser.close();
program.removeAllListeners('exit');
program.kill();
