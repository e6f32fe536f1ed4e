// What a builder does, from the first look at the board to the bench.
import { readFileSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { fileURLToPath } from 'node:url';
import { expect, expectAccessible, test } from './program';

const root = fileURLToPath(new URL('..', import.meta.url));

test('the yoke board shows the nine quads and answers to what is brought', async ({ page, open }) => {
  await open('/');
  await expect(page.getByRole('rowheader')).toHaveCount(9);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('of 9 quads: 2 fly now');
  await page
    .getByRole('button', { name: /Visor C/ })
    .first()
    .click();
  await expect(page).toHaveURL(/left=visor-c-1/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('With Visor A and Visor B at the bench');
  await page.getByRole('button', { name: 'planned swap of Fantail' }).click();
  await expect(page.getByRole('row', { name: /Fantail/ })).toContainText('stays');
  await page.reload();
  await expect(page.getByRole('button', { name: 'left out swap of Fantail' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Visor C left at home/ })).toHaveAttribute('aria-pressed', 'false');
});

test('what nobody owns is tried on the board, beside what is brought', async ({ page, open }) => {
  await open('/?left=visor-c-1');
  const more = page.getByRole('region', { name: 'What if you had more' });
  await more.getByRole('combobox').selectOption('visor-d');
  await expect(more).toContainText('Visor D links 2 quads that nothing brought links with: Rynd and Fantail.');
  await expect(more).toContainText('329.00 EUR, used 245.00 EUR');
  await expect(page.getByRole('columnheader', { name: 'what if: Visor D' })).toBeVisible();
  await expect(page.getByRole('row', { name: /Fantail/ })).toContainText('after swap');
  await page.getByRole('button', { name: /Visor C left at home/ }).click();
  await expect(more).toContainText('links no quad that does not link with what is brought');
  await expect(page).toHaveURL(/\?try=visor-d$/);
  await expectAccessible(page);
  await more.getByRole('button', { name: /take it off the board/ }).click();
  await expect(page.getByRole('columnheader', { name: 'what if: Visor D' })).toHaveCount(0);

  // The route has the same: what it cannot meet is put to what could be bought.
  await open('/route');
  await more.getByRole('combobox').selectOption('aldine-two');
  await expect(more).toContainText('Another Aldine Two meets 3 of the 4 wants that fail');
  await expect(more).toContainText('2 × 159.00 EUR');
  await expect(page.getByRole('row', { name: /Wallower with Visor B ✕ not met/ })).toContainText('✓ met');
  await expect(page).toHaveURL(/route\?try=aldine-two$/);
  await expectAccessible(page);
  await more.getByRole('button', { name: /take it off the route/ }).click();
  await expect(page.getByRole('columnheader', { name: /what if/ })).toHaveCount(0);

  await open('/?try=visor-a'); // it was bought since the address was kept
  await expect(page.getByRole('alert')).toContainText('visor-a is no device that could be tried');
  await page.getByRole('button', { name: 'Take what is tried off the board' }).click();
  await expect(page.getByRole('rowheader')).toHaveCount(9);
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('picking another part re-judges at once, and a pressed fix does what it says', async ({ page, open }) => {
  await open('/swap/wallower/power');
  const burns = page.locator('details', { hasText: 'It burns.' });
  await expect(burns).toContainText('17.8 V at most');
  await expect(burns).toContainText('Source: invented, Harrow Fell demo');
  await expect(burns).toContainText('Flown all the same: it destroys a part.');
  const fix = burns.getByRole('button', { name: /feed the Aldine One from the 10 V pad/ });
  await expect(fix).toContainText('fits');
  await fix.click();
  await expect(page.getByText('Done: feed the Aldine One from the 10 V pad.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'fits power' })).toBeVisible();
  await expect(page.getByLabel('air unit fed from')).toHaveValue('board.10v');

  await page
    .getByLabel('air unit', { exact: true })
    .selectOption({ label: 'second Two (on 2.3, planned into Hopper)' });
  await page.getByRole('link', { name: /link/ }).click();
  await expect(page.getByText('second Two is planned into Hopper too; it cannot be in both.')).toBeVisible();
  await page.getByLabel('goggles').selectOption({ label: 'Visor A (on 3.2)' });
  await expect(page.getByText('Aldine Two never links with Visor A, whatever the firmware.')).toBeVisible();
  await page.getByLabel('controller').selectOption('kit:grip-1-a');
  await page.getByLabel('pack').selectOption('tallow-4s');
  await expect(page.getByText(/Picked Tallow 4-cell/)).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.reload();
  await expect(page.getByLabel('pack')).toHaveValue('tallow-4s');
});

test('own gear and an own quad entered by hand; what is left empty is unknown and named', async ({ page, open }) => {
  const choose = async (label: string, option: string) =>
    page.getByLabel(label, { exact: true }).selectOption({ label: option });
  await open('/shelf/add/airUnit');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Still needed: name, source.')).toBeVisible();
  await page.getByLabel('name (needed)').fill('Bench sender');
  await choose('source (needed)', 'measured');
  await page.getByLabel('lowest input voltage in V').fill('7,2');
  await choose('a new one needs activating', 'no');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Bench sender' })).toBeVisible();

  await open('/shelf/add/kit');
  await page.getByLabel('name (needed)').fill('my sender');
  await choose('model (needed)', 'Bench sender');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('link', { name: 'my sender' })).toBeVisible();

  await open('/shelf/add/quad');
  await page.getByLabel('name (needed)').fill('Pinion');
  await page.getByLabel('pack current at full throttle in A').fill('40');
  await choose('air unit', 'my sender');
  await choose('goggles', 'Visor B');
  await choose('flight pack', 'Tallow 4-cell 1400');
  await page.getByRole('button', { name: 'Add to what is fed from what' }).click();
  await choose('part (needed)', 'air unit');
  await choose('fed from (needed)', 'pack');
  await page.getByRole('button', { name: 'Add', exact: true }).click();

  await expect(page.getByRole('heading', { name: 'Pinion' })).toBeVisible();
  await page.getByRole('link', { name: /power/ }).click();
  await expect(page.getByText('unknown: highest input voltage of Bench sender').first()).toBeVisible();
  await expect(page.getByRole('link', { name: 'unknown power' })).toBeVisible();
  await page.getByRole('link', { name: /link/ }).first().click();
  await expect(page.getByText(/unknown: whether Bench sender links with Visor B: no statement/)).toBeVisible();

  await page.getByRole('link', { name: /power/ }).click();
  await page.getByRole('link', { name: 'Enter highest input voltage of Bench sender' }).click();
  await page.getByLabel('highest input voltage in V').fill('20');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('link', { name: 'Bench sender' })).toBeVisible();
  await open('/swap/pinion/power');
  await expect(page.getByText(/Bench sender sees 13.* from the pack, direct, within 7.2 to 20.0 V/)).toBeVisible();

  await open('/shelf/edit/gear/bench-sender');
  await page.getByLabel('highest input voltage in V').fill('3');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert').first()).toContainText("the window's ends are swapped");
  await page.getByLabel('highest input voltage in V').fill('-3');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/expected 0 or more, found -3/)).toBeVisible();
});

test('the bench sheet: steps in order, readings with limits, and nothing lost to SIGKILL', async ({
  page,
  open,
  program,
}) => {
  await open('/swap/quern/pins');
  await page
    .getByRole('button', { name: /re-pin the cable: 4 crimps moved, at the unit's end alone/ })
    .first()
    .click();
  await expect(page.getByText(/6 wires end where they belong; the OSD goes over UART 4/)).toBeVisible();
  await page.getByRole('navigation', { name: 'Gates' }).getByRole('link', { name: /link/ }).click();
  await page
    .getByRole('button', { name: /^put 2.3 on new Two/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Bench sheet' }).click();
  await expect(page.getByRole('heading', { name: 'Clear the bench, props off' })).toBeVisible();
  await expect(page.getByText('Props off, and they stay off until the maiden flight.').last()).toBeVisible();
  const titles = await page.locator('ol .what').allTextContents();
  const order = [
    'Put 2.3 on new Two',
    'Activate new Two',
    'Feed the Aldine Two from the 10 V pad',
    'Re-pin the One loom',
    'Meter pin 1 to pin 2',
    'Meter pin 5 to pin 6',
    'Meter across the battery leads: no short',
    'Meter the supply before the unit is plugged in',
    'First power-up, with a fan on the unit',
    'Bind Visor C to new Two',
    'Bind Grip 2 to new Two',
    'Check the picture',
  ];
  expect(titles.filter((t) => order.includes(t))).toEqual(order);

  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Put 2.3 on new Two' })).toBeVisible();
  await page.getByRole('button', { name: /Meter across the battery leads/ }).click();
  await page.getByLabel(/settled resistance/).fill('2,5');
  await page.getByRole('button', { name: 'Enter and done' }).click();
  await expect(page.getByText(/2.5 Ω is below 100 Ω. Stop/)).toBeVisible();
  await page.getByRole('button', { name: /First power-up/ }).click();
  await expect(page.getByRole('note').last()).toContainText('Stopped at');
  await expect(page.getByRole('button', { name: 'Done', exact: true })).toBeDisabled();
  await page.getByRole('button', { name: /Meter pin 1 to pin 2/ }).click();
  await page.keyboard.press('c');
  await expect(page.getByText(/connected, expected open. Stop. The supply is shorted to ground/).last()).toBeVisible();
  await page.keyboard.press('o');
  await expect(page.getByRole('heading', { name: 'Meter pin 1 to pin 3' })).toBeVisible();
  await page.getByRole('button', { name: /Meter across the battery leads/ }).click();
  await page.getByLabel(/settled resistance/).fill('many');
  await page.getByRole('button', { name: 'Enter and done' }).click();
  await expect(page.getByText('Enter settled resistance as a number in Ω.')).toBeVisible();
  await page.getByLabel(/settled resistance/).fill('4700');
  await page.getByRole('button', { name: 'Enter and done' }).click();
  await expect(page.getByText('3 of 37 steps done')).toBeVisible();

  await program.kill();
  await page.getByRole('button', { name: 'Clear the bench, props off' }).click();
  await page.getByRole('button', { name: 'Take the tick back' }).click();
  await expect(page.getByText('The program does not answer')).toBeVisible();
  await program.start();
  await page.reload();
  await expect(page.getByText('3 of 37 steps done')).toBeVisible();
  await expect(page.getByText('4700 Ω').first()).toBeVisible();
});

test('the wiring: a re-pin plan, ports, what to solder, and the files to take along', async ({ page, open }) => {
  await open('/swap/quern/pins');
  await expect(page.getByText(/ends on the 10 V pad: that shorts it to ground/)).toBeVisible();
  await expect(page.getByText('black is supply now; it was ground')).toBeVisible();
  await page.getByRole('button', { name: 'Plan it so' }).first().click();
  await expect(page.getByText(/6 wires end where they belong/)).toBeVisible();

  await open('/swap/wallower/pins');
  await expect(page.getByRole('row', { name: /MSP to the air unit .* UART 4/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /UART RX.* Bramble F7 TX 4 white 28 165 crossed/ })).toBeVisible();
  await expect(page.getByText(/Out: the transmitter's control wire. UART 3 is free/)).toBeVisible();
  const [svg] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'picture (SVG)' }).click(),
  ]);
  expect(await readFile(await svg.path(), 'utf8')).toContain('<svg');
  await page.getByRole('navigation', { name: 'Gates' }).getByRole('link', { name: /power/ }).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'from the 10 V pad' })
    .getByRole('button', { name: 'Take it' })
    .first()
    .click();
  await expect(page.getByText(/Planned: feed the Aldine One from the 10 V pad/)).toBeVisible();
  await expect(page.getByText(/Aldine One sees 9\.7\d to 10\.2 V from the 10 V pad/).first()).toBeVisible();
});

test('wired parts: what comes off, a wire in the wrong place and its fix, and a netlist taken in', async ({
  page,
  open,
  program,
}, info) => {
  await open('/swap/wallower/pins');
  const off = page.getByRole('region', { name: /Comes off/ });
  await expect(off).toContainText('Smoulder transmitter, control wire: off TX 3');
  await expect(off).toContainText('Free afterwards: UART 3, 10 V pad, camera pad');
  await expect(off).toContainText('Stays as it is: Cairn GPS');

  const text = await (await fetch(`${program.url}/api/quads/wallower/wiring.csv`)).text();
  const crossed = info.outputPath('crossed.csv');
  await writeFile(
    crossed,
    text
      .replace(/(gps,)tx5/, '$1XX')
      .replace(/(gps,)rx5/, '$1tx5')
      .replace(/(gps,)XX/, '$1rx5'),
  );
  await page.getByLabel('Take in a netlist').setInputFiles(crossed);
  await expect(
    page.getByText(/It would solder pin 3 of the Cairn GPS to RX 5 and pin 4 of the Cairn GPS to TX 5/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Plan it so' }).click();
  await expect(page.getByText(/RX and TX of Cairn GPS are not crossed/)).toBeVisible();
  await page
    .getByRole('button', { name: /pin 3 of the Cairn GPS to TX 5/ })
    .first()
    .click();
  await expect(page.getByText(/RX and TX of Cairn GPS are not crossed/)).toHaveCount(0);
  await page
    .getByRole('region', { name: 'Wired beside the unit' })
    .getByText('Cairn GPS', { exact: true })
    .first()
    .click();
  await expect(page.getByText(/Cairn GPS, SH 1.0 mm, six pins, to Bramble F7/)).toBeAttached();

  const wrong = info.outputPath('wrong.csv');
  await writeFile(wrong, 'part,from_pin,place\nnix,1,10v\n');
  await page.getByLabel('Take in a netlist').setInputFiles(wrong);
  await expect(page.getByRole('alert')).toContainText('there is no part "nix"');

  await page.getByLabel('flight board', { exact: true }).selectOption('thistle-h7');
  await expect(page.getByText('Picked Thistle H7 as flight board.')).toBeVisible();
  await expect(page.getByText(/6 wires end where they belong/)).toBeVisible();
  await open('/bench/wallower');
  await page.getByRole('button', { name: /Take off what does not stay/ }).click();
  await expect(page.getByRole('article')).toContainText('Off TX 5: the yellow wire of the Cairn GPS (UART RX).');

  await open('/bench/fantail');
  await page.getByRole('button', { name: /Wire the Cairn GPS/ }).click();
  await expect(page.getByRole('article').getByText('Plug the Cairn loom into the GPS plug.')).toBeVisible();
});

test('the wiring that is there is noted pin by pin, and the plan is wired the same way', async ({ page, open }) => {
  await open('/swap/hopper/pins');
  const wire = page.getByRole('region', { name: 'Wire it, pin by pin' });
  await wire.getByRole('button', { name: 'what is there today' }).click();
  await wire.getByLabel('Add a part').selectOption('Rook buzzer');
  await expect(page.getByText('Added: Rook buzzer.')).toBeVisible();
  const pin = (name: RegExp) => wire.locator('details', { hasText: 'Rook buzzer' }).getByLabel(name);
  await pin(/^1 supply/).selectOption({ label: 'the 5 V pad' });
  await expect(page.getByText('Rook buzzer, supply: on the 5 V pad.')).toBeVisible();
  await pin(/^2 buzzer/).selectOption({ label: 'the LED pad' });
  await expect(wire.getByText('it does nothing there')).toBeVisible();
  await pin(/^2 buzzer/).selectOption({ label: 'the buzzer pad' });
  await expect(wire.getByText('it does nothing there')).toHaveCount(0);
  await expect(page.getByText(/Rook buzzer is on the quad today and not in this plan: it is given up/)).toBeVisible();
  await expect(page.getByRole('region', { name: /Comes off/ })).toContainText('Rook buzzer, buzzer: off buzzer pad');

  await wire.getByRole('button', { name: 'the plan' }).click();
  await wire.getByLabel('Add a part').selectOption('Rook buzzer');
  await expect(page.getByText(/how Rook buzzer is wired to Thistle F4/).first()).toBeVisible();
  await wire.locator('details', { hasText: 'Rook buzzer' }).locator('summary').click();
  await pin(/^2 buzzer/).selectOption({ label: 'the buzzer pad' });
  await pin(/^1 supply/).selectOption({ label: 'the 5 V pad' });
  await expect(page.getByRole('region', { name: /Comes off/ })).toContainText('Stays as it is: Rook buzzer');
  await wire.getByRole('button', { name: 'Take the Rook buzzer out' }).click();
  await expect(page.getByText('Took out: Rook buzzer.')).toBeVisible();
});

test('a part is held by tape, and beside a propeller by two ways; a stop-gap stays until it is done', async ({
  page,
  open,
}) => {
  await open('/swap/hopper/mount');
  await page.getByRole('button', { name: 'Hold Lantern R2 otherwise' }).click();
  const form = page.getByRole('form', { name: 'How Lantern R2 is held' });
  await expect(form.getByLabel('held by (needed)')).toBeFocused();
  await form.getByLabel('held by (needed)').selectOption('tape');
  await form.getByLabel('a stop-gap until this comes').fill('the printed tray');
  await expectAccessible(page);
  await form.getByRole('button', { name: 'Hold it so' }).click();
  await expect(page.getByText('unknown: whether Lantern R2 reaches a propeller should it come loose')).toBeVisible();
  await page.getByRole('button', { name: 'Hold Lantern R2 otherwise' }).click();
  await form.getByLabel('reaches a propeller when loose').selectOption('yes');
  await form.getByRole('button', { name: 'Hold it so' }).click();
  await expect(page.getByText(/Lantern R2 is held by tape alone, and reaches a propeller/)).toBeVisible();
  await page.getByRole('button', { name: /hold Lantern R2 by tape and ties/ }).click();
  await expect(page.getByText(/Lantern R2 is held by tape and ties: warmth softens it/)).toBeVisible();
  await expect(page.getByText(/as a stop-gap, until this comes: the printed tray/)).toBeVisible();
  await open('/shopping');
  await expect(page.getByText('the printed tray')).toBeVisible();
  await open('/swap/hopper/mount');
  await page.getByRole('button', { name: 'Take out how Lantern R2 is held' }).click();
  await expect(page.getByText(/as a stop-gap/)).toHaveCount(0);
});

test('where parts lie: moved by keys and by drag, what meets is named, a seat is found', async ({ page, open }) => {
  await open('/swap/quern/mount');
  const part = page.getByRole('button', { name: /^Aldine Two, 38 mm back, 2 mm up/ });
  await part.focus();
  await page.keyboard.press('Shift+ArrowUp');
  const moved = page.getByRole('button', { name: /^Aldine Two, 28 mm back, 2 mm up/ });
  await expect(moved).toBeVisible();
  await moved.focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect(
    page.getByText(/Aldine Two and Bramble F7 want the same room: Aldine Two is free when it moves 6 mm back/),
  ).toBeVisible();
  await expectAccessible(page);
  const met = page.getByRole('button', { name: /^Aldine Two, 18 mm back/ });
  await met.scrollIntoViewIfNeeded();
  const box = (await met.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 60, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByText(/want the same room/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Turn Aldine Two' }).click();
  await expect(page.getByRole('button', { name: /^Aldine Two, .*turned by 90°/ })).toBeVisible();
  await page.getByRole('button', { name: 'Find a seat for Aldine Two' }).click();
  await expect(page.getByText(/On the bottom plate, .* free places of \d+ tried/).first()).toBeVisible();
  await expect(page.getByText(/has no room|want the same room/)).toHaveCount(0);
  await expect(page.getByText(/the bind button on the left/)).toBeVisible();
  const standoffs = page.getByRole('form', { name: 'Standoffs of the frame' });
  await standoffs.getByLabel('Cut to').fill('26');
  await standoffs.getByRole('button', { name: 'Cut them' }).click();
  await expect(standoffs.getByText('28 mm long, cut to 26 mm')).toBeVisible();
  await expect(page.getByText(/standoffs of .* are cut from 28 mm to 26 mm, and do not grow again/)).toBeVisible();
  await expect(page.getByText(/want the same room: Tallow 4-cell 1400|the top plate want the same room/)).toHaveCount(
    0,
  );
  await standoffs.getByRole('button', { name: 'Leave them whole' }).click();
  await expect(page.getByText(/do not grow again/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Leave open where Aldine Two lies' }).click();
  await expect(page.getByText('Aldine Two: nobody has said where')).toBeVisible();
});

test('what the camera sees, and how the antennas stand: tilted, turned, others planned', async ({ page, open }) => {
  await open('/swap/quern/mount');
  const shot = page.getByRole('region', { name: 'What the camera sees of its quad' });
  await expect(shot.getByText(/the propeller front left at the left edge/)).toBeVisible();
  await shot.getByRole('button', { name: 'Tilt 5° less' }).click();
  await expect(page.getByText(/Tilted by 20° the camera sees/).first()).toBeVisible();
  const stands = page.getByRole('region', { name: 'How the antennas stand' });
  await expect(
    stands.getByText(/pointing 145° to the left of forward and 30° up\. Its lead wants 43 mm of 85/),
  ).toBeVisible();
  await stands.getByRole('button', { name: 'lower: antenna 1' }).click();
  await expect(stands.getByText(/and 25° up/)).toBeVisible();
  for (let n = 0; n < 8; n++) {
    await stands.getByRole('button', { name: 'turn right: antenna 1' }).click();
    await expect(stands.getByText(`pointing ${140 - 5 * n}° to the left`)).toBeVisible();
  }
  await expect(page.getByText(/stands in what the propeller rear left sweeps: it is struck/)).toBeVisible();
  await expectAccessible(page);
  await stands.getByRole('button', { name: 'Leave open where they stand' }).click();
  await expect(stands.getByText('Nobody has said where they stand')).toBeVisible();
  await stands.getByRole('button', { name: 'Stand antenna 1 at the tail' }).click();
  await expect(stands.getByRole('button', { name: 'Stand antenna 2 at the tail' })).toBeVisible();

  await open('/swap/quern/antenna');
  await expectAccessible(page);
  const beside = page.getByRole('region', { name: 'Side by side' });
  await beside.getByRole('button', { name: 'Plan 2 × Teasel' }).click();
  await expect(beside.getByRole('row', { name: /2 × Teasel/ }).getByText('the plan')).toBeVisible();
});

test('a part is drawn from the dimensions of the quad, seen in 3D and taken along as files', async ({ page, open }) => {
  await open('/swap/fantail/mount');
  await page.getByRole('link', { name: 'Make a part' }).click();
  await expect(page.getByRole('heading', { name: 'Make a part for Fantail' })).toBeVisible();
  await expect(page.getByLabel('holes of the frame, across')).toHaveValue('20');
  await expect(page.getByLabel('holes of the unit, across')).toHaveValue('25.5');
  await expect(page.getByText('The plate: 33.5 × 33.5 mm')).toBeVisible();
  await expect(page.getByRole('img', { name: 'Adapter plate, in 3D' }).locator('canvas')).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('holes of the unit, across').fill('20,5');
  await page.getByLabel('holes of the unit, across').press('Tab');
  await expect(
    page.getByText(/is 0\.\d+ mm at its thinnest, the printer's least wall is 0.8 mm|run into one another/),
  ).toBeVisible();
  await expectAccessible(page);
  await page.reload();
  await expect(page.getByLabel('holes of the unit, across')).toHaveValue('20.5');
  await page.getByRole('link', { name: 'Camera side plate' }).click();
  await expect(page.getByLabel('width of the camera')).toHaveValue('20');
  await page.getByRole('link', { name: 'Antenna holder' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'STL', exact: true }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('antenna-holder.stl');
  expect((await readFile(await file.path())).length).toBeGreaterThan(10_000);
  await page.emulateMedia({ media: 'print' });
  const paper = page.locator('img.paper');
  await expect(paper).toBeVisible();
  const template = await (await page.request.get(await paper.evaluate((i: HTMLImageElement) => i.src))).text();
  const wide = Number(/width="([\d.]+)mm"/.exec(template)![1]);
  expect((await paper.boundingBox())!.width).toBeCloseTo((wide * 96) / 25.4, 0);
});

test('the frame and the antennas: a screw too long, another bay, opposite hands, and what to buy', async ({
  page,
  open,
}) => {
  await open('/swap/hopper/mount');
  await expect(page.getByText(/M2×8 is 2.8 mm too long: it drives into the circuit board/)).toBeVisible();
  await page.getByRole('button', { name: /use M2×4/ }).click();
  await expect(page.getByText(/drives into the circuit board/)).toHaveCount(0);
  await open('/swap/fantail/mount');
  await page
    .getByRole('button', { name: /put it into the middle bay/ })
    .first()
    .click();
  await expect(page.getByText(/are to be ordered before the bench day/).first()).toBeVisible();
  await open('/swap/wallower/antenna');
  await expect(page.getByText(/opposite hands lose 20.0 dB and more/).first()).toBeVisible();
  await page.getByRole('button', { name: /put 2 × Cowl R on Aldine One/ }).click();
  await expect(
    page.getByText(/Crown dual on Visor C is made for more bands than this link uses, 5.8 GHz/).first(),
  ).toBeVisible();
  await expect(page.getByText(/opposite hands/)).toHaveCount(1); // of the pair beside that is of the other hand
  await page.getByLabel('antenna 1').selectOption({ label: 'take it off' });
  await expect(page.getByText(/takes 2 antennas/).first()).toBeVisible();
  await page.getByLabel('antenna 2').selectOption({ label: 'Crown dual, 1 in the drawer' });
  await expect(page.getByText(/takes 2 antennas/)).toHaveCount(0);
  await open('/shopping');
  await expect(page.getByRole('row', { name: /470 µF 35 V low-ESR capacitor/ })).toContainText('Wallower');
  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'CSV' }).click()]);
  expect(await readFile(await csv.path(), 'utf8')).toContain('part,need,have,in_a_box,buy');
});

test('the OSD and the sticks: a layout onto the new grid, moved by hand and by keys, and arming alone', async ({
  page,
  open,
}) => {
  await open('/swap/wallower/osd');
  await expect(page.getByText(/made for 30×16, the goggles show 53×20/)).toBeVisible();
  await page.getByRole('button', { name: 'Take the converted layout' }).click();
  await expect(page.getByText(/15 elements show over UART 4, on a canvas of 53×20/)).toBeVisible();
  const warnings = page.getByRole('button', { name: /^warnings, column/ });
  await expect(warnings).toHaveAccessibleName(/column 22 of 53, row 14 of 20/);
  await warnings.focus();
  await page.keyboard.press('ArrowUp');
  await expect(warnings).toHaveAccessibleName(/column 22 of 53, row 13 of 20/);
  const box = (await warnings.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 5);
  await page.mouse.down();
  await page.mouse.move(box.x + 20, box.y + 5 + box.height * 2, { steps: 4 });
  await page.mouse.up();
  await expect(warnings).toHaveAccessibleName(/row 15 of 20/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(warnings).toHaveAccessibleName(/row 13 of 20/);
  await page.reload();
  await expect(warnings).toHaveAccessibleName(/row 13 of 20/);
  await open('/swap/damsel/osd');
  await expect(
    page.getByText(/link quality: Aldine One Compact's own layout does not know it; warnings tells nearly the same/),
  ).toBeVisible();
  await open('/swap/hopper/control');
  await page.getByRole('button', { name: /put arm on AUX 1 from 1700 to 2100/ }).click();
  await expect(page.getByText(/The sticks come in on UART 1 as LEAT, order AETR, with 4 switches/)).toBeVisible();
});

test('the flight board: read, three differences, a cut cable, set, read back clean, and put back', async ({
  page,
  open,
}) => {
  await open('/board/rynd');
  await page.getByText('No board at hand?').click();
  await page.getByRole('button', { name: 'Start the stand-in' }).click();
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('heading', { name: '2. 3 settings differ from the plan.' })).toBeVisible();
  await expect(page.getByRole('row', { name: /UART 1 differs/ })).toContainText('displayport + msp');

  await page.getByLabel('it behaves').selectOption('the cable comes out while it is written');
  await expect(page.getByRole('button', { name: 'Set the board' })).toBeDisabled();
  await page.getByLabel('The props are off', { exact: true }).check();
  await page.getByRole('button', { name: 'Set the board' }).click();
  await expect(page.getByText(/The board was not set, and reads as it was/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Put the kept settings back' })).toBeVisible();

  await page.getByLabel('The props are off', { exact: true }).last().check();
  await page.getByRole('button', { name: 'Set the board' }).click();
  await expect(page.getByText(/The board is set and saved, and reads back right/)).toBeVisible();
  await expect(page.getByRole('heading', { name: '2. The board is set up as planned.' })).toBeVisible();

  await page.getByLabel('The props are off: settings may be put back').check();
  await page
    .getByRole('button', { name: /Put back the settings of/ })
    .last()
    .click();
  await expect(page.getByRole('heading', { name: '2. 3 settings differ from the plan.' })).toBeVisible();

  await open('/board/brayer');
  await expect(page.getByRole('heading', { name: 'Flight board of Brayer' })).toBeVisible();
  await page.getByText('No board at hand?').click();
  await page.getByRole('button', { name: 'Start the stand-in' }).click();
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('heading', { name: '2. The board is set up as planned.' })).toBeVisible();
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByText('level AUX 2, on')).toBeVisible();
  await expect(page.getByText(/shortest travel so far 9[789]\d|shortest travel so far 1000/)).toBeVisible({
    timeout: 15_000,
  });
  await page.getByRole('button', { name: 'Put these readings into the bench sheet' }).click();
  await expect(page.getByText(/shortest travel \d+ µs: in the bench sheet/)).toBeVisible();
  await page.getByLabel('it behaves').selectOption('it does not answer');
  await expect(
    page.getByText(/Nothing answers there: is it the board.s port, and is the board powered/).first(),
  ).toBeVisible();
});

test("a board's text: what came with it is held against it, loaded in part, and a cut one is refused", async ({
  page,
  open,
}) => {
  const bundle = readFileSync('demo/bramble-f7-bundle.txt', 'utf8');
  await open('/board/quern');
  await page.getByText('No board at hand?').click();
  await page.getByRole('button', { name: 'Start the stand-in' }).click();
  const part = page.getByRole('region', { name: 'Settings as text' });
  const compare = part.getByRole('button', { name: 'Hold them against each other' });
  await expect(compare).toBeDisabled();
  await part.getByLabel('lines of the text').fill(bundle.slice(0, 300));
  await compare.click();
  await expect(part.getByText(/It is cut: its last line/)).toBeVisible();
  await expect(part.getByRole('button', { name: /^Load/ })).toHaveCount(0);

  await part.getByLabel('or a file').setInputFiles('demo/bramble-f7-bundle.txt');
  await compare.click();
  await expect(part.getByText('8 settings can be loaded, 4 held back, 4 already so.')).toBeVisible();
  await expect(part.getByRole('row', { name: /motor 1 turns in/ })).toContainText('it moves motors');
  // With no board asked: what the text says of today, row by row.
  await part.getByRole('button', { name: 'What it says of today' }).click();
  const today = page.getByRole('region', { name: 'What the lines of the text say of today' });
  await expect(today.getByRole('heading')).toBeFocused();
  await expect(today.getByRole('row', { name: /serial ports/ })).toContainText('UART 3: MSP');
  await today.getByRole('button', { name: 'Note it as on it today' }).click();
  await expect(today.getByRole('row', { name: /serial ports/ })).toHaveCount(0);
  await part.getByLabel(/transmit power/).uncheck();
  const load = part.getByRole('button', { name: 'Load the 7 lines' });
  await expect(load).toBeDisabled();
  await part.getByLabel('The props are off').check();
  await load.click();
  await expect(part.getByText(/The board has taken the lines, saved them and reads back right/)).toBeVisible({
    timeout: 20_000,
  });
  await expect(part.getByText('when the link is lost: flies home (return), before: motors off (drop)')).toBeVisible();

  // The way back: the text that was kept before.
  await part.getByRole('combobox').first().selectOption({ index: 1 });
  await compare.click();
  await expect(part.getByText(/7 settings can be loaded, \d+ already so/)).toBeVisible({ timeout: 20_000 });
});

test('a switch is found by flipping it, and refused where it would arm by itself', async ({ page, open }) => {
  await open('/board/brayer');
  await page.getByText('No board at hand?').click();
  await page.getByRole('button', { name: 'Start the stand-in' }).click();
  await page.getByLabel('it behaves').selectOption('on USB alone, AUX 3 being flipped');
  await page.getByRole('button', { name: 'Read it' }).click();
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await page.getByText('Find a switch by flipping it').click();
  await page.getByLabel('mode of the switch').selectOption('return home');
  await expect(page.getByRole('button', { name: 'Begin' })).toBeDisabled();
  await page.getByLabel('props off, and no pack: the board runs from USB alone').check();
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('Arming is held off.')).toBeVisible();
  await page.waitForTimeout(5000); // it is flipped every other second
  await page.getByRole('button', { name: 'That was it' }).click();
  await expect(page.getByText(/AUX 3 moved, between 1000 and 2000 µs: return home is on from/)).toBeVisible();
  await page.getByRole('button', { name: 'Put it into the plan' }).click();
  await expect(page.getByText(/return home is in the plan on AUX 3/)).toBeVisible();
});

test('picture, but no OSD: the planted fault is found by the wiring, and by asking the board', async ({
  page,
  open,
}) => {
  await open('/bench/damsel');
  await page.getByRole('link', { name: 'It does not work' }).click();
  await page.getByRole('button', { name: 'picture, but no OSD' }).click();
  await expect(page.getByText('Most likely: RX and TX are swapped.')).toBeVisible();
  await page
    .getByRole('group', { name: /unit's RX end on the board's RX/ })
    .getByRole('button', { name: 'No' })
    .click();
  await expect(page.getByText('Most likely: a firmware without canvas.')).toBeVisible();
  await page.getByRole('button', { name: 'Take the answer back' }).click();
  await expect(page.getByText('Most likely: RX and TX are swapped.')).toBeVisible();
  await open('/board/brayer');
  await expect(page.getByRole('heading', { name: 'Flight board of Brayer' })).toBeVisible();
  await page.getByText('No board at hand?').click();
  await page.getByRole('button', { name: 'Start the stand-in' }).click();
  await page.getByLabel('it behaves').selectOption('its OSD feature has been switched off');
  await open('/fault/brayer?symptom=no-osd');
  await page.getByLabel('ask the flight board').selectOption('the stand-in');
  await expect(page.getByText('It is this: the OSD feature is off.')).toBeVisible();
  await page.getByRole('button', { name: 'Put it into the log' }).click();
  await expect(page.getByRole('region', { name: 'Log of Brayer' })).toContainText('the OSD feature is off');
});

test('a swap is finished: next is now, and the log keeps its readings', async ({ page, open }) => {
  await open('/bench/hopper');
  await page.getByRole('button', { name: 'Finish the swap' }).click();
  await expect(page.getByText(/steps are not done. Finish it only if/)).toBeVisible();
  await page.getByRole('button', { name: 'Finish it anyway' }).click();
  await expect(page.getByText('Finished: Hopper flies as it was planned.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Log of Hopper' })).toContainText(
    'Swap finished, Pellow Mini to Aldine Two',
  );
  await expect(page.getByRole('button', { name: 'Finish the swap' })).toHaveCount(0);
  await open('/');
  await expect(page.getByRole('row', { name: /Hopper/ })).toContainText('stays');
});

test('two units take turns on one quad, there and back', async ({ page, open }) => {
  await open('/swap/quern');
  await page.getByRole('link', { name: 'In turn' }).click();
  await expect(page.getByText('Nothing takes turns on Quern yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Fly both in turn' }).click();
  await expect(page.getByRole('region', { name: 'Aldine One and Aldine Two' })).toBeVisible();
  await page.getByRole('button', { name: 'Leave Aldine One on' }).click();
  await expect(page.getByRole('button', { name: 'Turn to Aldine Two' })).toBeVisible();

  await open('/turns/brayer');
  const pair = page.getByRole('region', { name: 'Aldine Two and Aldine One Compact' });
  await expect(pair).toContainText('Aldine One Compact goes onto the cable of Aldine Two too, and must not');
  await expect(pair.getByRole('region', { name: 'To Aldine One Compact' })).toContainText('Re-pin the Two pigtail');
  await page.getByRole('button', { name: 'Turn to Aldine One Compact' }).click();
  await expect(page.getByRole('heading', { name: 'Brayer on the bench' })).toBeVisible();
  await expect(
    page.getByText('Two of Brayer to One Compact of Brayer').or(page.getByText('Aldine Two to Aldine One Compact')),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Finish the swap' }).click();
  await page.getByRole('button', { name: 'Finish it anyway' }).click();
  await expect(page.getByText('Finished: Brayer flies as it was planned.')).toBeVisible();
  await open('/turns/brayer');
  await expect(page.getByText('Aldine One Compact is on it now.')).toBeVisible();
  await expect(page.getByText('It has been on, and lies ready with what belongs to it.')).toBeVisible();
  await page.getByRole('button', { name: 'No longer in turn' }).click();
  await expect(page.getByText('Nothing takes turns on Brayer yet.')).toBeVisible();
});

test('who can fly together: channels, what is left, and a fifth on the ground', async ({ page, open }) => {
  await open('/');
  await page.getByRole('link', { name: 'Who can fly together?' }).click();
  for (const name of ['Quern', 'Fantail', 'Brayer', 'Whip']) await page.getByLabel(name, { exact: true }).check();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('All 4 can fly together');
  await page.getByLabel('Hopper', { exact: true }).check();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    '4 of 5 can fly together; no channel is left for',
  );
  await page.getByRole('button', { name: 'add one on Fell analog plan' }).click();
  await expect(page.getByText(/guest A: Fell analog plan/)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Hopper', { exact: true })).toBeChecked();
});

test('an own board and harness copied off a drawing', async ({ page, open, program }) => {
  await open('/shelf/add/harness');
  await page.getByLabel('name (needed)').fill('Spindle loom');
  await page.getByLabel('source (needed)').selectOption({ label: 'measured' });
  await page.getByLabel("connector at the air unit's end").selectOption({ label: 'SH 1.0 mm, six pins' });
  await page.getByLabel("connector at the board's end").selectOption({ label: 'SH 1.0 mm, six pins' });
  const wires = page.getByRole('group', { name: 'wires', exact: true });
  await wires.getByLabel(/colours in order/).fill('red, black, white, grey, -, yellow');
  await wires.getByLabel(/colours in order/).blur();
  await wires.getByLabel('to slot of the wire in slot 3').fill('4');
  await wires.getByLabel('to slot of the wire in slot 4').fill('3');
  // A branch of it, with bare ends.
  const branch = page.getByRole('group', { name: 'wires of its branch' });
  await branch.getByLabel(/colours in order/).fill('-, -, -, -, brown');
  await branch.getByLabel(/colours in order/).blur();
  await expect(branch.getByLabel('Colour of the wire in slot 5')).toHaveValue('brown');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Spindle loom' })).toBeVisible();

  await open('/shelf/add/board');
  await page.getByLabel('name (needed)').fill('Spindle board');
  await page.getByLabel('source (needed)').selectOption({ label: 'measured' });
  await page.getByRole('button', { name: 'Add to serial ports' }).click();
  await page.getByLabel('UART (needed)').fill('1');
  await page.getByLabel('TX broken out').selectOption('yes');
  await page.getByLabel('RX broken out').selectOption('yes');
  await page.getByRole('button', { name: 'Add to power pads' }).click();
  const pads = page.getByRole('group', { name: 'power pads', exact: true });
  await pads.getByLabel('name', { exact: true }).fill('9 V pad'); // its id is made, and offered where pins are named
  await pads.getByLabel('carries (needed)').selectOption('regulated');
  await page.getByRole('button', { name: 'Add to plugs and rows of pads' }).click();
  const plug = page.getByRole('group', { name: /plugs and rows of pads/ });
  await plug.getByLabel('name', { exact: true }).fill('HD');
  await plug.getByRole('button', { name: 'Add a pin' }).click();
  await page.getByLabel('pins, pin 1', { exact: true }).fill('ground, tx1, rx9, 9v');
  await page.getByLabel('pins, pin 1', { exact: true }).press('Enter');
  await expect(page.getByLabel('pins, pin 3', { exact: true })).toHaveValue('rx9');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText(/"rx9" is none/).first()).toBeVisible();
  // Its pads where they lie: placed, pushed by keys and dragged, and one put underneath.
  const outline = page.getByRole('group', { name: /where its pads lie/ });
  await outline.getByLabel('from left to right').fill('30');
  await outline.getByLabel('from left to right').blur();
  await outline.getByLabel('from front to rear').fill('20');
  await outline.getByLabel('from front to rear').blur();
  for (const pad of ['TX 1', 'RX 1']) {
    await outline.getByLabel('place a pad').selectOption({ label: pad });
    await outline.getByRole('button', { name: 'Place it' }).click();
  }
  const tx = outline.getByRole('slider', { name: /TX 1/ });
  await tx.focus();
  await tx.press('ArrowLeft');
  await tx.press('Shift+ArrowUp');
  await expect(outline.getByLabel('TX 1, from the left in mm')).toHaveValue('14.5');
  await expect(outline.getByLabel('TX 1, from the front in mm')).toHaveValue('9.9');
  const from = (await outline.getByRole('slider', { name: /RX 1/ }).locator('circle').boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 60, from.y + 30, { steps: 4 });
  await page.mouse.up();
  await expect(outline.getByLabel('RX 1, from the left in mm')).not.toHaveValue('15');
  await outline.getByLabel('RX 1 lies underneath').check();
  await expect(outline.getByRole('slider', { name: /RX 1/ })).toHaveCount(0);
  await outline.getByLabel('Printed at TX 1').fill('T1');
  await outline.getByLabel('Printed at TX 1').blur();
  await page.getByLabel('pins, pin 3', { exact: true }).fill('rx1');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Spindle board' })).toBeVisible();
  const boards = (await (await fetch(`${program.url}/api/shelf?kind=board`)).json()) as {
    entries: { id: string; entry: { pads: { id: string }[]; plugs: { id: string }[] } }[];
  };
  const own = boards.entries.find((e) => e.id === 'spindle-board')!.entry;
  expect([own.pads[0]!.id, own.plugs[0]!.id]).toEqual(['9v', 'hd']);

  // The plates of a frame are picked where its bays lie.
  await open('/shelf/add/frame');
  await page.getByLabel('name (needed)').fill('Spindle frame');
  await page.getByLabel('source (needed)').selectOption({ label: 'measured' });
  await page.getByRole('button', { name: 'Add to plates' }).click();
  await page.getByRole('group', { name: 'plates', exact: true }).getByLabel('name').fill('Bottom plate');
  await page.getByLabel('front edge (needed) in mm').fill('70');
  await page.getByLabel('rear edge (needed) in mm').fill('-70');
  await page.getByRole('button', { name: 'Add to bays' }).click();
  await page.getByRole('group', { name: 'bays', exact: true }).getByLabel('name').fill('rear');
  await page.getByLabel('plate it is on').selectOption({ label: 'Bottom plate' });
  // Its outline is read from a drawing: a drawing that is none is refused and changes nothing.
  const drawing = page.getByLabel('Read a drawing (DXF)');
  const dxf = (text: string) => ({ name: 'plate.dxf', mimeType: 'image/vnd.dxf', buffer: Buffer.from(text) });
  await drawing.setInputFiles(dxf('solid plate'));
  await expect(page.getByRole('alert').filter({ hasText: 'line 1: expected the code of a DXF pair' })).toBeVisible();
  const loop = (x: number, y: number, wide: number, high: number) =>
    `LWPOLYLINE 70 1 10 ${x} 20 ${y} 10 ${x + wide} 20 ${y} 10 ${x + wide} 20 ${y + high} 10 ${x} 20 ${y + high}`;
  const pairs = ['SECTION 2 ENTITIES', loop(0, 0, 40, 140), loop(10, 100, 20, 8), 'ENDSEC', 'EOF'];
  await page.getByLabel('Forward is, in the drawing,').selectOption({ label: 'up' });
  await drawing.setInputFiles(dxf(pairs.map((p) => `0 ${p}`.split(' ').join('\n')).join('\n')));
  await expect(page.getByText('Read: 4 corners and 1 openings.')).toBeVisible();
  await expect(page.getByText('The drawing does not say its unit: millimetres are taken.')).toBeVisible();
  await expect(page.getByLabel('width in mm')).toHaveValue('40');
  await expect(page.getByRole('img', { name: 'outline, drawn' })).toBeVisible();
  await expect(page.getByLabel('corners in mm')).toHaveValue(/30 10/);
  await page.getByLabel('outline in mm').fill('-70 20\n-70 -20\n70 up');
  await page.getByLabel('outline in mm').blur();
  await expect(page.getByText('Line 3: expected two numbers, x and y, got “70 up”.')).toBeVisible();
  await page.getByLabel('outline in mm').fill('-70 20\n-70 -20\n70 -20\n70 20');
  await page.getByLabel('outline in mm').blur();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Spindle frame' })).toBeVisible();

  // An order of pins that is known already is picked, not typed.
  await open('/shelf/add/airUnit');
  await page.locator('summary', { hasText: 'Wires and ports' }).click();
  await page
    .getByLabel(/an order that is known/)
    .selectOption({ label: 'supply, ground, uart-tx, uart-rx, rc-ground, rc-out (Aldine Three)' });
  await expect(page.getByLabel('pins, pin 3', { exact: true })).toHaveValue('uart-tx');
  // It rests on practice until it is held against the drawing; a usual pattern is picked too.
  await page
    .getByLabel(/an order that is known/)
    .selectOption({ label: 'rc-out, rc-ground, uart-rx, uart-tx, ground, supply (usual)' });
  await page.getByLabel('name (needed)').fill('Spindle unit');
  await page.getByLabel('source (needed)').selectOption({ label: 'measured' });
  const group = page.locator('details').filter({ has: page.locator('summary', { hasText: 'Seat, camera' }) });
  if ((await group.getAttribute('open')) === null) await group.locator('summary').click();
  await page.getByLabel('Add a usual one to hole patterns').selectOption('25.5 × 25.5 mm, M2');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const order = async () => {
    const shelf = (await (await fetch(`${program.url}/api/shelf?kind=airUnit`)).json()) as {
      entries: { id: string; entry: { valueSources?: Record<string, { kind: string }>; mount?: unknown } }[];
    };
    return shelf.entries.find((e) => e.id === 'spindle-unit')?.entry;
  };
  await expect(page.getByRole('link', { name: 'Spindle unit' })).toBeVisible();
  await expect.poll(async () => (await order())?.valueSources?.['plug.pins']?.kind).toBe('practice');
  expect((await order())?.mount).toEqual({ patterns: [{ xMM: 25.5, yMM: 25.5, screw: 'M2' }] });
  await open('/shelf/edit/airUnit/spindle-unit');
  await page.getByLabel(/I have held it against the drawing of mine/).check();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect.poll(async () => (await order())?.valueSources?.['plug.pins']?.kind).toBe('measured');
});

test('files in and out: a difference first, errors with their place, the export equal to the import', async ({
  page,
  open,
  program,
}, info) => {
  const gear = await readFile(join(root, 'demo/harrow-fell.gear.json'), 'utf8');
  const changed = gear.replace('"maxV": 17.8', '"maxV": 18.6');
  const file = info.outputPath('changed.gear.json');
  await writeFile(file, changed);
  await open('/shelf/files');
  await page.getByLabel('File', { exact: true }).setInputFiles(file);
  await expect(page.getByRole('row', { name: /airUnit aldine-one input.maxV 17.8 18.6/ })).toBeVisible();
  await page.getByRole('button', { name: 'Take in, replacing 1' }).click();
  await expect(page.getByText(/0 new, 1 replaced/)).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /Harrow Fell demo gear/ }).click(),
  ]);
  expect(await readFile(await download.path(), 'utf8')).toBe(changed);

  const broken = info.outputPath('broken.json');
  await writeFile(broken, changed.slice(0, changed.length / 2));
  await page.getByLabel('File', { exact: true }).setInputFiles(broken);
  await expect(page.getByRole('alert')).toContainText('the file ends too early: is it cut off?');
  await writeFile(broken, changed.replace('"cells": 6', '"cells": 0'));
  await page.getByLabel('File', { exact: true }).setInputFiles(broken);
  await expect(page.getByRole('alert')).toContainText('packs[3].cells');

  const fleet = info.outputPath('fleet.json');
  await writeFile(fleet, await (await fetch(`${program.url}/api/export/fleet`)).text());
  const gearFile = info.outputPath('harrow-fell.gear.json');
  await writeFile(gearFile, changed);
  const said = await promisify(execFile)(join(root, 'bin/yokeswap'), ['check', fleet]).catch(
    (e: { code: number; stdout: string }) => e,
  );
  expect('code' in said && said.code).toBe(1);
  await open('/swap/wallower/power');
  const sentence = await page.locator('details.unfit .says').first().innerText();
  expect(said.stdout).toContain(sentence.trim());
});

test('the route: which can, which cannot and why, in what order, what it costs to go back', async ({ page, open }) => {
  await open('/route');
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    '9 of 13 wanted links work, after 8 steps on 5 devices',
  );
  await expect(page.getByRole('button', { name: 'Quern with Visor B: wish, works' })).toBeVisible();
  const damsel = page.locator('details', { hasText: 'Damsel with Visor C' });
  await expect(damsel).toContainText('One Compact of Damsel on 1.1 or later');
  await expect(damsel).toContainText('One Compact of Damsel on 1.0.6 or earlier');
  await expect(damsel).toContainText('give up Damsel with Visor B');
  await expect(page.getByRole('columnheader', { name: /3 Visor C 2.0 → 2.2/ })).toBeVisible();
  await expect(page.getByText('Visor B: nothing known leads back from 4.6 to 4.1')).toBeVisible();

  await page.getByRole('button', { name: 'Damsel with Visor B: wish, works' }).click();
  await expect(page.getByRole('button', { name: 'Damsel with Visor B: must, works' })).toBeVisible();
  await page.getByRole('button', { name: 'Damsel with Visor B: must, works' }).click();
  await expect(page.getByRole('button', { name: 'Damsel with Visor C: wish, works' })).toBeVisible();
  await expect(page.getByText('no way back', { exact: true }).first()).toBeVisible();
  await page.getByLabel('no step that cannot be undone').check();
  await expect(page.getByRole('button', { name: 'Damsel with Visor C: wish, does not work' })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('no step that cannot be undone')).toBeChecked();
  await expect(page.getByRole('button', { name: 'Damsel with Visor B: not needed' })).toBeVisible();
});

