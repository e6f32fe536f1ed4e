<script lang="ts">
  // Any of some choices.
  import FieldSet from './FieldSet.svelte';
  import type { Choice, Field } from './forms';

  interface Props {
    field: Field;
    id: string;
    options: Choice[];
    value: string[];
    error: string;
    onchange: (value: string[] | undefined) => void;
  }
  let { field, id, options, value, error, onchange }: Props = $props();
  const all = $derived([
    ...options,
    ...value.filter((v) => !options.some((o) => o.value === v)).map((v) => ({ value: v, name: v })),
  ]);

  function toggle(one: string, on: boolean) {
    const next = on ? [...value, one] : value.filter((v) => v !== one);
    onchange(next.length > 0 ? next : undefined);
  }
</script>

<FieldSet {field} {id} {error}>
  <div class="flex flex-wrap gap-y-1.5 gap-x-5 min-h-9 items-center">
    {#each all as o (o.value)}
      <label
        ><input
          type="checkbox"
          checked={value.includes(o.value)}
          onchange={(e) => toggle(o.value, e.currentTarget.checked)}
        />
        {o.name}</label
      >
    {/each}
    {#if all.length === 0}<span class="soft">nothing to pick from is entered yet</span>{/if}
  </div>
</FieldSet>
