// Five wirings that come up (common practice), each typed into an empty folder by hand, come
// out as a netlist, what to solder and to take off, pairs to meter and steps to follow. The
// same five stand over HTTP in web/wirings_test.go.
import type { Locator, Page } from '@playwright/test';
import { expect, expectAccessible, test } from './program';
import { enter } from './typed';

test.use({ command: 'serve' });

const measured = { kind: 'measured' };
const sixPins = ['supply', 'ground', 'uart-rx', 'uart-tx', 'rc-ground', 'rc-out'];
const sixPlaces = ['9v', 'ground', 'tx1', 'rx1', 'ground', 'rx2'];
const colours = ['red', 'black', 'white', 'grey', 'brown', 'yellow', 'green', 'blue'];
const cable = (n: number, from = 1) =>
  Array.from({ length: n }, (_, i) => ({ from: from + i, to: from + i, colour: colours[from + i - 1]! }));
const tails = (n: number, from = 1) => cable(n, from).map(({ from, colour }) => ({ from, colour }));
const port = (id: number) => ({ id, tx: true, rx: true, hardware: true, invert: 'software' });
const pads = [
  { id: 'batt', kind: 'pack' },
  { id: '9v', kind: 'regulated', topology: 'step-down', outV: 9, maxA: 3 },
];
const unit = (name: string, plug: Record<string, unknown>) => ({
  name,
  source: measured,
  input: { minV: 7, maxV: 17, peakW: 8 },
  rcOut: { inverted: true, protocol: 'sbus' },
  plug,
});

/** Takes entries from the trade shelf, by their names. */
async function trade(page: Page, url: string, ...names: string[]) {
  await page.goto(`${url}/#/shelf/trade`);
  for (const name of names) {
    await page.getByRole('button', { name: `Take ${name}`, exact: true }).click();
    await expect(page.getByRole('status')).toContainText(`${name} is yours now`);
  }
}

/** Begins a quad and fills places of its picture; ends on its pins. */
async function quad(page: Page, url: string, today: Record<string, string>, planned: Record<string, string>) {
  await page.goto(`${url}/#/begin/quad/keep`);
  await page.getByLabel('What do you call it?').fill('Bench');
  await page.getByRole('button', { name: 'Next' }).first().click();
  await expect(page.getByRole('heading', { name: 'Bench' })).toBeVisible();
  for (const [side, places] of [
    ['', today],
    ['Planned', planned],
  ] as const) {
    if (side) await page.getByRole('link', { name: side }).click();
    for (const [place, what] of Object.entries(places)) {
      await page.getByRole('button', { name: new RegExp(`^${place}`) }).click();
      await page
        .getByRole('button', { name: new RegExp(`^${what}`) })
        .first()
        .click();
      await expect(page.getByRole('status')).toContainText(`${what} is in.`);
      const back = page.getByRole('link', { name: 'All places' });
      if (await back.isVisible()) await back.click();
    }
  }
  await page.getByRole('link', { name: 'Its gates' }).click();
  await page.getByRole('link', { name: / pins$/ }).click();
}

/** Picks one of the choices of a place of the next fit, by its words. */
async function pick(page: Page, place: string, what: RegExp) {
  const select = page.getByLabel(place, { exact: true });
  await expect(select).toBeVisible();
  const words = await select.locator('option').allInnerTexts();
  const found = words.find((w) => what.test(w));
  expect(found, `${what} in ${words.join('; ')}`).toBeDefined();
  await select.selectOption({ label: found! });
  await expect(page.getByText(/^Picked /)).toBeVisible();
}

/** Unfolds something. What unfolds by itself while it is clicked is folded by the click, and clicked again. */
async function unfold(details: Locator) {
  await expect(async () => {
    if ((await details.getAttribute('open')) === null) await details.locator('summary').click();
    await expect(details.locator('select').first()).toBeVisible({ timeout: 1000 });
  }).toPass();
}

