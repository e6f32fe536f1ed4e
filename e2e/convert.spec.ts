// A conversion from an empty folder to no gate unknown, its inputs counted. An input is a
// committed field or choice, a pasted text, and each press that goes on.
import type { Page } from '@playwright/test';
import { expect, expectAccessible, expectNoSidewaysScroll, test, type Program } from './program';
import { antennaPage, gogglesPage, gripPage, unitPage } from './sheets';

/** Counts what a person puts in: by touch, or by keys alone. */
class Builder {
  count = 0;
  constructor(
    readonly page: Page,
    private readonly keys: boolean,
  ) {}
  async press(name: string | RegExp, role: 'button' | 'link' = 'button') {
    const it = this.page.getByRole(role, { name }).first();
    await expect(it).toBeVisible();
    if (this.keys) {
      await it.focus();
      await this.page.keyboard.press('Enter');
    } else await it.click();
    this.count++;
  }
  /** Types into a field and commits it. */
  async type(label: string, text: string) {
    const field = this.page.getByLabel(label).first();
    await field.fill(text);
    await field.press('Enter');
    this.count++;
  }
  /** Pastes a page where something is to be put in, ticks what was held against the drawing, and puts it in. */
  async paste(place: string, text: string, drawing?: RegExp) {
    await expect(this.page.getByRole('heading', { name: place, exact: true })).toBeVisible();
    await this.page.getByLabel('its sheet, if you have it').fill(text);
    this.count++;
    await expect(this.page.getByRole('button', { name: /^Put it in with/ })).toBeVisible();
    if (drawing) {
      await this.page.getByLabel(drawing).check();
      this.count++;
    }
    await this.press(/^Put it in with/);
  }
}

/** A sheet somebody wrote down with the program: of the demo's own gear. */
const written = async (program: Program, of: string) =>
  (await fetch(`${program.url}/demo/api/entries/${of}/sheet`)).text();

const answers: [RegExp, (put: Builder) => Promise<void>][] = [
  [/^length of the pack lead/i, (put) => put.type('length one way', '80')],
  [/^gauge of the pack lead/i, (put) => put.type('gauge', '12')],
  [/^resistance per cell/i, (put) => put.type('resistance of a cell', '4')],
  [/^where in/i, (put) => put.press(/^rear bay/)],
  [/^region/i, (put) => put.press(/^Short range devices/)],
  [/links with/, (put) => put.press(/^On any release, Grip 2 through it/)],
  [/^antennas on/i, (put) => put.press(/^4 × Patch, right-hand, on SMA/)],
  [/^release of/i, (put) => put.type('its release', '4.5.2')],
  [/^channels and switches/i, (put) => put.press(/^AETR/)],
  [/^OSD layout/i, (put) => put.press(/^warnings/)],
  [/^angle between/i, (put) => put.press(/^plan them/)],
];

async function convert(put: Builder, program: Program) {
  const { page } = put;
  await put.press(/I convert a quad/, 'link');
  await put.type('What do you call it?', 'Old one');
  await put.paste('flight board', await written(program, 'board/bramble-f7'), /as plugs/);
  await put.paste('flight firmware', await written(program, 'flightFirmware/tansy'));
  await put.press(/^6-cell LiPo pack/);
  await put.paste('frame', await written(program, 'frame/tailpole-5'));
  await put.paste('air unit', unitPage, /as plug.pins/);
  await put.paste('goggles', gogglesPage);
  await put.paste('controller', gripPage);
  await put.paste('antennas', antennaPage);
  await expect(page.getByRole('button', { name: 'Plan this' }).first()).toBeVisible();
  await expect(page.getByRole('region', { name: 'What would decide most' }).locator('p.font-semibold')).toBeVisible();
  // However long the quad takes to be read again: what was asked before it was planned is asked no more.
  await page.route(
    /\/slots/,
    async (route) => {
      await page.waitForTimeout(700);
      await route.continue();
    },
    { times: 1 },
  );
  await put.press('Plan this'); // the rest is looked for unasked once the last place is filled
  await expect(page.getByText('Planned, all of it.')).toBeVisible();
  const ask = page.getByRole('region', { name: 'What would decide most' });
  const question = ask.locator('p.font-semibold');
  const done = ask.getByText('Nothing is missing that a gate asks for.');
  await expect(question.or(done)).toBeVisible();
  while (!(await done.isVisible())) {
    const asked = await question.innerText();
    const answer = answers.find(([q]) => q.test(asked));
    expect(answer, `an answer to “${asked}”`).toBeDefined();
    await answer![1](put);
    await expect(question.filter({ hasText: asked })).toHaveCount(0);
    await expect(question.or(done)).toBeVisible();
  }
}

