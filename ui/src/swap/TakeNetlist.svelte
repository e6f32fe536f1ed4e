<script lang="ts">
  // A netlist taken in: what it would change is said first, then it is planned as any pick.
  import { Button } from 'flowbite-svelte';
  import { api, type Failure, type Patch } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  interface Props {
    quad: string;
    onpick: (patch: Patch, says: string) => void;
  }
  let { quad, onpick }: Props = $props();
  let found = $state.raw<{ patch: Patch; says: string } | null>(null);
  let failure = $state.raw<Failure | null>(null);

  /** The input forgets the file at once, so that the same one, mended, can be chosen again. */
  async function choose(input: HTMLInputElement) {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    found = null;
    failure = null;
    const answer = await api.takeWiring(quad, file);
    if (answer.ok) found = answer.data;
    else failure = answer.failure;
  }

  function plan() {
    if (found) onpick(found.patch, `Planned: ${found.says}.`);
    found = null;
  }
</script>

<div class="grid gap-1.5 justify-items-start">
  <label class="soft" for="netlist">Take in a netlist (CSV)</label>
  <input
    id="netlist"
    type="file"
    accept=".csv,text/csv"
    class="min-h-11 max-w-full"
    onchange={(e) => choose(e.currentTarget)}
  />
  {#if failure}<FailureNote {failure} />{/if}
  {#if found}
    <p role="status">{found.says ? `It would ${found.says}.` : 'The wiring is that already.'}</p>
    {#if found.says}<Button size="sm" onclick={plan}>Plan it so</Button>{/if}
  {/if}
</div>
