<script lang="ts">
  // One field of an entry, or a list of groups of fields.
  import { Button, Input, Select } from 'flowbite-svelte';
  import type { ShelfEntry } from '../api/client.svelte';
  import { parseNumber, parseWords, valueAt, withValue, type Entry } from './entry';
  import { asked, type Field } from './fields';
  import Self from './FieldInput.svelte';
  import PinEditor from './PinEditor.svelte';
  import type { HarnessWire } from './pins';
  import WireEditor from './WireEditor.svelte';

  interface Props {
    field: Field;
    entry: Entry;
    entries: ShelfEntry[];
    wrong: Record<string, string>;
    base?: string;
    onchange: (entry: Entry) => void;
  }
  let { field, entry, entries, wrong, base = '', onchange }: Props = $props();

  const path = $derived(base + field.path);
  const id = $derived('field-' + path.replaceAll(/[^a-zA-Z0-9]+/g, '-'));
  const value = $derived(valueAt(entry, field.path));
  let unread = $state('');

  const error = $derived(unread || wrong[path] || '');
  // What is wrong with one of a row, such as plugs[0].pins[2].
  const within = $derived(Object.entries(wrong).filter(([at]) => at.startsWith(path + '[')).map(([at, says]) => `${at.slice(path.length)}: ${says}`));

  function set(to: unknown) {
    onchange(withValue(entry, field.path, to));
  }
  function setNumber(text: string, whole?: boolean) {
    const parsed = parseNumber(text, whole);
    unread = parsed.wrong ?? '';
    if (!parsed.wrong) set(parsed.value);
  }
  const refs = $derived.by(() => {
    if (field.type !== 'ref') return [];
    const { kinds, of } = field;
    const kindOfModel = new Map(entries.map((e) => [e.id, e.kind]));
    return entries.filter((e) =>
      of === 'gear' ? kinds.includes(e.kind) : e.kind === 'kit' && kinds.includes(kindOfModel.get(String((e.entry as Entry).model)) ?? ''),
    );
  });
  const items = $derived(field.type === 'list' && Array.isArray(value) ? (value as Entry[]) : []);
  const text = (e: Event) => (e.currentTarget as HTMLInputElement | HTMLSelectElement).value;
</script>

{#if field.type === 'list'}
  <fieldset>
    <legend>{field.label} {#if field.hint}<span class="soft">{field.hint}</span>{/if}</legend>
    {#if wrong[path]}<p class="wrong" role="alert">{wrong[path]}</p>{/if}
    {#each items as item, i (i)}
      <div class="group">
        {#each field.fields.filter((f) => asked(f, item)) as f (f.path)}
          <Self field={f} entry={item} {entries} {wrong} base={`${path}[${i}].`} onchange={(to) => set(items.map((x, k) => (k === i ? to : x)))} />
        {/each}
        <Button type="button" size="xs" color="alternative" onclick={() => { const rest = items.filter((_, k) => k !== i); set(rest.length > 0 ? rest : undefined); }} aria-label={`Take out ${field.label} ${i + 1}`}>Take out</Button>
      </div>
    {/each}
    <Button type="button" size="xs" color="alternative" onclick={() => set([...items, {}])}>{field.add}</Button>
  </fieldset>
{:else if field.type === 'pins'}
  <PinEditor {id} label={field.label} pins={Array.isArray(value) ? (value as string[]) : []} known={field.known} onchange={set} />
  {#each error ? [error] : within as says (says)}<p class="wrong" role="alert">{says}</p>{/each}
{:else if field.type === 'wires'}
  <WireEditor {id} wires={Array.isArray(value) ? (value as HarnessWire[]) : []} bare={!entry.to} onchange={set} />
  {#each error ? [error] : within as says (says)}<p class="wrong" role="alert">{says}</p>{/each}
{:else}
  <div class="field">
    <label for={id}>{field.label}{'required' in field && field.required ? ' (needed)' : ''}{#if field.type === 'number' && field.unit}<span class="soft">&nbsp;in {field.unit}</span>{/if}</label>
    {#if field.type === 'pick'}
      <Select {id} size="sm" placeholder="" value={value ?? ''} items={[{ value: '', name: 'not known' }, ...field.options]} onchange={(e: Event) => set(text(e) || undefined)} aria-invalid={error !== ''} />
    {:else if field.type === 'yesno'}
      <Select {id} size="sm" placeholder="" value={value === true ? 'yes' : value === false ? 'no' : ''} items={[{ value: '', name: 'not known' }, { value: 'yes', name: 'yes' }, { value: 'no', name: 'no' }]} onchange={(e: Event) => set(text(e) === '' ? undefined : text(e) === 'yes')} aria-invalid={error !== ''} />
    {:else if field.type === 'ref'}
      <Select {id} size="sm" placeholder="" value={value ?? ''} items={[{ value: '', name: 'none' }, ...refs.map((r) => ({ value: r.id, name: r.name }))]} onchange={(e: Event) => set(text(e) || undefined)} aria-invalid={error !== ''} />
    {:else if field.type === 'number'}
      <Input {id} size="sm" inputmode="decimal" autocomplete="off" value={value === undefined ? '' : String(value)} onchange={(e: Event) => setNumber(text(e), field.type === 'number' && field.whole)} aria-invalid={error !== ''} />
    {:else if field.type === 'words'}
      <Input {id} size="sm" autocomplete="off" value={Array.isArray(value) ? value.join(', ') : ''} onchange={(e: Event) => set(parseWords(text(e)))} aria-invalid={error !== ''} />
    {:else}
      <Input {id} size="sm" autocomplete="off" placeholder="" value={typeof value === 'string' ? value : ''} onchange={(e: Event) => set(text(e).trim() || undefined)} aria-invalid={error !== ''} />
    {/if}
    {#if error}<p class="wrong" role="alert">{error}</p>{:else if field.hint}<p class="soft hint">{field.hint}</p>{/if}
  </div>
{/if}

<style>
  .field {
    display: grid;
    gap: 0.15rem;
    align-content: start;
    min-width: 0;
  }
  label,
  legend {
    font-size: 0.92rem;
    font-weight: 600;
  }
  label .soft,
  legend .soft {
    font-weight: 400;
  }
  .hint {
    font-size: 0.82rem;
  }
  .wrong {
    color: var(--unfit);
    font-weight: 600;
    font-size: 0.9rem;
    overflow-wrap: anywhere;
  }
  fieldset {
    grid-column: 1 / -1;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 0.5rem 0.8rem 0.8rem;
    display: grid;
    gap: 0.6rem;
    justify-items: start;
    min-width: 0;
  }
  .group {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
    gap: 0.5rem 0.8rem;
    align-items: start;
    width: 100%;
    border-bottom: 1px dashed var(--line);
    padding-bottom: 0.5rem;
  }
  fieldset :global(button) {
    min-height: 36px;
  }
  .group > :global(button) {
    margin-top: 1.5rem;
    justify-self: start;
  }
</style>
