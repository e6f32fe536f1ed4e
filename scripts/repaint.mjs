// How long a toggle on the yoke board takes until the answer is painted, with
// the demo and with a fleet of 200 quads: the median of eleven in headless Chromium.
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';

const root = fileURLToPath(new URL('..', import.meta.url));
const program = spawn(`${root}bin/yokeswap`, ['demo', '--listen', '127.0.0.1:0']);
const url = await new Promise((resolve) =>
  program.stdout.on('data', (text) => resolve(/http:\/\/[^\s/]+/.exec(String(text))?.[0])),
);

const fleet = await (await fetch(`${url}/api/export/fleet`)).json();
function grown(quads) {
  const shared = new Set(['visor-a-1', 'visor-b-1', 'visor-c-1', 'grip-1-a', 'grip-2-a']);
  const big = { ...fleet, kit: fleet.kit.filter((k) => shared.has(k.id)), quads: [] };
  for (const list of ['wants', 'scenarios', 'testFlights', 'tasks']) delete big[list]; // they name quads
  for (let i = 0; big.quads.length < quads; i++) {
    const name = (id) => (shared.has(id) ? id : `${id}-${i}`);
    const copy = JSON.parse(JSON.stringify(fleet), (key, v) => (key === 'kit' && typeof v === 'string' ? name(v) : v));
    big.kit.push(...copy.kit.filter((k) => !shared.has(k.id)).map((k) => ({ ...k, id: name(k.id) })));
    big.quads.push(...copy.quads.map((q) => ({ ...q, id: `${q.id}-${i}`, name: `${q.name} ${i}` })));
  }
  const kept = new Set(big.quads.slice(0, quads).map((q) => q.id));
  return { ...big, quads: big.quads.filter((q) => kept.has(q.id)) };
}

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
for (const [name, goal, size] of [
  ['demo', 100, 9],
  ['200 quads', 300, 200],
]) {
  if (size > fleet.quads.length) {
    const taken = await fetch(`${url}/api/import?apply=true&replace=true&base=1`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Origin: url },
      body: JSON.stringify(grown(size)),
    });
    if (!taken.ok) throw new Error(await taken.text());
  }
  await page.goto(`${url}/#/`);
  await page.reload();
  const toggle = page.getByRole('button', { name: /^Visor C/ }).first();
  await toggle.waitFor();
  const took = [];
  for (let i = 0; i < 11; i++) {
    took.push(
      await toggle.evaluate(async (knob) => {
        const said = document.querySelector('h1');
        const before = said.textContent;
        const begin = performance.now();
        knob.click();
        while (said.textContent === before && performance.now() - begin < 5000)
          await new Promise(requestAnimationFrame);
        await new Promise(requestAnimationFrame);
        return performance.now() - begin;
      }),
    );
  }
  took.sort((a, b) => a - b);
  const rows = (await (await fetch(`${url}/api/board`)).json()).rows.length;
  console.log(
    `toggle to repaint, ${name} (${rows} quads): ${took[5].toFixed(0)} ms, slowest ${took[10].toFixed(0)} ms, goal ${goal} ms`,
  );
}

// The wiring picture, its data at hand: from the press on its tab until it is painted.
await page.goto(`${url}/#/swap/${fleet.quads.find((q) => q.next?.wires ?? q.next?.harness).id}/osd`);
const tab = (name) => page.locator(`a[href$="/${name}"]`).first();
const took = [];
for (let i = 0; i < 11; i++) {
  await tab('osd').click();
  await page.locator('svg .pin').first().waitFor({ state: 'detached' });
  took.push(
    await tab('pins').evaluate(async (link) => {
      const begin = performance.now();
      link.click();
      while (!document.querySelector('svg .pin') && performance.now() - begin < 5000)
        await new Promise(requestAnimationFrame);
      await new Promise(requestAnimationFrame);
      return performance.now() - begin;
    }),
  );
}
took.sort((a, b) => a - b);
console.log(`wiring picture painted: ${took[5].toFixed(0)} ms, slowest ${took[10].toFixed(0)} ms, goal 50 ms`);
await browser.close();
program.kill();
