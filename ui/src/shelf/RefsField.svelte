<script lang="ts">
  // Several entries that are named, in order: the antennas of a unit.
  import { Button, Select } from 'flowbite-svelte';
  import FieldSet from './FieldSet.svelte';
  import type { Choice, Field } from './forms';

  interface Props {
    field: Field;
    id: string;
    value: string[];
    options: Choice[];
    error: string;
    onchange: (value: string[] | undefined) => void;
  }
  let { field, id, value, options, error, onchange }: Props = $props();

  let next = $state('');
  function without(at: number) {
    const rest = value.filter((_, k) => k !== at);
    onchange(rest.length > 0 ? rest : undefined);
  }
  function choices(has?: string): Choice[] {
    return has === undefined || options.some((o) => o.value === has)
      ? options
      : [...options, { value: has, name: has }];
  }
  const textOf = (e: Event) => (e.currentTarget as HTMLSelectElement).value;
</script>

<FieldSet {field} {id} {error}>
  {#each value as one, i (i)}
    <div class="flex gap-2 w-full max-w-104">
      <Select
        size="sm"
        placeholder=""
        value={one}
        items={choices(one)}
        aria-label={`${field.label}, ${i + 1}`}
        onchange={(e: Event) => onchange(value.map((v, k) => (k === i ? textOf(e) : v)))}
      />
      <Button
        type="button"
        size="xs"
        color="alternative"
        onclick={() => without(i)}
        aria-label={`Take out ${field.label} ${i + 1}`}>Take out</Button
      >
    </div>
  {/each}
  <div class="flex gap-2 w-full max-w-104">
    <Select
      size="sm"
      placeholder=""
      value={next}
      items={[{ value: '', name: 'one more…' }, ...options]}
      aria-label={`Add to ${field.label}`}
      onchange={(e: Event) => {
        if (textOf(e)) onchange([...value, textOf(e)]);
        next = '';
      }}
    />
  </div>
</FieldSet>
