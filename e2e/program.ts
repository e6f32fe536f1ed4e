// Each test gets a program of its own: the built binary on a free port, with a
// fresh copy of the demo. Errors on the console fail the test.
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import axe from 'axe-core';
import { expect, test as base, type Page } from '@playwright/test';

const root = fileURLToPath(new URL('..', import.meta.url));

export class Program {
  url = '';
  private child: ChildProcess | undefined;

  constructor(
    readonly data: string,
    private readonly command: 'demo' | 'serve',
  ) {}

  async start(): Promise<void> {
    const port = this.url ? new URL(this.url).port : '0';
    const child = spawn(join(root, 'bin/yokeswap'), [
      this.command,
      '--listen',
      `127.0.0.1:${port}`,
      '--data',
      this.data,
    ]);
    this.child = child;
    this.url = await new Promise((resolve, reject) => {
      let text = '';
      child.stdout.on('data', (chunk: Buffer) => {
        text += chunk.toString();
        const found = /http:\/\/[^\s/]+/.exec(text);
        if (found) resolve(found[0]);
      });
      child.on('exit', (code) => reject(new Error(`the program ended with ${code} before it answered: ${text}`)));
    });
  }

  async kill(): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await ended;
  }
}

interface Fixtures {
  command: 'demo' | 'serve';
  program: Program;
  open: (hash: string, page?: Page) => Promise<void>;
}

export const test = base.extend<Fixtures>({
  command: ['demo', { option: true }],
  program: async ({ command }, use) => {
    const data = await mkdtemp(join(tmpdir(), 'yokeswap-e2e-'));
    const program = new Program(data, command);
    await program.start();
    await use(program);
    await program.kill();
    await rm(data, { recursive: true, force: true });
  },
  open: async ({ program, page }, use) => {
    const errors: string[] = [];
    const watched = new Set<Page>();
    await use(async (hash, on = page) => {
      if (!watched.has(on)) {
        watched.add(on);
        on.on('pageerror', (error) => errors.push(error.message));
        on.on('console', (message) => {
          // A refused request is logged by the browser; what it means is tested on screen.
          if (message.type() === 'error' && !/Failed to load resource/.test(message.text()))
            errors.push(message.text());
        });
      }
      await on.goto(`${program.url}/#${hash}`);
    });
    expect(errors, 'errors on the console').toEqual([]);
  },
});

/** Until what is drawn after the first look is there too. */
const drawn = (page: Page) =>
  page.evaluate(async () => {
    for (let i = 0; i < 4; i++) await new Promise(requestAnimationFrame);
  });

/**
 * No violation of the accessibility rules axe knows, as the page stands. It runs
 * in the page itself and reports violations only: no page of ours has a frame,
 * for which the usual wrapper takes three times as long.
 */
export async function expectAccessible(page: Page, rules?: string[]): Promise<void> {
  await drawn(page);
  if (!(await page.evaluate('"axe" in window'))) await page.evaluate(`${axe.source};0`);
  const violations = await page.evaluate(async (rules) => {
    if (document.querySelector('iframe')) throw new Error('a frame: the rules would not be held within');
    const found = await (window as unknown as { axe: typeof axe }).axe.run(document, {
      resultTypes: ['violations'],
      ...(rules ? { runOnly: { type: 'rule', values: rules } } : {}),
    });
    return found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
  }, rules);
  expect(violations).toEqual([]);
}

/** The page does not scroll sideways. */
export async function expectNoSidewaysScroll(page: Page): Promise<void> {
  await drawn(page);
  const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(over, `px beyond the edge of ${page.url()}`).toBeLessThanOrEqual(0);
}

export { expect };
