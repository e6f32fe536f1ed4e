<script lang="ts">
  // A list of groups of fields, such as the releases of a device.
  import { Button } from 'flowbite-svelte';
  import type { ShelfEntry } from '../api/client.svelte';
  import type { Entry } from './entry';
  import FieldInput from './FieldInput.svelte';
  import FieldSet from './FieldSet.svelte';
  import { asked, idsBeside, withIDs, type Field } from './forms';

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
          onchange={(to) =>
            onchange(
              withIDs(
                field,
                items.map((x, k) => (k === i ? to : x)),
                idsBeside(root, path),
              ),
            )}
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
  {#if field.usual}<select
      class="max-w-60"
      aria-label={`Add a usual one to ${field.label}`}
      onchange={(e) => {
        const picked = field.usual?.[e.currentTarget.selectedIndex - 1];
        e.currentTarget.selectedIndex = 0; // the next may be picked, or the same again
        if (picked) onchange([...items, { ...(picked.value as Entry) }]);
      }}
    >
      <option>or a usual one</option>
      {#each field.usual as u (u.name)}<option>{u.name}</option>{/each}
    </select>{/if}
</FieldSet>