/** Where the pins of a part end, as the wiring table has it, each with its level. */
async function ends(page: Page, part: string) {
  const wire = page.getByRole('region', { name: 'Wire it, pin by pin' });
  const details = wire.locator('details').filter({ has: page.locator('summary', { hasText: part }) });
  await unfold(details);
  return details.locator('label.grid').evaluateAll((labels) =>
    labels.map((label) => {
      const select = label.querySelector('select')!;
      const level = label.querySelector('.mark')?.textContent ?? '';
      return `${select.value} ${level.trim()}`;
    }),
  );
}

/** Joins pins of a part to places of the board, one pick each. */
async function solder(page: Page, part: string, places: Record<number, string>) {
  const wire = page.getByRole('region', { name: 'Wire it, pin by pin' });
  const details = wire.locator('details').filter({ has: page.locator('summary', { hasText: part }) });
  await unfold(details);
  for (const [pin, place] of Object.entries(places)) {
    const select = details
      .locator('label')
      .filter({ hasText: new RegExp(`^${pin} `) })
      .locator('select');
    await select.selectOption(place);
    await expect(page.getByText(new RegExp(`^${part}, .*: on `)).first()).toBeVisible();
    await expect(select).toHaveValue(place);
  }
}

/** Joins a part beside the air unit to the board, by the words of a choice. */
async function join(page: Page, part: string, how: RegExp) {
  const wire = page.getByRole('region', { name: 'Wire it, pin by pin' });
  const details = wire.locator('details').filter({ has: page.locator('summary', { hasText: part }) });
  await unfold(details);
  const select = details.getByLabel('Joined to the board by');
  const words = (await select.locator('option').allInnerTexts()).find((w) => how.test(w));
  expect(words, String(how)).toBeDefined();
  await select.selectOption({ label: words! });
  await expect(page.getByText(`${part}: ${words!}.`)).toBeVisible();
}

/** The bench sheet has these steps one after another, with others between them. */
async function steps(page: Page, ...wanted: (string | RegExp)[]) {
  await page.getByRole('link', { name: 'Bench sheet' }).click();
  await expect(page.locator('ol.panel')).toBeVisible();
  const titles = await page.locator('ol.panel').getByRole('listitem').allInnerTexts();
  let at = 0;
  for (const want of wanted) {
    const found = titles.slice(at).findIndex((t) => (typeof want === 'string' ? t.includes(want) : want.test(t)));
    expect(found, `${want} after step ${at} in ${titles.join(' | ')}`).toBeGreaterThanOrEqual(0);
    at += found + 1;
  }
}

test('a header on bare pads', async ({ page, open, program }) => {
  const type = (kind: string, entry: Record<string, unknown>) => enter(page, program.url, kind, entry);
  await open('/');
  await trade(page, program.url, 'SH 1.0 mm, 6 pins', 'Header for SH 1.0 mm, 6 pins');
  await type('board', {
    name: 'Test board',
    source: measured,
    pads,
    uarts: [port(1), port(2)],
    plugs: [{ id: 'hd', connector: 'trade-sh-6', pins: sixPlaces }],
  });
  await type('airUnit', unit('Padded', { none: ['connector'], pitchMM: 1, pins: sixPins }));
  await type('harness', {
    name: 'Six wires',
    source: measured,
    from: 'trade-sh-6',
    to: 'trade-sh-6',
    wires: cable(6),
  });
  await quad(page, program.url, { 'flight board': 'Test board' }, { 'air unit': 'Padded' });
  await pick(page, 'joined to the board by', /Six wires/);
  await expect.poll(() => ends(page, 'Padded')).toEqual(sixPlaces.map((p) => `${p} fits`));
  await expect(page.getByText('RX and TX are not crossed')).toHaveCount(0);
  await expect(page.getByLabel('air unit fed from')).toHaveValue(/./);
  await expectAccessible(page);
  await steps(
    page,
    'Put the Padded into the frame',
    'Solder the Header for SH',
    'Plug the Six wires',
    'Meter pin 1 to pin 2',
    'Meter pin 5 to pin 6',
    'Meter across the battery leads',
    'First power-up',
  );
});

