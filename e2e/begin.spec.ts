// The way in: from an empty folder to a first answer, its inputs counted. An input is a
// committed field or choice, and each press that goes on.
import type { Page } from '@playwright/test';
import { expect, expectAccessible, expectNoSidewaysScroll, test } from './program';

/** Counts what a person puts in. */
class Inputs {
  count = 0;
  constructor(private page: Page) {}
  async type(label: string, text: string, nth = 0) {
    await this.page.getByLabel(label).nth(nth).fill(text);
    this.count++;
  }
  async press(name: string | RegExp) {
    await this.page.getByRole('button', { name }).first().click();
    this.count++;
  }
}

test.describe('from an empty folder', () => {
  test.use({ command: 'serve' });

  test('do these two link: no more than eight inputs, by thumb', async ({ page, open }) => {
    await page.setViewportSize({ width: 390, height: 844 });
    await open('/');
    await page.getByRole('link', { name: /Do these two link/ }).click();
    await expectAccessible(page);
    const put = new Inputs(page);
    await put.type('its name', 'Bought unit', 0);
    await put.type('the release on it', '1.0.2', 0);
    await put.type('its name', 'My goggles', 1);
    await put.type('the release on it', '2.1', 1);
    await put.type('Air unit: on which releases', '>=1.0.4');
    await put.type('Goggles: on which releases', '>=2.0');
    await put.press('Answer');
    expect(put.count).toBeLessThanOrEqual(8);
    await expect(
      page.getByText(/Bought unit on 1.0.2 does not link with My goggles on 2.1; it does after putting 1.0.4 on/),
    ).toBeVisible();
    await expectNoSidewaysScroll(page);
    await expectAccessible(page);
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Bought unit with My goggles' })).toBeVisible();
  });

  test('the same by keyboard alone, and what is no release is said', async ({ page, open }) => {
    await open('/begin/link');
    await page.getByLabel('its name').first().focus();
    await page.keyboard.type('Unit');
    await page.keyboard.press('Tab');
    await page.keyboard.type('newest');
    await page.keyboard.press('Tab');
    await page.keyboard.type('Eyes');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText('the release on Unit: expected a dotted version');
    await page.getByLabel('the release on it').first().focus();
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type('1.1');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Unit with Eyes' })).toBeVisible();
  });

  test('a quad is filled on its picture, and the trade shelf has what belongs to nobody', async ({ page, open }) => {
    await open('/');
    await page.getByRole('link', { name: /I convert a quad/ }).click();
    const put = new Inputs(page);
    await put.type('What do you call it?', 'Old faithful');
    await put.press('Next');
    await expect(page.getByRole('heading', { name: 'Old faithful' })).toBeVisible();
    await expectAccessible(page);
    await put.press(/flight pack/);
    await put.press(/^4-cell LiPo pack/);
    await expect(page.getByRole('status')).toContainText('4-cell LiPo pack is in.');
    await page.getByRole('button', { name: 'Take it back' }).click();
    await expect(page.getByRole('status')).toContainText('Taken back.');
    await expect(page.getByRole('button', { name: 'flight pack open' })).toBeVisible();
    await page.getByRole('button', { name: /flight pack/ }).click();
    await page.getByRole('button', { name: /^4-cell LiPo pack/ }).click();
    await expect(page.getByRole('status')).toContainText('4-cell LiPo pack is in.');
    await put.press(/flight board/);
    await put.press(/^Board that inverts in software, six ports, 5 and 9 V/);
    await page.getByRole('link', { name: 'Planned' }).click();
    await put.press(/air unit/);
    await put.type('Something new, by its name', 'Bought unit');
    await put.press('Put it in');
    await expect(page.getByRole('heading', { name: 'Goggles' })).toBeVisible();
    await put.type('its sheet, if you have it', 'Fenland Visor\nInput 7.4-26.4 V. Weight 290 g');
    await expect(page.getByText('Its sheet calls it “Fenland Visor”.')).toBeVisible();
    await put.press('Put it in with 3 values');
    await expect(page.getByRole('button', { name: /goggles Fenland Visor/ })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: /goggles Fenland Visor/ }).click();
    await page.getByRole('link', { name: 'All places' }).click();
    await page.getByRole('button', { name: /air unit Bought unit/ }).click();
    await page.getByText('Read it off a sheet').click();
    await page
      .getByLabel(/Text of its manual/)
      .first()
      .fill(
        'Input voltage: 7,4 - 26,4 V\nWeight 46 g ± 1\n25.5 x 25.5 mm\nTransmission power < 30 dBm\nTwo antennas, 5.8 GHz',
      );
    const read = page.getByRole('list', { name: 'What was found' });
    await expect(read.getByRole('listitem')).toHaveCount(7);
    await expect(read.getByLabel('take from 7.4 V as input.minV')).toBeChecked();
    await expect(read.getByLabel(/take holes 25.5/)).not.toBeChecked();
    await expect(read).toContainText('the words do not say whether these are its holes or its size');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Take 6 values' }).click();
    await expect(page.getByText('6 values are noted, with the words as their source.')).toBeVisible();
    await page.getByRole('link', { name: 'All places' }).click();
    const ask = page.getByRole('region', { name: 'What would decide most' });
    await expect(ask).toContainText('highest input voltage of Board that inverts');
    await ask.getByRole('button', { name: 'Note it' }).click();
    await expect(ask.getByRole('alert')).toContainText('Nothing is entered yet');
    await ask.getByLabel('highest input voltage').fill('26');
    await ask.getByLabel('highest input voltage').press('Enter');
    await expect(ask.getByRole('status')).toContainText('Noted: highest input voltage');
    const asked = await ask.locator('p.font-semibold').innerText();
    await ask.getByRole('button', { name: /I don't know/ }).click();
    await expect(ask.locator('p.font-semibold')).not.toHaveText(asked);
    await expectAccessible(page);
    await page.getByRole('link', { name: 'Its gates' }).click();
    await expect(page.getByRole('heading', { name: 'Old faithful' })).toBeVisible();
    await open('/');
    await expect(page.getByRole('rowheader')).toHaveCount(1);
    await open('/shelf/changes');
    const newest = page.getByRole('button', { name: /^Take back: saved/ }).first();
    const says = (await newest.getAttribute('aria-label'))!.slice('Take back: '.length);
    await newest.click();
    await expect(page.getByRole('status')).toContainText(`Taken back: ${says}.`);
    await expect(page.getByRole('button', { name: /^Take back: took back/ }).first()).toBeVisible();
    await open('/shelf/trade');
    await page.getByRole('button', { name: 'Take U.FL' }).click();
    await expect(page.getByRole('status')).toContainText('U.FL is yours now');
    await open('/links');
    await page.getByRole('link', { name: 'nobody has said' }).click();
    await page.getByRole('button', { name: 'Any to any' }).click();
    await expect(page.getByRole('link', { name: 'any to any' })).toBeVisible();
    await expectAccessible(page);
  });

  test('a second quad like the first: no more than six inputs', async ({ page, open, program }) => {
    const json = { method: 'POST', headers: { 'Content-Type': 'application/json' } };
    const { quad } = (await (
      await fetch(`${program.url}/api/begin/quad`, { ...json, body: JSON.stringify({ name: 'First', analog: false }) })
    ).json()) as { quad: string };
    const { revision } = (await (await fetch(`${program.url}/api/quads/${quad}/slots`)).json()) as { revision: number };
    await fetch(`${program.url}/api/quads/${quad}/slots/pack`, {
      ...json,
      body: JSON.stringify({ revision, today: true, take: { key: 'shelf:trade-lipo-6s', mine: false } }),
    });
    await open('/begin/quad/keep');
    const put = new Inputs(page);
    await put.type('What do you call it?', 'Second');
    await page.getByLabel('Like').selectOption({ label: 'First' });
    put.count++;
    await put.press('Next');
    expect(put.count).toBeLessThanOrEqual(6);
    await expect(page.getByRole('button', { name: 'flight pack 6-cell LiPo pack' })).toBeVisible();
  });

  test('the demo is looked round in a place of its own, and left in one press', async ({ page, open }) => {
    await open('/');
    await page.getByRole('link', { name: /Look round with the demo/ }).click();
    await expect(page.getByRole('rowheader')).toHaveCount(9);
    await expectAccessible(page);
    await page.getByRole('link', { name: 'Wallower' }).click();
    await expect(page.getByRole('heading', { name: 'Wallower' })).toBeVisible();
    await page.getByRole('link', { name: 'Leave the demo' }).click();
    await expect(page.getByRole('heading', { name: 'What brings you here?' })).toBeVisible();
  });
});

test('the rest of a plan is found in one press and planned in another', async ({ page, open }) => {
  await open('/fill/sluice/plan');
  const rest = page.getByRole('region', { name: 'Plan the rest' });
  await rest.getByRole('button', { name: 'Find it' }).click();
  await expect(rest.getByRole('article').first()).toContainText('put it into the pod');
  await expectAccessible(page);
  await rest.getByRole('button', { name: 'Plan this' }).first().click();
  await expect(rest.getByRole('status')).toContainText('Planned, all of it.');
  await rest.getByRole('button', { name: 'Find it' }).click();
  await expect(rest.getByRole('article').first()).toContainText('It is planned so already: nothing to change.');
  await open('/swap/sluice/mount');
  await expect(page.getByText(/where in Leat wing the unit goes/)).toHaveCount(0);
});

test('a value that is missing is entered where the finding stands', async ({ page, open }) => {
  await open('/swap/sluice/power');
  const enter = page.getByRole('button', { name: /^Enter resistance per cell of Tallow 4-cell 1400, old label here/ });
  await enter.first().click();
  await page.getByLabel('resistance of a cell').fill('6');
  await page.getByLabel('resistance of a cell').press('Enter');
  await expect(page.getByText('Noted: resistance per cell of Tallow 4-cell 1400, old label.')).toBeVisible();
  await expect(enter).toHaveCount(0);
  await expectAccessible(page);
});

test('what a flight board says is noted as on the quad today', async ({ page, open, program }) => {
  const shelf = (await (await fetch(`${program.url}/api/shelf?kind=quad`)).json()) as {
    entries: { id: string; revision: number; entry: { now: Record<string, unknown> } }[];
  };
  await open('/board/hopper');
  await page.getByText('No board at hand?').click();
  await page.getByRole('button', { name: 'Start the stand-in' }).click();
  await expect(page.getByRole('button', { name: 'Read it' })).toBeEnabled();
  const hopper = shelf.entries.find((e) => e.id === 'hopper')!;
  delete hopper.entry.now.sticks;
  const answer = await fetch(`${program.url}/api/entries/quad/hopper?revision=${hopper.revision}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(hopper.entry),
  });
  expect(answer.status).toBe(200);
  await page.getByRole('button', { name: 'Read it' }).click();
  const tells = page.getByRole('region', { name: 'What it says of today' });
  await expect(tells.getByLabel('note switches as it is on the board')).toBeChecked();
  await tells.getByLabel('note serial ports as it is on the board').uncheck();
  await expectAccessible(page);
  await tells.getByRole('button', { name: /as on it today/ }).click();
  await expect(tells.getByRole('rowheader', { name: 'switches' })).toHaveCount(0);
  await expect(tells.getByRole('rowheader', { name: 'serial ports' })).toHaveCount(1);
});

test('what was entered and not saved survives a closed tab', async ({ page, open }) => {
  await open('/shelf/edit/airUnit/aldine-one');
  const mass = page.getByLabel('mass in g', { exact: true });
  await mass.fill('51');
  await mass.blur();
  await page.reload();
  await expect(page.getByText('What you had entered and not saved is here again.')).toBeVisible();
  await expect(page.getByLabel('mass in g', { exact: true })).toHaveValue('51');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Start over' }).click();
  await expect(page.getByLabel('mass in g', { exact: true })).not.toHaveValue('51');
  await page.reload();
  await expect(page.getByText('What you had entered and not saved')).toHaveCount(0);
});
