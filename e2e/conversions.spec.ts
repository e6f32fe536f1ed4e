// Conversions that come up, gone through on screen, with the files to make what they want.
import { readFile } from 'node:fs/promises';
import { inflateSync } from 'node:zlib';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, expectNoSidewaysScroll, test } from './program';

interface Stroke {
  x: number; // its middle, in mm
  y: number;
  wide: number;
  high: number;
  round: boolean; // it is made of curves
}

/** The strokes on the pages of a PDF as it is printed, in millimetres (ISO 32000-1, 8.5: m, l, c, h and cm). */
function strokesOf(pdf: Buffer): Stroke[] {
  const strokes: Stroke[] = [];
  const raw = pdf.toString('latin1');
  for (let at = raw.indexOf('stream\n'); at >= 0; at = raw.indexOf('stream\n', raw.indexOf('endstream', at) + 9)) {
    let text: string;
    try {
      text = inflateSync(pdf.subarray(at + 7, raw.indexOf('endstream', at))).toString('latin1');
    } catch {
      continue; // a font or a table
    }
    if (!/ cm\n/.test(text)) continue;
    let [a, d, e, f] = [1, 1, 0, 0]; // upright pages: nothing is turned
    const kept: number[][] = [];
    let points: [number, number][] = [];
    let round = false;
    for (const line of text.split('\n')) {
      const words = line.trim().split(' ');
      const n = words.map(Number);
      const put = (x: number, y: number) => points.push([a * x + e, d * y + f]);
      switch (words.at(-1)) {
        case 'q':
          kept.push([a, d, e, f]);
          break;
        case 'Q':
          [a, d, e, f] = kept.pop() as [number, number, number, number];
          break;
        case 'cm':
          [a, d, e, f] = [a * n[0]!, d * n[3]!, a * n[4]! + e, d * n[5]! + f];
          break;
        case 'm':
        case 'l':
          put(n[0]!, n[1]!);
          break;
        case 'c':
          round = true;
          put(n[4]!, n[5]!);
          break;
        case 'S':
        case 'n':
        case 'f': {
          const mm = (axis: 0 | 1) => points.map((p) => (p[axis] * 25.4) / 72);
          const [left, right, low, high] = [
            Math.min(...mm(0)),
            Math.max(...mm(0)),
            Math.min(...mm(1)),
            Math.max(...mm(1)),
          ];
          if (words.at(-1) === 'S')
            strokes.push({ x: (left + right) / 2, y: (low + high) / 2, wide: right - left, high: high - low, round });
          [points, round] = [[], false];
        }
      }
    }
  }
  return strokes;
}

/** The files of a part to make, each as it comes. */
async function taken(page: Page, part: string): Promise<void> {
  await page.getByRole('link', { name: part }).click();
  for (const [link, starts] of [
    ['STL', ''],
    ['3MF', 'PK'],
    ['SVG 1:1', '<svg'],
    ['DXF 1:1', 'ENTITIES'],
  ] as const) {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: link, exact: true }).click(),
    ]);
    const bytes = await readFile(await file.path());
    expect(bytes.length, link).toBeGreaterThan(300);
    if (starts) expect(bytes.toString('latin1').includes(starts), link).toBe(true);
  }
}

