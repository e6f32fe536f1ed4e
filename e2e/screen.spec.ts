// How the screens behave: accessibility, keyboard, phone, dark, empty, failing,
// two tabs, an unbuilt plan.
import { expect, expectAccessible, expectNoSidewaysScroll, test } from './program';

const screens = [
  '/',
  '/route',
  '/route/back',
  '/rehearse',
  '/walk',
  '/walk/back',
  '/swap/wallower/power',
  '/swap/damsel/link',
  '/swap/wallower/link',
  '/shelf/edit/kit/one-wallower',
  '/swap/sluice/power',
  '/swap/whip/link',
  '/swap/quern/pins',
  '/swap/wallower/pins',
  '/swap/sluice/pins',
  '/swap/fantail/antenna',
  '/swap/wallower/antenna',
  '/shelf/edit/antenna/crown-dual',
  '/swap/hopper/mount',
  '/swap/fantail/mount',
  '/swap/wallower/osd',
  '/swap/damsel/osd',
  '/swap/hopper/control',
  '/shelf/edit/flightFirmware/tansy',
  '/board/rynd',
  '/fault/damsel',
  '/photos/quern',
  '/hours',
  '/fault/damsel?symptom=no-osd&no=swapped',
  '/shopping',
  '/together?quads=quern,brayer,whip&guests=fell-analog,fell-analog',
  '/shelf/edit/frame/tailpole-5',
  '/shelf/edit/harness/one-loom',
  '/bench',
  '/bench/quern',
  '/bench/wallower',
  '/shelf',
  '/shelf/add',
  '/shelf/add/board',
  '/shelf/edit/quad/rynd',
  '/shelf/files',
  '/shelf/trade',
  '/against?one=quern&other=fantail',
  '/shelf/table',
  '/shelf/changes',
  '/begin',
  '/links',
  '/links/aldine-one/visor-c',
  '/begin/link',
  '/begin/quad/convert',
  '/fill/damsel/plan/board',
  '/fill/rynd/plan',
  '/about',
  '/goggles/visor-c-1',
  '/turns/brayer',
  '/candidates/damsel',
  '/make/fantail',
  '/make/sluice/unit-bracket',
  '/bench-day?one=quern&other=hopper&hands=2',
  '/prove?course=post-mill&before=whip-2026-03-14&after=whip-2026-05-12',
  '/prove/fly/whip-2026-05-12/ridge',
  '/log?day=2026-11-28',
  '/tasks',
  '/nowhere',
];

// In parts, so that none runs long and they share the processors.
const parts = 4;
const long = 'Wallower-of-the-very-long-name-that-nobody-would-paint-on-an-arm '.repeat(2).trim();