test('three depths of wiring', async ({ page, open, program }) => {
  const type = (kind: string, entry: Record<string, unknown>) => enter(page, program.url, kind, entry);
  await open('/');
  await trade(page, program.url, 'SH 1.0 mm, 6 pins', 'Board that inverts in software, six ports, 5 and 10 V');
  await type('airUnit', unit('Six', { connector: 'trade-sh-6', pins: sixPins }));
  await type('harness', { name: 'Tails', source: measured, from: 'trade-sh-6', none: ['to'], wires: tails(6) });
  await type('receiver', {
    name: 'Own receiver',
    source: measured,
    protocols: ['sbus'],
    inverted: true,
    fullDuplex: false,
    input: { minV: 4.5, maxV: 5.5, peakW: 0.5 },
    plug: { none: ['connector'], pins: ['supply', 'ground', 'uart-tx'] },
  });
  await type('spare', { model: 'own-receiver', count: 1 });
  await type('controller', { name: 'Sticks', source: measured });
  await type('kit', { name: 'My sticks', model: 'sticks' });
  await quad(
    page,
    program.url,
    { 'flight board': 'Board that inverts in software, six ports, 5 and 10 V' },
    { 'air unit': 'Six' },
  );
  await pick(page, 'joined to the board by', /Tails/);
  await solder(page, 'Six', { 1: '10v', 2: 'ground', 3: 'tx1', 4: 'rx1', 5: 'ground', 6: 'rx2' });
  await expect
    .poll(() => ends(page, 'Six'))
    .toEqual(['10v', 'ground', 'tx1', 'rx1', 'ground', 'rx2'].map((p) => `${p} fits`));
  const depths = page.getByRole('region', { name: /How far to wire it/ });
  const solders = page.getByRole('region', { name: 'To solder' }).locator('tbody tr');
  const off = page.getByRole('region', { name: /Comes off/ });
  for (const [label, wires, insulated] of [
    ['picture alone', 2, 4],
    ['picture and data', 4, 2],
    ['picture, data and sticks', 6, 0],
  ] as const) {
    const way = depths.getByRole('button', { name: new RegExp(`^Plan ${label}, sticks by`) }).first();
    if (await way.isVisible()) await way.click();
    await expect(solders).toHaveCount(wires);
    await expect(off.getByText('Insulate')).toHaveCount(insulated);
  }
  await depths.getByRole('button', { name: 'Plan picture and data, sticks by Own receiver' }).click();
  await expect(solders).toHaveCount(4);
  await solder(page, 'Own receiver', { 1: '5v', 2: 'ground', 3: 'rx3' });
  await expect.poll(() => ends(page, 'Own receiver')).toEqual(['5v fits', 'ground fits', 'rx3 fits']);
  await expect(solders).toHaveCount(7);
  await steps(page, 'Solder 4 wires of the air unit', 'Wire the Own receiver', 'Insulate', 'Bind the Own receiver');
});

