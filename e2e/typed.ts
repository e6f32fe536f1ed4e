// What a person types into the forms of the shelf: an entry as it stands in a file, put in
// value by value through the controls its form shows. A value without a control fails.
import type { Page } from '@playwright/test';
import { expect } from './program';

interface Field {
  path: string;
  label: string;
  type: string;
  makes?: string;
  made?: boolean;
  options?: { value: string; name: string }[];
  fields?: Field[];
}
interface Form {
  kind: string;
  groups: { title: string; fields: Field[] }[];
}
type Entry = Record<string, unknown>;
interface Wire {
  from: number;
  to?: number;
  colour: string;
}

const controlID = (path: string) => 'field-' + path.replaceAll(/[^a-zA-Z0-9]+/g, '-');
const valueAt = (entry: Entry, path: string) =>
  path.split('.').reduce<unknown>((at, key) => (at as Entry | undefined)?.[key], entry);

/** The paths of an entry that hold a value, a list counting as one. */
function stated(entry: Entry, base = ''): string[] {
  return Object.entries(entry).flatMap(([key, value]) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? stated(value as Entry, `${base}${key}.`)
      : [base + key],
  );
}

async function pins(page: Page, id: string, row: string[]) {
  const editor = page.locator(`datalist#${id}-known`).locator('..');
  await editor.getByRole('button', { name: 'Add a pin' }).click();
  const first = page.locator(`#${id}-0`);
  await first.fill(row.join(', '));
  await first.press('Enter');
  await expect(page.locator(`#${id}-${row.length - 1}`)).toHaveValue(row.at(-1)!);
}

async function wires(page: Page, id: string, list: Wire[]) {
  const row = Array.from(
    { length: Math.max(...list.map((w) => w.from)) },
    (_, i) => list.find((w) => w.from === i + 1)?.colour ?? '-',
  );
  await page.locator(`#${id}`).fill(row.join(', '));
  await page.locator(`#${id}`).blur();
  const editor = page
    .getByRole('group')
    .filter({ has: page.locator(`#${id}`) })
    .last();
  for (const w of list.filter((w) => w.to !== undefined && w.to !== w.from))
    await editor.getByLabel(`to slot of the wire in slot ${w.from}`, { exact: true }).fill(String(w.to));
}

/** An entry of a list whose id is made: it is called by its id where it is called nothing else. */
function called(item: Entry, by: string): Entry {
  const { id, ...rest } = item;
  return { [by]: id, ...rest };
}

async function put(page: Page, field: Field, base: string, value: unknown): Promise<void> {
  const id = controlID(base + field.path);
  const control = page.locator(`#${id}`);
  switch (field.type) {
    case 'list': {
      const items = value as Entry[];
      for (const [i, item] of items.entries()) {
        await control.getByRole('button', { name: `Add to ${field.label}`, exact: true }).click();
        await fill(page, field.fields!, field.makes ? called(item, field.makes) : item, `${base}${field.path}[${i}].`);
      }
      return;
    }
    case 'pins':
      return pins(page, id, value as string[]);
    case 'wires':
      return wires(page, id, value as Wire[]);
    case 'choices':
    case 'some':
      for (const one of value as string[]) {
        const name = field.options?.find((o) => o.value === one)?.name ?? one;
        await control.getByLabel(name, { exact: true }).check();
      }
      return;
    case 'yesno':
      await control.selectOption(value ? 'yes' : 'no');
      return;
    case 'words':
      await control.fill((value as string[]).join(', '));
      await control.blur();
      return;
    default:
      if (await control.evaluate((e) => e instanceof HTMLSelectElement)) await control.selectOption(String(value));
      else {
        await control.fill(String(value)); // what is put in next takes the focus off it
      }
  }
}

async function fill(page: Page, fields: Field[], entry: Entry, base: string) {
  const left = new Set(stated(entry));
  for (const field of fields) {
    if (field.made) continue;
    const value = valueAt(entry, field.path);
    if (value === undefined) continue;
    left.delete(field.path);
    await put(page, field, base, value);
  }
  expect([...left], 'values no control takes').toEqual([]);
}

/** Types an entry into its form and saves it. */
export async function enter(page: Page, url: string, kind: string, entry: Entry): Promise<void> {
  const forms = (await (await fetch(`${url}/api/forms`)).json()) as Form[];
  const form = forms.find((f) => f.kind === kind)!;
  await page.goto(`${url}/#/shelf/add/${kind}`);
  await expect(page.getByRole('heading', { name: /^Add: / })).toBeVisible();
  for (const group of form.groups) {
    if (!group.fields.some((f) => valueAt(entry, f.path) !== undefined)) continue;
    const details = page.locator('details').filter({ has: page.locator(`summary`, { hasText: group.title }) });
    if ((await details.getAttribute('open')) === null) await details.locator('summary').first().click();
  }
  await fill(
    page,
    form.groups.flatMap((g) => g.fields),
    entry,
    '',
  );
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { name: /^Add: / })).toHaveCount(0);
}
