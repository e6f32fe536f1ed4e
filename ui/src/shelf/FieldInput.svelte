<script lang="ts">
  // One field of an entry. Lists, maps and rows of pins or wires have editors of their own.
  import { Input, Select } from 'flowbite-svelte';
  import type { ShelfEntry } from '../api/client.svelte';
  import ChoicesField from './ChoicesField.svelte';
  import {
    fromOthers,
    heldAgainst,
    heldAgainstOwn,
    parseNumber,
    parseWords,
    valueAt,
    withSource,
    withValue,
    type Entry,
  } from './entry';
  import { controlID, within, type Choice, type Field } from './forms';
  import CornersField from './CornersField.svelte';
  import type { Corner } from './corners';
  import ListField from './ListField.svelte';
  import MapField from './MapField.svelte';
  import { placeable, type Outline } from './outline';
  import OutlineEditor from './OutlineEditor.svelte';
  import PinEditor from './PinEditor.svelte';
  import { knownRows, withUsual, type HarnessWire } from './pins';
  import RefsField from './RefsField.svelte';
  import WireEditor from './WireEditor.svelte';

  interface Props {
    field: Field;
    entry: Entry; // what the field's path is below
    root: Entry; // the whole entry
    entries: ShelfEntry[];
    wrong: Record<string, string>;
    base?: string; // the path of entry below root
    onchange: (entry: Entry) => void;
  }
  let { field, entry, root, entries, wrong, base = '', onchange }: Props = $props();

  const path = $derived(base + field.path);
  const id = $derived(controlID(path));
  const value = $derived(valueAt(entry, field.path));
  let unread = $state('');

  const error = $derived(unread || wrong[path] || '');
  // What is wrong with one of a row, such as plugs[0].pins[2].
  const inRow = $derived(
    Object.entries(wrong)
      .filter(([at]) => at.startsWith(path + '['))
      .map(([at, says]) => `${at.slice(path.length)}: ${says}`),
  );

  // What is wrong within an outline, such as outline.pads[2].at.
  const below = $derived(
    Object.entries(wrong)
      .filter(([at]) => at.startsWith(path + '.'))
      .map(([at, says]) => `${at.slice(path.length + 1)}: ${says}`),
  );

  // What counts from common practice once it is held against one's own, such as the order of pins.
  const confirms = $derived(field.confirm === true && base === '');
  const held = $derived(confirms && value !== undefined ? heldAgainst(entry, field.path) : undefined);
  function hold(is: boolean, to = value) {
    onchange(withSource(withValue(entry, field.path, to), field.path, is ? heldAgainstOwn : fromOthers));
  }
  // The orders of pins that other entries have in the same place, and those that are usual: only where
  // one that is picked can be confirmed.
  const orders = $derived(
    confirms && field.type === 'pins'
      ? withUsual(
          (field.usual ?? []).map((u) => u.value as string[]),
          knownRows(entries, (e) => pinsAt(e as Entry, field.path), field.keys ?? []),
        )
      : [],
  );
  const pinsAt = (e: Entry, at: string) => {
    const pins = valueAt(e, at);
    return Array.isArray(pins) ? [pins as string[]] : [];
  };

  function set(to: unknown) {
    onchange(withValue(entry, field.path, to));
  }
  function setNumber(typed: string) {
    const parsed = parseNumber(typed, field.whole, field.unit);
    unread = parsed.wrong ?? '';
    if (!parsed.wrong) set(parsed.value);
  }
  function setWords(typed: string) {
    const words = parseWords(typed);
    if (!field.numbers || !words) {
      unread = '';
      set(words);
      return;
    }
    const numbers = words.map((w) => parseNumber(w));
    unread = numbers.find((n) => n.wrong)?.wrong ?? '';
    if (!unread) set(numbers.map((n) => n.value));
  }

  const named = $derived.by((): Choice[] => {
    if (field.type !== 'ref' && field.type !== 'refs') return [];
    const kinds = field.kinds ?? [];
    const models = field.models ?? [];
    const kindOfModel = new Map(entries.map((e) => [e.id, e.kind]));
    return entries
      .filter(
        (e) =>
          (kinds.includes(e.kind) || (kinds.includes('gear') && e.set !== undefined)) &&
          (e.kind !== 'kit' ||
            models.length === 0 ||
            models.includes(kindOfModel.get(String((e.entry as Entry).model)) ?? '')),
      )
      .map((e) => ({ value: e.id, name: e.name }));
  });
  const choices = $derived.by((): Choice[] => {
    const list = field.type === 'ref' ? named : field.type === 'pick' ? (field.options ?? []) : inside();
    const there =
      field.type !== 'text' && typeof value === 'string' && value !== '' && !list.some((c) => c.value === value);
    return there ? [...list, { value, name: value }] : list;
  });
  function inside(): Choice[] {
    return within(field, root, base, {
      entry: (at) => entries.find((e) => e.id === at)?.entry as Entry | undefined,
      ofKind: (kind) => entries.filter((e) => e.kind === kind).map((e) => e.entry as Entry),
    });
  }
  const picked = $derived(field.type === 'ref' || field.type === 'pick' || field.type === 'within');
  const nothing = $derived(field.type === 'ref' ? 'none' : 'not known');
  const textOf = (e: Event) => (e.currentTarget as HTMLInputElement | HTMLSelectElement).value;