test('a bundle that goes into a plug, and three receivers to choose from', async ({ page, open, program }) => {
  const type = (kind: string, entry: Record<string, unknown>) => enter(page, program.url, kind, entry);
  await open('/');
  await trade(page, program.url, 'SH 1.0 mm, 6 pins', 'SH 1.0 mm, 4 pins');
  await type('receiver', { name: 'Built in', source: measured, protocols: ['sbus'], inverted: false });
  await type('receiver', {
    name: 'Small',
    source: measured,
    protocols: ['sbus'],
    inverted: false,
    fullDuplex: true,
    input: { minV: 4.4, maxV: 5.6, peakW: 0.6 },
    plug: { connector: 'trade-sh-4', pins: ['supply', 'ground', 'uart-rx', 'uart-tx'] },
  });
  await type('spare', { model: 'small', count: 1 });
  await type('controller', { name: 'Sticks', source: measured });
  await type('kit', { name: 'My sticks', model: 'sticks' });
  await type('board', {
    name: 'All in one',
    source: measured,
    pads: [...pads, { id: '4v5', kind: 'regulated', topology: 'step-down', outV: 4.5, maxA: 0.5 }],
    uarts: [port(1), port(2), port(3), { id: 4, hardware: true, invert: 'none', builtIn: true }],
    builtIn: 'built-in',
    plugs: [
      { id: 'hd', connector: 'trade-sh-6', pins: sixPlaces },
      { id: 'receiver', connector: 'trade-sh-4', pins: ['4v5', 'ground', 'tx3', 'rx3'] },
    ],
  });
  await type('airUnit', unit('Six', { connector: 'trade-sh-6', pins: sixPins }));
  await type('harness', { name: 'Bundle', source: measured, from: 'trade-sh-6', to: 'trade-sh-6', wires: cable(6) });
  await type('harness', { name: 'Four', source: measured, from: 'trade-sh-4', to: 'trade-sh-4', wires: cable(4) });
  await quad(page, program.url, { 'flight board': 'All in one' }, { 'air unit': 'Six' });
  await pick(page, 'joined to the board by', /^Bundle/);
  await expect.poll(() => ends(page, 'Six')).toEqual(sixPlaces.map((p) => `${p} fits`));
  await expect(page.getByRole('region', { name: 'To solder' })).toHaveCount(0);
  const depths = page.getByRole('region', { name: /How far to wire it/ });
  for (const way of [/and data, sticks by Built in$/, /sticks by My sticks$/, /and data, sticks by Small$/]) {
    await depths.getByRole('button', { name: way }).first().click();
    await expect(page.getByText(/^Planned: .*sticks by /)).toBeVisible();
    expect((await ends(page, 'Six')).slice(0, 4)).toEqual(sixPlaces.slice(0, 4).map((p) => `${p} fits`));
  }
  await join(page, 'Small', /^Four into the receiver/);
  await expect.poll(() => ends(page, 'Small')).toEqual(['4v5 fits', 'ground fits', 'tx3 fits', 'rx3 fits']);
  await steps(page, 'Plug the Bundle', 'Meter pin 1 to pin 2', 'Bind the Small', 'Check every stick');
});

test('a compact craft: bare pads and two harnesses', async ({ page, open, program }) => {
  const type = (kind: string, entry: Record<string, unknown>) => enter(page, program.url, kind, entry);
  await open('/');
  await trade(page, program.url, 'Board that inverts in software, six ports, 5 and 10 V');
  await type('airUnit', unit('Compact', { none: ['connector'], pitchMM: 1.2, pins: sixPins }));
  await type('harness', { name: 'Four tails', source: measured, none: ['from', 'to'], wires: tails(4) });
  await type('harness', { name: 'Two tails', source: measured, none: ['from', 'to'], wires: tails(2, 5) });
  await quad(
    page,
    program.url,
    { 'flight board': 'Board that inverts in software, six ports, 5 and 10 V' },
    { 'air unit': 'Compact' },
  );
  await pick(page, 'joined to the board by', /Four tails/);
  await pick(page, 'and by a further cable', /Two tails/);
  await solder(page, 'Compact', { 1: '10v', 2: 'ground', 3: 'tx1', 4: 'rx1', 5: 'ground', 6: 'rx2' });
  await expect
    .poll(() => ends(page, 'Compact'))
    .toEqual(['10v', 'ground', 'tx1', 'rx1', 'ground', 'rx2'].map((p) => `${p} fits`));
  await expect(page.getByRole('region', { name: 'To solder' }).locator('tbody tr')).toHaveCount(6);
  await steps(page, 'Put the Compact into the frame', 'Solder 6 wires', 'Meter pin 1 to pin 2', 'First power-up');
  // The way back: what was put on comes off, wire by wire.
  await page.getByRole('button', { name: 'Finish the swap' }).click();
  await page.getByRole('button', { name: 'Finish it anyway' }).click();
  await expect(page.getByText('Finished: Bench flies as it was planned.')).toBeVisible();
  await page.goto(`${program.url}/#/swap/bench/pins`);
  await pick(page, 'air unit', /^none/);
  await expect(page.getByRole('region', { name: /Comes off/ }).getByRole('listitem')).toHaveCount(6);
});

