// Was it worth it: a course entered, flights noted spot by spot in the field, and held
// against each other.
import { expect, expectAccessible, expectNoSidewaysScroll, test } from './program';
import { enter } from './typed';

test('two flights of the demo: better at five of six spots, and how sure that is', async ({ page, open }) => {
  await open('/prove');
  await expect(page.getByRole('heading', { name: 'Flights along Round the post mill' })).toBeVisible();
  await page.getByRole('group', { name: 'Side of 2026-03-14' }).getByRole('button', { name: 'before' }).click();
  await page.getByRole('group', { name: 'Side of 2026-05-12' }).getByRole('button', { name: 'after' }).click();
  await expect(page.getByText('Better at five of six spots. That happens by chance one time in nine')).toBeVisible();
  await expect(page.getByText(/Not alike, and perhaps the reason: weather/)).toBeVisible();
  await expect(page).toHaveURL(/before=whip-2026-03-14&after=whip-2026-05-12/);
  await expectAccessible(page);
  await page.reload();
  await page.getByText('As a table').click();
  await expect(page.getByRole('row', { name: /far hedge/ })).toContainText('worse');
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});

test('a quad is proven as it flies, until something on it is another', async ({ page, open, program }) => {
  await open('/prove');
  await page.getByText('Proven as they fly today').click();
  await expect(
    page.getByText('Whip was proven on 2026-05-12. Unit, antennas, board and the releases on both'),
  ).toBeVisible();
  await expectAccessible(page);
  const shelf = (await (await fetch(`${program.url}/api/shelf?kind=kit`)).json()) as {
    entries: { id: string; revision: number; entry: Record<string, unknown> }[];
  };
  const unit = shelf.entries.find((e) => e.id === 'two-whip')!;
  const saved = await fetch(`${program.url}/api/entries/kit/two-whip?revision=${unit.revision}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ ...unit.entry, firmware: '2.4' }),
  });
  expect(saved.status).toBe(200);
  await page.reload();
  await page.getByText('Proven as they fly today').click();
  await expect(page.getByText(/Since then others: its firmware: 2.3 on 2026-05-12, now 2.4/)).toBeVisible();
  await open('/tasks');
  await expect(page.getByText(/Whip was proven on 2026-05-12. Since then others/)).toBeVisible();
});

test('a flight is noted in the field by thumb; what is not sent stays, what is wrong is said', async ({
  page,
  open,
  program,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open('/prove');
  await page.getByLabel('Quad').selectOption({ label: 'Whip, with Aldine Two' });
  await page.getByRole('button', { name: 'Begin a flight' }).click();
  await expect(page.getByText('First, on the ground: failsafe tried')).toBeVisible();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
  await page.getByLabel('Pack at take-off, V').fill('16,7');
  await page.getByLabel('Pack at take-off, V').blur();
  await page.getByLabel('Failsafe and range tried').selectOption('yes');
  await expect(page.getByText('First, on the ground: failsafe tried')).toHaveCount(0);
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByRole('alert')).toContainText('Nothing is entered');
  await page.getByRole('button', { name: /^far hedge/ }).click();
  await page.getByRole('button', { name: 'Left out, on purpose' }).click();
  await expect(page.getByRole('button', { name: 'far hedge left out' })).toBeVisible();
  await page.getByRole('button', { name: /^first trees/ }).click();
  await page.getByLabel('Lowest bit rate, Mbit/s').fill('fast');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByRole('alert')).toContainText('fast');
  await page.getByLabel('Lowest bit rate, Mbit/s').fill('24.5');
  await page.getByRole('button', { name: 'never' }).click();
  await page.getByRole('button', { name: 'clear' }).click();
  await program.kill();
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'does not answer' }).first()).toBeVisible();
  await expect(page.getByLabel('Lowest bit rate, Mbit/s')).toHaveValue('24.5');
  await program.start();
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByText('Noted: first trees, pass 1.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'behind the tail pole' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'first trees 1 read' })).toBeVisible();
  await page.getByRole('button', { name: 'first trees 1 read' }).click();
  await expect(page.getByRole('button', { name: 'pass 2', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'pass 1', exact: true }).click();
  await expect(page.getByLabel('Lowest bit rate, Mbit/s')).toHaveValue('24.5');
  await expect(page.getByRole('button', { name: 'never' })).toHaveAttribute('aria-pressed', 'true');
});

test.describe('from an empty folder', () => {
  test.use({ command: 'serve' });
  test('there is no course yet: it is entered, spot by spot', async ({ page, open, program }) => {
    await open('/prove');
    await expect(page.getByText(/A course is a way you can fly again/)).toBeVisible();
    await expectAccessible(page);
    await enter(page, program.url, 'course', {
      name: 'Round the field',
      spots: [
        { id: 'trees', name: 'first trees', atM: 120, behind: 'a row of ash', inSight: true },
        { id: 'ridge', name: 'ridge', atM: 300, inSight: false },
      ],
    });
    await open('/prove');
    await expect(page.getByLabel('Course')).toHaveValue('round-the-field');
    await expect(page.getByText('Nobody has flown it yet.')).toBeVisible();
  });
});

test('a recording is drawn, a stretch of it marked as a spot, and read off', async ({ page, open }) => {
  await open('/prove/fly/whip-2026-05-12');
  const panel = page.getByRole('region', { name: 'Recordings' });
  const rows = Array.from({ length: 120 }, (_, i) => `${i},${20 + (i % 5)},${i === 70 ? 3.2 : 25}`);
  await panel.getByLabel('A recording').setInputFiles({
    name: 'log.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['time,one,two', ...rows].join('\n')),
  });
  await expect(panel.getByText('log.csv is kept.')).toBeVisible();
  await expect(panel.getByText('Say which column tells what: its names do not.')).toBeVisible();
  await panel.getByLabel('Column of the bit rate').selectOption('two');
  await expect(panel.getByText('Noted: the bit rate.')).toBeVisible();
  await panel.getByRole('button', { name: /3.2 Mbit/ }).click();
  await panel.getByLabel('Spot passed').selectOption({ label: 'ridge' });
  await panel.getByRole('button', { name: 'Mark it' }).click();
  await expect(panel.getByText('Marked: ridge, pass 3.')).toBeVisible();
  await expectAccessible(page);
  await panel.getByRole('button', { name: 'Take ridge, pass 3 over as a reading' }).click();
  await expect(panel.getByText('Taken over: ridge, pass 3.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'ridge 3 read' })).toBeVisible();
  // By dragging over it, as by typing.
  const plot = (await panel.locator('svg').boundingBox())!;
  await page.mouse.move(plot.x + 200, plot.y + 60);
  await page.mouse.down();
  await page.mouse.move(plot.x + 400, plot.y + 60, { steps: 4 });
  await page.mouse.up();
  await expect(panel.getByLabel('From, s')).not.toHaveValue('0');
  await panel.getByLabel('A recording').setInputFiles({
    name: 'photo.png',
    mimeType: 'image/png',
    buffer: Buffer.from([0x89, 0x50, 0, 0, 1]),
  });
  await expect(panel.getByRole('alert')).toContainText('photo.png cannot be read: it is no text');
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});

test('the log goes on by itself, and what is asked for another question does not come into this one', async ({
  page,
  open,
}) => {
  await open('/log');
  await expect(page.getByText(/^loaded the demo: /).first()).toBeVisible();
  const lines = page.locator('section.day li');
  const first = await lines.count();
  await page.evaluate(() => scrollTo(0, document.body.scrollHeight));
  await expect.poll(() => lines.count()).toBeGreaterThan(first);

  let letGo = () => {};
  const held = new Promise<void>((go) => (letGo = go));
  const asked = new Promise<void>((seen) => {
    void page.route(/\/api\/log\?.*before=/, async (route) => {
      seen();
      await held;
      await route.continue();
    });
  });
  await page.reload();
  await expect(lines.first()).toBeVisible();
  await page.evaluate(() => scrollTo(0, document.body.scrollHeight));
  await asked;
  await page.getByRole('combobox', { name: 'Quad' }).selectOption('Whip');
  await expect(page).toHaveURL(/quad=whip/);
  await expect(lines.filter({ hasText: 'Brayer' })).toHaveCount(0);
  const late = page.waitForResponse(/\/api\/log\?.*before=/);
  letGo();
  await late;
  await expect(page.getByRole('link', { name: 'Whip', exact: true }).first()).toBeVisible();
  await page.waitForTimeout(300);
  await expect(lines.filter({ hasNot: page.getByRole('link', { name: 'Whip', exact: true }) })).toHaveCount(0);
});

test('the log of the fleet: searched, a day asked for, and a change taken back', async ({ page, open }) => {
  await open('/swap/wallower');
  await page.getByLabel('pack', { exact: true }).selectOption({ index: 1 });
  await expect(page.getByText(/^Picked /)).toBeVisible();
  await open('/log');
  await page.getByLabel('Find').fill('wallower');
  await page.getByLabel('Find').press('Enter');
  await page.getByRole('combobox', { name: 'What' }).selectOption('quads');
  await expect(page.getByRole('button', { name: 'Take back: planned: quad Wallower' })).toBeVisible();
  await expect(page).toHaveURL(/find=wallower&kind=quad/);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'As it was that day' }).first().click();
  await expect(page.getByRole('heading', { name: /^As it was on / })).toBeVisible();
  await expect(page.getByRole('row', { name: /Quern/ })).toContainText('Aldine One on 1.0.6');
  await expect(page.getByText('Nothing.', { exact: true })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('textbox', { name: 'As it was on' }).fill('2020-05-12');
  await expect(page.getByText('There was no quad yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Take back: planned: quad Wallower' }).click();
  await expect(page.getByText('Taken back: planned: quad Wallower.')).toBeVisible();
  await expect(page.getByText('Took back: quad Wallower')).toBeVisible();
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});

test('what is still to be done: late first, done and open again, and what a swap raises', async ({ page, open }) => {
  await open('/tasks');
  const first = page.getByRole('listitem').filter({ hasText: 'antenna holder of Brayer' });
  await expect(first).toContainText('late, due 2026-06-30');
  await expectAccessible(page);
  await first.getByRole('button', { name: /^Done/ }).click();
  await expect(page.getByText(/^Done: Print the antenna holder/)).toBeVisible();
  await page.locator('summary', { hasText: 'Done' }).click();
  await page.getByRole('button', { name: /^Open again: Print the antenna holder/ }).click();
  await expect(first).toBeVisible();
  await open('/bench/hopper');
  await page.getByRole('button', { name: 'Finish the swap' }).click();
  await page.getByRole('button', { name: 'Finish it anyway' }).click();
  await expect(page.getByText('Finished: Hopper flies as it was planned.')).toBeVisible();
  await open('/tasks');
  await expect(page.getByText('Look at screws, plugs and antenna holders of Hopper again')).toBeVisible();
  // The way back, from the log.
  await open('/log?quad=hopper');
  await page.getByRole('button', { name: /^Plan the way back from: finished the swap/ }).click();
  await expect(page).toHaveURL(/#\/swap\/hopper/);
  await expect(page.getByLabel('air unit', { exact: true }).locator('option:checked')).toContainText(
    'Pellow of Hopper',
  );
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});

test('two quads on one day: for one at work and for two, with how it comes to that', async ({ page, open }) => {
  await open('/bench');
  await page.getByRole('link', { name: /Two quads on one day/ }).click();
  await page.getByLabel('One quad').selectOption({ label: 'Quern' });
  await page.getByLabel('The other').selectOption({ label: 'Hopper' });
  await expect(page.getByText(/^About .* for Quern and Hopper: one after the other is as short\./)).toBeVisible();
  await page.getByLabel('At work').selectOption({ label: 'two, one on each quad' });
  await expect(page.getByText(/for Quern and Hopper, .* less than one after the other/)).toBeVisible();
  await expect(page).toHaveURL(/one=quern&other=hopper&hands=2/);
  const working = page.getByRole('region', { name: 'How it comes to that' });
  await expect(working.getByText(/waits .* for what the other has in use/).first()).toBeVisible();
  await expectAccessible(page);
});

test('photos: of a step in place, before beside after, a pin marked, one dropped in, into the backup', async ({
  page,
  open,
  program,
}) => {
  // A photo as a phone sends it: large, on its side, with where it was taken.
  const photo = await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [3000, 2000];
    const to = canvas.getContext('2d')!;
    to.fillStyle = '#345';
    to.fillRect(0, 0, 3000, 2000);
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg'));
    return [...new Uint8Array(await blob!.arrayBuffer())];
  });
  const tiff = Buffer.from('4d4d002a00000008000101120003000000010006000000000000', 'hex');
  const exif = Buffer.concat([Buffer.from('Exif\0\0'), tiff, Buffer.from('GPS 54.1 N')]);
  const long = Buffer.from([0xff, 0xe1, (exif.length + 2) >> 8, (exif.length + 2) & 255]);
  const file = Buffer.concat([Buffer.from(photo.slice(0, 2)), long, exif, Buffer.from(photo.slice(2))]);

  await open('/bench/quern');
  await page.getByLabel('Add a photo').setInputFiles({ name: 'step.jpg', mimeType: 'image/jpeg', buffer: file });
  await expect(page.getByRole('img', { name: /Clear the bench, props off, photo/ })).toBeVisible();
  await page.getByRole('link', { name: 'All photos' }).click();
  await expect(page.getByRole('heading', { name: 'Clear the bench, props off, a step' })).toBeVisible();
  const kept = page.getByRole('img', { name: /Clear the bench/ });
  await expect(kept).toHaveAttribute('width', '933'); // 3000 × 2000 on its side, 1400 high
  await expect(kept).toHaveAttribute('height', '1400');
  const served = await fetch((await kept.evaluate((img) => (img as HTMLImageElement).src)) ?? '');
  const text = Buffer.from(await served.arrayBuffer()).toString('latin1');
  expect(text).not.toContain('GPS');
  expect(text).not.toContain('Exif');

  const add = page.getByRole('region', { name: 'Add a photo' });
  await add.getByLabel('What it shows').selectOption({ label: 'a plug: the plug of the air unit' });
  for (const when of ['before the swap', 'after it']) {
    await add.getByLabel('When').selectOption({ label: when });
    await add.getByLabel('In words').fill(when);
    await add
      .getByLabel('Take or choose a photo')
      .setInputFiles({ name: 'a.jpg', mimeType: 'image/jpeg', buffer: file });
    await expect(page.getByRole('img', { name: when })).toBeVisible();
  }
  const plug = page.getByRole('region', { name: 'a plug: the plug of the air unit' });
  const [before, after] = [
    await plug.getByRole('img', { name: 'before' }).boundingBox(),
    await plug.getByRole('img', { name: 'after' }).boundingBox(),
  ];
  expect(before!.y).toBe(after!.y); // side by side
  expect(before!.x + before!.width).toBeLessThan(after!.x);

  // A pin is marked by the keys.
  await plug.getByRole('button', { name: 'Mark a pin or wire' }).first().click();
  await plug.getByLabel('What is marked').fill('TX5');
  await plug.getByRole('application').focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Enter');
  await expect(plug.getByRole('list', { name: 'Marked on before the swap' })).toContainText('TX5');
  await expectAccessible(page);

  // Dropped in; and what is no photo is refused.
  await add.getByLabel('What it shows').selectOption({ label: 'a fault: what is wrong' });
  const drop = (bytes: number[], name: string) =>
    add.evaluate(
      (place, [b, n]) => {
        const data = new DataTransfer();
        data.items.add(new File([new Uint8Array(b as number[])], n as string));
        place.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
      },
      [bytes, name] as const,
    );
  await drop(photo, 'fault.jpg');
  await expect(page.getByRole('heading', { name: 'what is wrong, a fault' })).toBeVisible();
  await drop([37, 80, 68, 70], 'paper.pdf');
  await expect(page.getByRole('alert')).toContainText('it is no photo that can be read');

  const backup = await (await fetch(`${program.url}/api/backup`)).text();
  expect(backup.match(/"table":"photos"/g)?.length).toBe(4);
  const fault = page.getByRole('region', { name: 'a fault: what is wrong' });
  await fault.getByRole('button', { name: 'Let it go' }).click();
  await expect(fault).toHaveCount(0);
  const gone = page.getByRole('region', { name: 'Let go of' });
  await expectAccessible(page);
  await gone.getByRole('button', { name: 'Take it back' }).click();
  await expect(gone).toHaveCount(0);
  await fault.getByRole('button', { name: 'Let it go' }).click();
  await gone.getByRole('button', { name: 'Delete it' }).click();
  await gone.getByRole('button', { name: 'Delete it for good' }).click();
  await expect(gone).toHaveCount(0);
  await expect(fault).toHaveCount(0);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});

test('hours and crashes of a unit: noted, a crash looked over, the task gone', async ({ page, open }) => {
  await open('/prove');
  await page.getByRole('link', { name: 'Hours and crashes' }).click();
  const two = page.getByRole('region', { name: 'Two of Whip' });
  await expect(two).toContainText('47 min in the air on Whip; 1 crash. Since the last one 18 min.');
  const note = page.getByRole('form', { name: 'Note a flight' });
  await note.getByLabel('Quad').selectOption({ label: 'Whip, Two of Whip' });
  await note.getByLabel('Minutes in the air').fill('long');
  await note.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByRole('alert')).toContainText('“long” is not a number of minutes');
  await note.getByLabel('Minutes in the air').fill('13,5');
  await note.getByLabel('it crashed').check();
  await note.getByRole('button', { name: 'Note it' }).click();
  await expect(two).toContainText('1 h 00 in the air on Whip; 2 crashes.');
  await expectAccessible(page);
  await open('/tasks');
  await expect(page.getByText(/Look it over after the crash of/)).toBeVisible();
  await open('/hours');
  await two.getByRole('button', { name: /Looked over/ }).click();
  await expect(two.getByRole('button', { name: /Looked over/ })).toHaveCount(0);
  await open('/tasks');
  await expect(page.getByText('Still to be done').first()).toBeVisible();
  await expect(page.getByText(/Look it over after the crash of/)).toHaveCount(0);
  await page.setViewportSize({ width: 390, height: 844 });
  await open('/hours');
  await expectNoSidewaysScroll(page);
});
