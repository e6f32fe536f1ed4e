<script lang="ts">
  // Values by a key, such as which choice is soldered at which jumper.
  import { Button, Input } from 'flowbite-svelte';
  import type { ShelfEntry } from '../api/client.svelte';
  import type { Entry } from './entry';
  import FieldInput from './FieldInput.svelte';
  import FieldSet from './FieldSet.svelte';
  import type { Field } from './forms';

  interface Props {
    field: Field;
    path: string;
    id: string;
    value: Entry;
    keys: string[]; // usual ones
    root: Entry;
    entries: ShelfEntry[];
    wrong: Record<string, string>;
    onchange: (value: Entry | undefined) => void;
  }
  let { field, path, id, value, keys, root, entries, wrong, onchange }: Props = $props();

  let next = $state('');
  const there = $derived(Object.keys(value));
  const free = $derived(keys.filter((k) => !there.includes(k)));
  // A row keeps its place while it is empty: only what is taken out goes.
  let open = $state<string[]>([]);
  const rows = $derived([...there, ...open.filter((k) => !there.includes(k))]);

  function set(key: string, to: unknown) {
    const rest = { ...value };
    delete rest[key];
    if (to !== undefined) rest[key] = to;
    onchange(Object.keys(rest).length > 0 ? rest : undefined);
  }
  function add() {
    const key = next.trim();
    if (key && !rows.includes(key)) open = [...open, key];
    next = '';
  }
</script>

<FieldSet {field} {id} error={wrong[path]}>
  {#each rows as key (key)}
    <div class="part">
      {#each field.fields ?? [] as f (f.path)}
        <FieldInput
          field={{ ...f, label: f.path === 'value' ? key : `${key}: ${f.label}` }}
          entry={key in value ? { value: value[key] } : {}}
          {root}
          {entries}
          wrong={{ ...wrong, [`${path}.${key}.value`]: wrong[`${path}.${key}`] ?? '' }}
          base={`${path}.${key}.`}
          onchange={(to) => set(key, to.value)}
        />
      {/each}
      <Button
        type="button"
        size="xs"
        color="alternative"
        onclick={() => {
          open = open.filter((k) => k !== key);
          set(key, undefined);
        }}
        aria-label={`Take out ${field.label} ${key}`}>Take out</Button
      >
    </div>
  {/each}
  <div class="flex gap-2 max-w-88">
    <Input
      id={`${id}-key`}
      size="sm"
      autocomplete="off"
      list={`${id}-keys`}
      bind:value={next}
      aria-label={`Add to ${field.label}: which`}
      onkeydown={(e: KeyboardEvent) => {
        if (e.key === 'Enter') {
          e.preventDefault();
          add();
        }
      }}
    />
    <datalist id={`${id}-keys`}
      >{#each free as k (k)}<option value={k}></option>{/each}</datalist
    >
    <Button type="button" size="xs" color="alternative" onclick={add} aria-label={`Add to ${field.label}`}>Add</Button>
  </div>
</FieldSet>