test('another stack in a ducted craft', async ({ page, open, program }) => {
  const type = (kind: string, entry: Record<string, unknown>) => enter(page, program.url, kind, entry);
  await open('/');
  await trade(
    page,
    program.url,
    'SH 1.0 mm, 6 pins',
    'SH 1.0 mm, 8 pins',
    'Board with one inverted RX, three ports, 5 V',
  );
  await type('board', {
    name: 'New board',
    source: measured,
    pads: [
      { id: 'batt', kind: 'pack' },
      { id: '10v', kind: 'regulated', topology: 'step-down', outV: 10, maxA: 3 },
      { id: '5v', kind: 'regulated', topology: 'step-down', outV: 5, maxA: 2 },
    ],
    uarts: [port(1), port(2), port(4)],
    signals: ['motor1', 'motor2', 'motor3', 'motor4', 'current', 'buzzer'],
    plugs: [
      { id: 'hd', connector: 'trade-sh-6', pins: ['10v', 'ground', 'tx1', 'rx1', 'ground', 'rx2'] },
      {
        id: 'esc',
        connector: 'trade-sh-8',
        pins: ['batt', 'ground', 'motor1', 'motor2', 'motor3', 'motor4', 'rx4', 'current'],
      },
    ],
  });
  await type('airUnit', {
    ...unit('Six', { connector: 'trade-sh-6', pins: sixPins }),
    input: { minV: 7, maxV: 26, peakW: 8 },
  });
  await type('harness', { name: 'Tails', source: measured, from: 'trade-sh-6', none: ['to'], wires: tails(4) });
  await type('harness', { name: 'Loom', source: measured, from: 'trade-sh-6', to: 'trade-sh-6', wires: cable(6) });
  await type('harness', { name: 'ESC cable', source: measured, from: 'trade-sh-8', to: 'trade-sh-8', wires: cable(8) });
  await type('part', {
    name: 'Four in one',
    source: measured,
    sort: 'esc',
    inverted: false,
    input: { minV: 7, maxV: 26, peakW: 1 },
    plug: {
      connector: 'trade-sh-8',
      pins: ['supply', 'ground', 'motor1', 'motor2', 'motor3', 'motor4', 'telemetry', 'current'],
    },
  });
  await quad(
    page,
    program.url,
    { 'flight board': 'Board with one inverted RX, three ports, 5 V', 'air unit': 'Six' },
    {},
  );
  const wire = page.getByRole('region', { name: 'Wire it, pin by pin' });
  await wire.getByRole('button', { name: 'what is there today' }).click();
  await wire.getByLabel('Add a part').selectOption('Four in one');
  await expect(page.getByText('Added: Four in one.')).toBeVisible();
  await solder(page, 'Six', { 1: 'batt', 2: 'ground', 3: 'tx1', 4: 'rx1' });
  await solder(page, 'Four in one', { 1: 'batt', 2: 'ground', 3: 'motor1', 4: 'motor2', 5: 'motor3', 6: 'motor4' });
  // The plan: another board, the unit over the loom, the ESC over its cable.
  await wire.getByRole('button', { name: 'the plan' }).click();
  await pick(page, 'flight board', /^New board/);
  await pick(page, 'joined to the board by', /^Loom/);
  await join(page, 'Four in one', /^ESC cable into the esc/);
  await expect
    .poll(() => ends(page, 'Six'))
    .toEqual(['10v', 'ground', 'tx1', 'rx1', 'ground', 'rx2'].map((p) => `${p} fits`));
  expect(await ends(page, 'Four in one')).toHaveLength(8);
  await page.screenshot({ path: '/tmp/shots/d.png', fullPage: true });
  await expect(page.getByRole('region', { name: /Comes off/ }).getByRole('listitem')).toHaveCount(10);
  await steps(
    page,
    'Take off what does not stay',
    'Fit the New board',
    'Plug the Loom',
    'Wire the Four in one',
    'Set the new flight board up from factory state',
  );
});