test.describe('a conversion to no gate unknown: no more than thirty inputs', () => {
  test.use({ command: 'serve' });
  for (const [how, size, keys] of [
    ['by thumb', { width: 390, height: 844 }, false],
    ['by keyboard alone', { width: 1280, height: 800 }, true],
  ] as const) {
    test(how, async ({ page, open, program }) => {
      await page.setViewportSize(size);
      await open('/');
      const put = new Builder(page, keys);
      await convert(put, program);
      const quad = (await (await fetch(`${program.url}/api/quads/old-one`)).json()) as {
        judgement: { gates: { gate: string; level: string }[] };
      };
      expect(quad.judgement.gates.filter((g) => g.level === 'unknown')).toEqual([]);
      expect(quad.judgement.gates).toHaveLength(7);
      expect(put.count).toBeLessThanOrEqual(30);
      await expectNoSidewaysScroll(page);
      await expectAccessible(page);
    });
  }
});

test.describe('the other ways in lead to a verdict', () => {
  test.use({ command: 'serve' });
  const first = async (put: Builder, story: RegExp) => {
    await put.press(story, 'link');
    await put.type('What do you call it?', 'Mine');
    await put.paste('air unit', unitPage);
    await put.paste('goggles', gogglesPage);
    await expect(put.page.getByRole('heading', { name: 'controller', exact: true })).toBeVisible();
  };
  const toGates = async (put: Builder) => {
    await put.press('Its gates', 'link');
    await expect(put.page).toHaveURL(/#\/swap\/mine/);
    await expect(put.page.getByRole('heading', { name: 'Mine' })).toBeVisible();
    await expect(
      put.page.getByText(/Does every part see a voltage|Do air unit, goggles and controller talk/),
    ).toBeVisible();
  };
  for (const [how, size, keys] of [
    ['by thumb', { width: 390, height: 844 }, false],
    ['by keyboard alone', { width: 1280, height: 800 }, true],
  ] as const) {
    // One of these each way: both go the same way by thumb and by keys.
    for (const story of [keys ? /I bought a quad that has one/ : /I only want to keep my fleet/]) {
      test(`${story.source}, ${how}`, async ({ page, open }) => {
        await page.setViewportSize(size);
        await open('/');
        const put = new Builder(page, keys);
        await first(put, story);
        await toGates(put);
        expect(put.count).toBeLessThanOrEqual(7);
        await expectNoSidewaysScroll(page);
      });
    }
    if (keys)
      test(`another air unit, ${how}`, async ({ page, open }) => {
        await page.setViewportSize(size);
        await open('/');
        const put = new Builder(page, keys);
        await first(put, /I swap an air unit/);
        await put.press('Planned', 'link');
        await put.press(/^air unit/);
        await put.type('Something new, by its name', 'Newer unit');
        await expect(page.getByRole('status').filter({ hasText: 'Newer unit is in.' })).toBeVisible();
        await toGates(put);
        expect(put.count).toBeLessThanOrEqual(10);
        await expectNoSidewaysScroll(page);
      });
  }
});
