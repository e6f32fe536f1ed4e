<script lang="ts">
  // A list of groups of fields, such as the releases of a device.
  import { Button, Select } from 'flowbite-svelte';
  import type { ShelfEntry } from '../api/client.svelte';
  import type { Entry } from './entry';
  import FieldInput from './FieldInput.svelte';
  import FieldSet from './FieldSet.svelte';
  import { asked, type Field } from './forms';

  interface Props {
    field: Field;
    path: string;
    id: string;
    items: Entry[];
    root: Entry;
    entries: ShelfEntry[];
    wrong: Record<string, string>;
    onchange: (items: Entry[] | undefined) => void;
  }
  let { field, path, id, items, root, entries, wrong, onchange }: Props = $props();

  function without(at: number) {
    const rest = items.filter((_, k) => k !== at);
    onchange(rest.length > 0 ? rest : undefined);
  }
</script>

<FieldSet {field} {id} error={wrong[path]}>
  {#each items as item, i (i)}
    <div class="part">
      {#each (field.fields ?? []).filter((f) => asked(f, item)) as f (f.path)}
        <FieldInput
          field={f}
          entry={item}
          {root}
          {entries}
          {wrong}
          base={`${path}[${i}].`}
          onchange={(to) => onchange(items.map((x, k) => (k === i ? to : x)))}
        />
      {/each}
      <Button
        type="button"
        size="xs"
        color="alternative"
        onclick={() => without(i)}
        aria-label={`Take out ${field.label} ${i + 1}`}>Take out</Button
      >
    </div>
  {/each}
  <Button
    type="button"
    size="xs"
    color="alternative"
    onclick={() => onchange([...items, {}])}
    aria-label={`Add to ${field.label}`}>Add one</Button
  >
  {#if field.usual}<Select
      class="max-w-60"
      size="sm"
      placeholder=""
      aria-label={`Add a usual one to ${field.label}`}
      value=""
      items={[
        { value: '', name: 'or a usual one' },
        ...field.usual.map((u, i) => ({ value: String(i), name: u.name })),
      ]}
      onchange={(e: Event) => {
        const control = e.currentTarget as HTMLSelectElement;
        const picked = field.usual?.[Number(control.value || -1)];
        control.value = ''; // the next may be picked, or the same again
        if (picked) onchange([...items, { ...(picked.value as Entry) }]);
      }}
    />{/if}
</FieldSet>