</script>

{#if field.drawn}
  <CornersField
    {id}
    label={field.label}
    about={field.measure ?? field.about ?? ''}
    corners={Array.isArray(value) ? (value as Corner[]) : []}
    plate={field.path === 'outline' ? entry : undefined}
    error={[error, ...inRow].filter(Boolean).join('; ')}
    onchange={set}
    onread={(plate) => onchange({ ...entry, ...plate })}
  />
{:else if field.type === 'list'}
  <ListField
    {field}
    {path}
    {id}
    items={Array.isArray(value) ? (value as Entry[]) : []}
    {root}
    {entries}
    {wrong}
    onchange={set}
  />
{:else if field.type === 'map'}
  <MapField
    {field}
    {path}
    {id}
    value={(value ?? {}) as Entry}
    keys={[...(field.keys ?? []), ...inside().map((c) => c.value)]}
    {root}
    {entries}
    {wrong}
    onchange={set}
  />
{:else if field.type === 'pins'}
  <PinEditor
    {id}
    label={field.label}
    pins={Array.isArray(value) ? (value as string[]) : []}
    known={[...new Set([...inside().map((c) => c.value), ...(field.keys ?? [])])]}
    rows={orders}
    {held}
    onchange={set}
    onpick={(pins) => hold(false, pins)}
    onheld={hold}
  />
  {#each error ? [error] : inRow as says (says)}<p class="bad" role="alert">{says}</p>{/each}
{:else if field.type === 'wires'}
  <WireEditor
    {id}
    label={field.label}
    wires={Array.isArray(value) ? (value as HarnessWire[]) : []}
    bare={!valueAt(entry, field.path.replace(/wires$/, 'to'))}
    onchange={set}
  />
  {#each error ? [error] : inRow as says (says)}<p class="bad" role="alert">{says}</p>{/each}
{:else if field.type === 'outline'}
  <OutlineEditor {id} label={field.label} outline={(value ?? {}) as Outline} places={placeable(entry)} onchange={set} />
  {#each error ? [error] : below as says (says)}<p class="bad" role="alert">{says}</p>{/each}
{:else if field.type === 'choices' || field.type === 'some'}
  <ChoicesField
    {field}
    {id}
    options={field.options ?? inside()}
    value={Array.isArray(value) ? (value as string[]) : []}
    error={error || inRow.join('; ')}
    onchange={set}
  />
{:else if field.type === 'refs'}
  <RefsField
    {field}
    {id}
    value={Array.isArray(value) ? (value as string[]) : []}
    options={named}
    error={error || inRow.join('; ')}
    onchange={set}
  />
{:else}
  <div class="grid gap-0.5 content-start min-w-0" title={field.about}>
    <label class="text-note font-semibold" for={id}
      >{field.label}{field.required ? ' (needed)' : ''}{#if field.unit}<span class="soft font-normal"
          >&nbsp;in {field.unit}</span
        >{/if}</label
    >
    {#if picked}
      <Select
        {id}
        size="sm"
        placeholder=""
        value={value ?? ''}
        items={[{ value: '', name: nothing }, ...choices]}
        onchange={(e: Event) => set(textOf(e) || undefined)}
        aria-invalid={error !== ''}
      />
    {:else if field.type === 'yesno'}
      <Select
        {id}
        size="sm"
        placeholder=""
        value={value === true ? 'yes' : value === false && !field.flag ? 'no' : ''}
        items={field.flag
          ? [
              { value: '', name: 'no' },
              { value: 'yes', name: 'yes' },
            ]
          : [
              { value: '', name: 'not known' },
              { value: 'yes', name: 'yes' },
              { value: 'no', name: 'no' },
            ]}
        onchange={(e: Event) => set(textOf(e) === '' ? undefined : textOf(e) === 'yes')}
        aria-invalid={error !== ''}
      />
    {:else if field.type === 'number'}
      <Input
        {id}
        size="sm"
        inputmode="decimal"
        autocomplete="off"
        value={value === undefined ? '' : String(value)}
        list={field.usual ? `${id}-usual` : undefined}
        onchange={(e: Event) => setNumber(textOf(e))}
        aria-invalid={error !== ''}
      />
      {#if field.usual}<datalist id={`${id}-usual`}
          >{#each field.usual as u (u.name)}<option value={String(u.value)}>{u.name}</option>{/each}</datalist
        >{/if}
    {:else if field.type === 'words'}
      <Input
        {id}
        size="sm"
        autocomplete="off"
        value={Array.isArray(value) ? value.join(', ') : ''}
        onchange={(e: Event) => setWords(textOf(e))}
        aria-invalid={error !== ''}
      />
      {@const left = choices.filter((c) => !(Array.isArray(value) && value.includes(c.value)))}
      {#if left.length > 0}<select
          class="max-w-60"
          aria-label={`Add to ${field.label}`}
          onchange={(e) => {
            const one = left[e.currentTarget.selectedIndex - 1];
            e.currentTarget.selectedIndex = 0; // another may be picked
            if (one) set([...(Array.isArray(value) ? value : []), one.value]);
          }}
        >
          <option>or pick one</option>
          {#each left as c (c.value)}<option>{c.name}</option>{/each}
        </select>{/if}
    {:else}
      <Input
        {id}
        size="sm"
        autocomplete="off"
        placeholder=""
        value={typeof value === 'string' ? value : ''}
        list={choices.length > 0 ? `${id}-picks` : undefined}
        onchange={(e: Event) => set(textOf(e).trim() || undefined)}
        aria-invalid={error !== ''}
      />
      {#if choices.length > 0}<datalist id={`${id}-picks`}
          >{#each choices as c (c.value)}<option value={c.value}>{c.name}</option>{/each}</datalist
        >{/if}
    {/if}
    {#if error}<p class="bad" role="alert">
        {error}
      </p>{:else if field.type === 'within' && choices.length === 0}<p class="soft text-small">
        nothing to pick from is entered yet
      </p>{:else if (field.hint && field.type !== 'within') || field.type === 'words'}<p class="soft text-small">
        {[field.hint, field.type === 'words' && !field.hint?.includes('comma') ? 'by commas' : '']
          .filter(Boolean)
          .join('; ')}
      </p>{/if}
    {#if held !== undefined}<label class="flex gap-2 items-center min-h-11"
        ><input type="checkbox" checked={held} onchange={(e) => hold(e.currentTarget.checked)} /> I have looked at mine: it
        is so</label
      >{/if}
  </div>
{/if}