/** Gives what most screens show a name that is longer than any. */
async function nameAtLength(url: string) {
  const shelf = (await (await fetch(`${url}/api/shelf`)).json()) as {
    entries: { kind: string; id: string; revision: number; entry: object }[];
  };
  for (const [kind, id] of [
    ['quad', 'wallower'],
    ['kit', 'one-wallower'],
    ['airUnit', 'aldine-one'],
    ['kit', 'visor-c-1'],
  ]) {
    const e = shelf.entries.find((x) => x.kind === kind && x.id === id)!;
    const answer = await fetch(`${url}/api/entries/${kind}/${id}?revision=${e.revision}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ ...e.entry, name: long }),
    });
    expect(answer.status).toBe(200);
  }
}

// Each screen opened once: on a phone, with long names, where nothing scrolls sideways; then wide,
// in light by every rule and in dark by what the scheme can break.
for (let part = 0; part < parts; part++) {
  test(`no screen scrolls sideways on a phone or breaks a rule of accessibility, part ${part + 1}`, async ({
    page,
    open,
    program,
  }) => {
    test.slow();
    await nameAtLength(program.url);
    for (const screen of screens.filter((_, i) => i % parts === part)) {
      await page.setViewportSize({ width: 390, height: 844 });
      await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
      await open(screen);
      await expect(page.getByRole('heading').first()).toBeVisible();
      await expectNoSidewaysScroll(page);
      await page.setViewportSize({ width: 1280, height: 800 });
      await expectAccessible(page);
      await page.emulateMedia({ colorScheme: 'dark' });
      await expect(page.locator('html')).toHaveClass(/dark/);
      await expectAccessible(page, ['color-contrast']);
    }
  });
}

test('everything by keyboard: from the board to a fix to the bench', async ({ page, open }) => {
  await open('/');
  await expect(page.getByRole('rowheader')).toHaveCount(9);
  for (let i = 0; i < 4; i++) await page.keyboard.press('j');
  await expect(page.getByRole('link', { name: 'Wallower' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Wallower' })).toBeVisible();
  await page.keyboard.press('1');
  await expect(page).toHaveURL(/wallower\/link/);
  await page.keyboard.press('2');
  await expect(page).toHaveURL(/wallower\/power/);
  const fix = page.getByRole('button', { name: /from the 10 V pad/ });
  for (let i = 0; i < 30 && !(await fix.evaluate((e) => e === document.activeElement)); i++)
    await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Done: feed the Aldine One from the 10 V pad.')).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.getByRole('heading', { name: 'Wallower on the bench' })).toBeVisible();
  await page.keyboard.press('j');
  await expect(page.getByText('Step 2 of')).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('light or dark');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('t');
  await expect(page.locator('html')).toHaveClass('dark');
  await page.keyboard.press('g');
  await page.keyboard.press('s');
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible();
});

test('two tabs do not overwrite each other: both states are shown', async ({ page, open, context }) => {
  const other = await context.newPage();
  await open('/swap/quern/power');
  await open('/swap/quern/power', other);
  await page.getByLabel('pack', { exact: true }).selectOption('tallow-6s');
  await expect(page.getByText(/Picked Tallow 6-cell/)).toBeVisible();
  await other.getByLabel('pack', { exact: true }).selectOption('tallow-3s');
  const note = other.getByRole('alert');
  await expect(note).toContainText('Changed meanwhile');
  await expect(note.getByRole('row', { name: 'next.pack tallow-6s tallow-3s' })).toBeVisible();
  await note.getByRole('button', { name: 'Keep what is there' }).click();
  await expect(other.getByLabel('pack', { exact: true })).toHaveValue('tallow-6s');

  await page.getByLabel('pack', { exact: true }).selectOption('tallow-4s');
  await expect(page.getByText(/Picked Tallow 4-cell/)).toBeVisible();
  await other.getByLabel('pack', { exact: true }).selectOption('tallow-3s');
  await other.getByRole('button', { name: 'Apply mine on top' }).click();
  await expect(other.getByRole('alert')).toHaveCount(0);
  await expect(other.getByLabel('pack', { exact: true })).toHaveValue('tallow-3s');
});

test('a form that has gone stale shows both, and loses nothing', async ({ page, open, context }) => {
  const other = await context.newPage();
  await open('/shelf/edit/kit/one-sluice');
  await open('/shelf/edit/kit/one-sluice', other);
  await page.getByLabel('firmware it carries').fill('1.0.6');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Aldine One on 1.0.6').last()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0);
  await other.getByLabel('firmware it carries').fill('1.1');
  await other.getByRole('button', { name: 'Save' }).click();
  await expect(other.getByRole('row', { name: 'firmware 1.0.6 1.1' })).toBeVisible();
  await expect(other.getByLabel('firmware it carries')).toHaveValue('1.1');
  await other.getByRole('button', { name: 'Apply mine on top' }).click();
  await expect(other.getByText('Aldine One on 1.1')).toBeVisible();
});

test('what is taken out can be put back; what is in use cannot be taken out', async ({ page, open }) => {
  await open('/shelf');
  await page.getByRole('button', { name: 'Take out Whip' }).click();
  await expect(page.getByText('Took out Whip.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Whip', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByRole('link', { name: 'Whip', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Take out Visor C', exact: true }).first().click();
  await expect(page.getByRole('alert')).toContainText('still named by');
});

test('the answer to a file that is taken in arrives even where the line is cut', async ({ page, open, program }) => {
  const title = ((await (await fetch(`${program.url}/api/shelf`)).json()) as { title: string }).title;
  const kit = [{ id: 'spare-visor', model: 'visor-a' }];
  const buffer = Buffer.from(JSON.stringify({ format: 'fleet', version: 1, title, kit }));
  await open('/shelf/files');
  await page
    .getByLabel('File', { exact: true })
    .setInputFiles({ name: 'one.json', mimeType: 'application/json', buffer });
  await page.route(/api\/import\?.*apply=true/, async (route) => {
    await route.fetch(); // the program has it, and the answer is lost
    await route.abort();
  });
  await page.getByRole('button', { name: /^Take in/ }).click();
  await expect(page.getByText(/^Took in .*: 1 new/)).toBeVisible();
});

test('a change is taken back from wherever one is, and the screen shows it', async ({ page, open }) => {
  await open('/swap/wallower/power');
  await page
    .getByRole('button', { name: /from the 10 V pad/ })
    .first()
    .click();
  await expect(page.getByText('Done: feed the Aldine One from the 10 V pad.')).toBeVisible();
  await open('/route');
  await page.keyboard.press('u');
  const dialog = page.getByRole('dialog', { name: 'What was changed' });
  await expect(dialog.getByRole('listitem').first()).toContainText('planned: quad Wallower');
  await expectAccessible(page);
  await dialog
    .getByRole('button', { name: /^Take back: planned: quad Wallower/i })
    .first()
    .click();
  await expect(dialog.getByText(/^Taken back/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expect(dialog).toBeHidden();
  await open('/swap/wallower/power');
  await page.getByRole('button', { name: 'Changes', exact: true }).click(); // and forward again
  await dialog
    .getByRole('button', { name: /^Take back: took back/i })
    .first()
    .click();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('combobox', { name: 'air unit fed from' })).toHaveValue(/10v/);
});

test('everything goes into one file, and the file into the place of everything', async ({ page, open }, info) => {
  await open('/shelf/files');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Write a backup' }).click();
  const path = info.outputPath('all.backup.jsonl');
  await (await download).saveAs(path);
  await open('/shelf');
  await page.getByRole('button', { name: 'Take out Whip' }).click();
  await expect(page.getByText('Took out Whip.')).toBeVisible();
  await open('/shelf/files');
  await page.getByLabel('Put a backup in the place').setInputFiles(path);
  await expect(page.getByRole('button', { name: 'Take it in' })).toBeDisabled();
  await page.getByLabel('What is here may go').check();
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText(/^Taken in: \d+ rows/)).toBeVisible();
  await open('/shelf');
  await expect(page.getByRole('link', { name: 'Whip', exact: true })).toBeVisible();
});

test('what takes long says what it is at, and can be stopped: nothing is changed', async ({ page, open, program }) => {
  test.slow();
  const kit = Array.from({ length: 30_000 }, (_, i) => ({ id: `spare-visor-${i}`, model: 'visor-a' }));
  const title = ((await (await fetch(`${program.url}/api/shelf`)).json()) as { title: string }).title;
  const file = {
    name: 'many.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify({ format: 'fleet', version: 1, title, kit })),
  };
  await open('/shelf/files');
  await page.getByLabel('File', { exact: true }).setInputFiles(file);
  await page.getByRole('button', { name: /^Take in/ }).click({ timeout: 60_000 });
  const status = page.getByRole('status').filter({ hasText: 'Still working on it' });
  await expect(status).toContainText(/(reading the file|comparing|writing)/i);
  await status.getByRole('button', { name: 'Stop waiting' }).click();
  await expect(page.getByText('It was stopped. Nothing was changed.')).toBeVisible();
  await expect(status).toBeHidden();
  await page.getByRole('button', { name: /^Take in/ }).click();
  await expect(status).toBeVisible();
  await expectAccessible(page);
  await expect(page.getByText(/^Took in/)).toBeVisible({ timeout: 60_000 });
});

test('a program that stops answering says so, and goes on when it is back', async ({ page, open, program }) => {
  await open('/');
  await expect(page.getByRole('rowheader')).toHaveCount(9);
  await program.kill();
  await page.getByRole('button', { name: /Grip 1/ }).click();
  await expect(page.getByRole('alert')).toContainText('The program does not answer');
  await expect(page.getByRole('rowheader')).toHaveCount(9);
  await program.start();
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test.describe('an empty program', () => {
  test.use({ command: 'serve' });
  test('says what to do first', async ({ page, open }) => {
    await open('/');
    await expect(page.getByRole('heading', { name: 'What brings you here?' })).toBeVisible();
    await expectAccessible(page);
    await open('/bench');
    await expect(page.getByText('No quads yet')).toBeVisible();
    await open('/shelf');
    await expect(page.getByRole('heading', { name: 'The shelf is empty' })).toBeVisible();
    await open('/swap/nix');
    await expect(page.getByRole('alert')).toContainText('there is no quad "nix"');
  });
});

test('the accessibility rules find what breaks them', async ({ page, open }) => {
  await open('/');
  await expect(page.getByRole('heading').first()).toBeVisible();
  await page.evaluate(() => {
    const pale = Object.assign(document.createElement('p'), { textContent: 'pale' });
    pale.style.color = '#eee';
    document.querySelector('main')!.append(document.createElement('button'), pale);
  });
  await expect(expectAccessible(page)).rejects.toThrow(/button-name[^]*color-contrast|color-contrast[^]*button-name/);
  await expect(expectAccessible(page, ['color-contrast'])).rejects.toThrow('color-contrast');
});