test('the rehearsal: a step done wrongly says why, done right ends as promised, and the way back', async ({
  page,
  open,
}) => {
  await open('/rehearse');
  const next = async () => {
    const heading = await page.getByRole('heading', { name: /^Next: / }).innerText();
    await page.getByRole('button', { name: 'Lay out as it should be' }).click();
    await page.getByRole('button', { name: /^(Update|Activate|Switch)$/ }).click();
    await expect(page.getByRole('heading', { name: heading, exact: true })).toHaveCount(0);
  };
  await expect(page.getByRole('heading', { name: 'Next: put 2.3 on new Two' })).toBeVisible();
  await page.getByRole('button', { name: 'Lay out as it should be' }).click();
  await page.getByLabel('the cable only charges').check();
  await page.getByRole('button', { name: 'Update' }).click();
  await expect(page.getByText('The cable only charges: it has no data wires.')).toBeVisible();
  await next();
  await next();
  await page.getByRole('button', { name: 'Lay out as it should be' }).click();
  await page.getByLabel('battery').fill('30');
  await page.getByRole('button', { name: 'Update' }).click();
  await expect(page.getByText(/Visor C wants 50 % or more/)).toBeVisible();
  await expect(page.getByText('Not yet as promised')).toBeVisible();
  for (let i = 0; i < 6; i++) await next();
  await expect(page.getByText('The bench is as the route promises.')).toBeVisible();
  await page.getByRole('combobox', { name: /^device/ }).selectOption({ label: 'Grip 2' });
  await page.getByRole('combobox', { name: /^air unit/ }).selectOption({ label: 'Two of Brayer' });
  await page.getByRole('button', { name: 'Bind' }).click();
  await expect(page.getByText(/goggles come before the controller/)).toBeVisible();
  await page.getByRole('button', { name: 'Now the way back' }).click();
  await expect(page.getByText('Does not open again:')).toBeVisible();
  for (let i = 0; i < 2; i++) await next();
  await expect(page.getByText('The bench is back where it began, as far as doors allow.')).toBeVisible();
});

