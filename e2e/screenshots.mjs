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
  { name: 'swap-pins', hash: '/swap/quern/pins', viewport: desk },
  { name: 'swap-wiring', hash: '/swap/wallower/pins', viewport: desk, wire: true },
  { name: 'swap-mount', hash: '/swap/hopper/mount', viewport: desk },
  { name: 'swap-antenna', hash: '/swap/wallower/antenna', viewport: desk, dark: true },
  { name: 'swap-osd', hash: '/swap/wallower/osd', viewport: desk },
  { name: 'swap-room', hash: '/swap/quern/mount', viewport: { width: 1280, height: 1180 }, to: 'Where it lies' },
  { name: 'flight-board', hash: '/board/rynd', viewport: { width: 1280, height: 1640 }, board: true },
  {
    name: 'candidates',
    hash: '/candidates/damsel?only=ways&open=kit:compact-damsel',
    viewport: desk,
    to: 'What could go on Damsel',
  },
  { name: 'decide', hash: '/decide?budget=400', viewport: { width: 1280, height: 900 }, to: 'Change' },
  { name: 'make', hash: '/make/fantail/antenna-holder', viewport: desk },
  { name: 'route', hash: '/route', viewport: desk },
  {
    name: 'prove',
    hash: '/prove?course=post-mill&before=whip-2026-03-14&after=whip-2026-05-12',
    viewport: { width: 1280, height: 1080 },
    dark: true,
  },
  { name: 'rehearse', hash: '/rehearse', viewport: desk },
  { name: 'bench', hash: '/bench/brayer', viewport: desk, step: /Meter the supply/ },
  { name: 'fill', hash: '/fill/sluice/plan', viewport: desk, asks: true },
  { name: 'fleet-phone', hash: '/', viewport: phone },
];

const program = spawn(`${root}bin/yokeswap`, ['demo', '--listen', '127.0.0.1:0']);
const url = await new Promise((resolve, reject) => {
  program.stdout.on('data', (text) => resolve(/http:\/\/[^\s/]+/.exec(String(text))?.[0]));
  program.on('exit', (code) => reject(new Error(`the program ended with ${code}`)));
});
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
for (const { name, hash, viewport, dark, step, to, board, wire, asks } of shots) {
  const page = await browser.newPage({ viewport, colorScheme: dark ? 'dark' : 'light', reducedMotion: 'reduce' });
  await page.goto(`${url}/#${hash}`);
  await page.getByRole('heading').first().waitFor();
  if (step) await page.getByRole('button', { name: step }).click();
  if (step) await page.evaluate(() => scrollTo(0, 0));
  if (board) {
    await page.getByText('No board at hand?').click();
    await page.getByRole('button', { name: 'Start the stand-in' }).click();
    await page.getByRole('button', { name: 'Read it' }).click();
    await page.getByRole('heading', { name: /differ from the plan/ }).waitFor();
  }
  if (wire) {
    await page.getByRole('button', { name: 'what is there today' }).click();
    await page.getByRole('heading', { name: 'Wire it, pin by pin' }).evaluate((e) => e.scrollIntoView());
  }
  if (asks) await page.getByRole('button', { name: 'Note it' }).waitFor();
  if (to) await page.getByRole('heading', { name: to }).evaluate((e) => e.scrollIntoView());
  await page.evaluate(() => document.fonts.ready);
  await page.screenshot({ path: `${root}docs/screenshots/${name}.png` });
  await page.close();
  console.log(`docs/screenshots/${name}.png`);
}
await browser.close();
program.removeAllListeners('exit');
program.kill();
