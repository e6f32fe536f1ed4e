<script lang="ts">
  // Any of some choices.
  import FieldSet from './FieldSet.svelte';
  import type { Field } from './forms';

  interface Props {
    field: Field;
    id: string;
    value: string[];
    error: string;
    onchange: (value: string[] | undefined) => void;
  }
  let { field, id, value, error, onchange }: Props = $props();

  function toggle(one: string, on: boolean) {
    const next = on ? [...value, one] : value.filter((v) => v !== one);
    onchange(next.length > 0 ? next : undefined);
  }
</script>

<FieldSet {field} {id} {error}>
  <div class="flex flex-wrap gap-y-1.5 gap-x-5 min-h-9 items-center">
    {#each field.options ?? [] as o (o.value)}
      <label
        ><input
          type="checkbox"
          checked={value.includes(o.value)}
          onchange={(e) => toggle(o.value, e.currentTarget.checked)}
        />
        {o.name}</label
      >
    {/each}
  </div>
</FieldSet>