test('the real route: what is read off a device is recorded, the rest planned from there, and walked back', async ({
  page,
  open,
}) => {
  await open('/bench');
  await page.getByRole('link', { name: /The route of the whole fleet/ }).click();
  await expect(page.getByRole('heading', { name: 'Put 2.3 on new Two' })).toBeVisible();
  await page.getByRole('button', { name: 'Record what it says' }).click();
  await expect(page.getByText(/Read the release off new Two/)).toBeVisible();
  await page.getByLabel('release now read off new Two').fill('2.3');
  await page.getByRole('button', { name: 'Record what it says' }).click();
  await expect(page.getByRole('status')).toContainText('new Two: carries 2.3');
  await page.getByRole('button', { name: 'It is activated' }).click();
  await expect(page.getByRole('status')).toContainText('new Two: activated');
  await page.getByRole('button', { name: 'The tool does not offer 2.2' }).click();
  await expect(page.getByRole('status')).toContainText('Visor C: 2.2 was not offered. The rest is planned again');
  await expect(page.getByRole('heading', { name: 'Put 4.4 on Visor B' })).toBeVisible();
  await page.getByRole('button', { name: 'It is offered after all' }).click();
  await expect(page.getByRole('heading', { name: 'Put 2.2 on Visor C' })).toBeVisible();
  await page.reload();
  await expect(page.getByText('new Two: carries 2.3')).toBeVisible();
  await page.getByRole('link', { name: 'The way back' }).click();
  await expect(page.getByRole('heading', { name: 'Put 2.0 on new Two' })).toBeVisible();
  await page.getByLabel('release now read off new Two').fill('2.0');
  await page.getByRole('button', { name: 'Record what it says' }).click();
  await expect(page.getByText('Every device that can be brought back stands where it stood before.')).toBeVisible();
  await page.getByRole('button', { name: 'Close this route: forget the way back' }).click();
  await expect(page.getByText('so there is nothing to walk back')).toBeVisible();
});

