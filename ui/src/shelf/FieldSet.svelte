<script lang="ts">
  // A frame around a field of several parts: its label, what is wrong with it as a whole,
  // and the parts.
  import type { Snippet } from 'svelte';
  import type { Field } from './forms';

  interface Props {
    field: Field;
    id: string;
    error?: string | undefined;
    children: Snippet;
  }
  let { field, id, error, children }: Props = $props();
</script>

<fieldset
  class="grid col-span-full border border-line rounded gap-2.5 justify-items-start min-w-0 px-3 pt-2 pb-3"
  {id}
  title={field.about}
>
  <legend class="text-note font-semibold"
    >{field.label}{field.required ? ' (needed)' : ''}
    {#if field.hint}<span class="soft font-normal">{field.hint}</span>{/if}</legend
  >
  {#if error}<p class="bad" role="alert">{error}</p>{/if}
  {@render children()}
</fieldset>

<style>
  fieldset :global(button) {
    min-height: 36px;
  }
  fieldset :global(.part) {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
    gap: 0.5rem 0.8rem;
    align-items: start;
    width: 100%;
    border-bottom: 1px dashed var(--line);
    padding-bottom: 0.5rem;
  }
  fieldset :global(.part > button) {
    margin-top: 1.5rem;
    justify-self: start;
  }
</style>