test('a camera one millimetre too wide for its cage goes into printed side plates', async ({ page, open }) => {
  await open('/swap/quern/mount');
  await page.getByLabel('air unit', { exact: true }).selectOption('model:aldine-three');
  await expect(
    page.getByText(/The camera is 20 mm wide, the cage of Tailpole 5 19 mm: it does not go in/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Hold the camera otherwise' }).click();
  const form = page.getByRole('form', { name: 'How the camera is held' });
  await form.getByLabel('held by (needed)').selectOption('cage');
  await form.getByLabel(/clear width/).fill('20');
  await form.getByLabel(/screws of its own/).fill('4');
  await form.getByRole('button', { name: 'Hold it so' }).click();
  await expect(page.getByText(/it does not go in/)).toHaveCount(0);
  await open('/shopping');
  await expect(page.getByRole('row', { name: /screw for the camera/ })).toContainText('Quern');
  await open('/make/quern');
  await taken(page, 'Camera side plate');
});

test('a unit under the top plate on tape, the plate left off while it is stuck on', async ({ page, open }) => {
  await open('/swap/wallower/mount');
  await page.getByRole('button', { name: 'Hold Aldine One otherwise' }).click();
  const form = page.getByRole('form', { name: 'How Aldine One is held' });
  await form.getByLabel('held by (needed)').selectOption('tape');
  await form.getByLabel('reaches a propeller when loose').selectOption('no');
  await form.getByLabel(/thickness under/).fill('1');
  await form.getByRole('button', { name: 'Hold it so' }).click();
  await expect(page.getByText(/Aldine One is held by tape: warmth softens it/)).toBeVisible();
  await page.getByRole('button', { name: /^Aldine One, 38 mm back/ }).focus();
  await page.keyboard.press('Shift+PageUp');
  await expect(page.getByRole('button', { name: /^Aldine One, 38 mm back, 12 mm up/ })).toBeVisible();
  await page.getByRole('button', { name: /^Aldine One, 38 mm back/ }).focus();
  await page.keyboard.press('Shift+PageUp');
  await expect(page.getByText(/Aldine One and the top plate want the same room/)).toBeVisible();
  await page.getByRole('button', { name: 'Leave the top plate off' }).click();
  await expect(page.getByText(/Aldine One and the top plate want the same room/)).toHaveCount(0);
  await expect(page.getByText(/The top plate of Tailpole 5 is left off: the frame bends more/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Put the top plate on' }).click();
  await page.getByRole('button', { name: 'Find a seat for Aldine One' }).click();
  await expect(page.getByText(/want the same room/)).toHaveCount(0);
  // And what would hold it better, to make.
  await open('/make/wallower');
  await taken(page, 'Unit bracket');
});

test('in a ducted craft the unit lies over the board, and a tight tail wants right-angled plugs', async ({
  page,
  open,
}) => {
  await open('/swap/hopper/mount');
  await expect(page.getByRole('button', { name: /^Aldine Two, 30 mm back, 14 mm up/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Thistle F4, 22 mm back, 4 mm up/ })).toBeVisible();
  await expect(page.getByText(/want the same room/)).toHaveCount(0);
  await expect(
    page.getByText(/The straight plug of Burr R does not go on: a standoff is in its way; a right-angled one/).first(),
  ).toBeVisible();
  await open('/swap/hopper/antenna');
  const beside = page.getByRole('region', { name: 'Side by side' });
  await beside.getByRole('button', { name: 'Plan 2 × Cowl R' }).click();
  await expect(beside.getByRole('row', { name: /2 × Cowl R/ }).getByText('the plan')).toBeVisible();
  await open('/swap/hopper/mount');
  await expect(page.getByRole('region', { name: 'How the antennas stand' })).toBeVisible();
  await expect(page.getByText(/plug of .* does not go on/)).toHaveCount(0);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
  await open('/make/hopper');
  await taken(page, 'Unit bracket');
});

test('antennas at 60°, clear of carbon, in a printed holder', async ({ page, open }) => {
  test.slow(); // a holder is cut while other tests run
  await open('/swap/quern/antenna');
  await expect(page.getByText(/The antennas stand|from carbon, /)).toHaveCount(0); // 60° apart, 46 mm from carbon
  await open('/swap/quern/mount');
  const stands = page.getByRole('region', { name: 'How the antennas stand' });
  for (let n = 1; n <= 5; n++) {
    await stands.getByRole('button', { name: 'turn left: antenna 1' }).click();
    await expect(stands.getByText(`pointing ${145 + 5 * n}° to the left`)).toBeVisible();
    await stands.getByRole('button', { name: 'turn right: antenna 2' }).click();
    await expect(stands.getByText(`pointing ${145 + 5 * n}° to the right`)).toBeVisible();
  }
  await open('/swap/quern/antenna');
  await expect(page.getByText(/The antennas stand \d+° apart; about 60° lets one hear/)).toBeVisible();
  await open('/make/quern');
  await taken(page, 'Antenna holder');
});

// What is printed is measured on the paper: in the PDF that the browser prints, each stroke in millimetres.
test('the printed template is to scale: its ruler is 50 mm long, its holes are where they are', async ({
  page,
  open,
}) => {
  await open('/make/quern/adapter-plate');
  const wide = Number(await page.getByLabel(/holes of the unit, across/).inputValue());
  await page.locator('img.paper').waitFor({ state: 'attached' });
  await page.waitForLoadState('networkidle');
  const strokes = strokesOf(await page.pdf({ format: 'A4' }));
  const close = (mm: number, to: number) => Math.abs(mm - to) < 0.02;
  expect(strokes.filter((s) => close(s.wide, 50) && s.high < 8).length).toBe(1);
  // The drills of the unit lie on the corners of a square: of their circles each has three others that far off.
  const holes = strokes.filter((s) => s.round && close(s.wide, s.high));
  const apart = (a: Stroke, b: Stroke) => [Math.abs(a.x - b.x), Math.abs(a.y - b.y)] as const;
  const corners = holes.filter(
    (h) =>
      holes.filter(
        (o) => apart(h, o).every((mm) => close(mm, 0) || close(mm, wide)) && apart(h, o).some((mm) => mm > 1),
      ).length >= 3,
  );
  expect(corners.length).toBeGreaterThanOrEqual(4);
});