test('a table out of a spreadsheet: each row seen, what is open said, taken in and taken back', async ({
  page,
  open,
}) => {
  await open('/shelf/add');
  await page.getByRole('link', { name: 'Read a table' }).click();
  await page.getByLabel('Open a CSV file').setInputFiles({
    name: 'drawer.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('part;count;price (EUR)\nCowl R;7;18,90\nTallow;3;\n'),
  });
  await page.getByRole('button', { name: 'Read the table' }).click();
  await expect(page.getByRole('button', { name: 'Take one row' })).toBeVisible();
  await page.getByLabel('what Tallow is').selectOption({ label: 'Tallow 6-cell 1200' });
  await page.getByRole('button', { name: 'Take 2 rows' }).click();
  await expect(page.getByRole('status')).toContainText('3 entries were changed.');
  await open('/shelf/edit/spare/cowl-r');
  await expect(page.getByLabel(/^how many/)).toHaveValue('7');
  await open('/shelf/table');
  await page.getByLabel('Its cells').fill('count,price\n1,2');
  await page.getByRole('button', { name: 'Read the table' }).click();
  await expect(page.getByRole('alert')).toContainText('no row names its columns');
});

test('two packs that contradict each other: both sources, and who wins', async ({ page, open, program }) => {
  type Entry = { id: string; entry: { input: { maxV: number } } };
  const units = async () =>
    ((await (await fetch(`${program.url}/api/shelf?kind=airUnit`)).json()) as { entries: Entry[] }).entries;
  const two = (await units()).find((e) => e.id === 'aldine-two')!.entry;
  const other = {
    ...two,
    input: { ...two.input, maxV: 25.4 },
    valueSources: { 'input.maxV': { kind: 'measured', date: '2026-11-02' } },
  };
  const pack = { format: 'gear-pack', version: 9, id: 'weir', title: 'Weir pack', airUnits: [other] };
  await open('/shelf/files');
  await page
    .getByLabel('File', { exact: true })
    .setInputFiles({ name: 'weir.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(pack)) });
  await expect(page.getByText(/in the file 25\.4 \(measured, 2026-11-02\)/)).toBeVisible();
  await expect(page.getByLabel('what is there holds')).toBeChecked();
  await page.getByLabel('the file holds').check();
  await expect(page.getByLabel('the file holds')).toBeChecked();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Take in' }).click();
  await expect(page.getByText(/^Took in “Weir pack”/)).toBeVisible();
  expect((await units()).find((e) => e.id === 'aldine-two')?.entry.input.maxV).toBe(25.4);
});

test('the map of links: before and after an update, and a range dragged over releases', async ({ page, open }) => {
  await open('/links/aldine-one/visor-b');
  await expect(page.getByText(/after .*Visor B 4\.1 → 4\.6/)).toBeVisible();
  await expect(page.getByText(/^After the updates: .*mode First/)).toBeVisible();
  const bar = page.getByRole('group', { name: 'releases of the air unit' });
  const from = (await bar.getByRole('button', { name: '1.0.4' }).boundingBox())!;
  const to = (await bar.getByRole('button', { name: '1.1', exact: true }).boundingBox())!;
  await page.mouse.move(from.x + 5, from.y + 5);
  await page.mouse.down();
  await page.mouse.move(to.x + 5, to.y + 5, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByLabel('Air unit: on which releases')).toHaveValue('>=1.0.4 <=1.1');
  await bar.getByRole('button', { name: 'earlier' }).press('Enter');
  await bar.getByRole('button', { name: '1.0.6' }).press('Enter');
  await expect(page.getByLabel('Air unit: on which releases')).toHaveValue('<=1.0.6');
  await page.getByLabel('after which update').selectOption({ label: 'an update of Visor C' });
  await page.getByLabel('to which release').selectOption('2.2');
  await expect(page.getByText(/after Visor C 2\.0 → 2\.2\./)).toBeVisible();
});
