<script lang="ts">
  // The rest of a plan: feed, wires, ports, plates, settings and releases that make what is planned
  // fit, found in one press and planned in another.
  import { untrack } from 'svelte';
  import { api, type Failure, type WholePlan, type WholeView } from '../api/client.svelte';
  import Plans from '../decide/Plans.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';

  interface Props {
    quad: string;
    revision: number; // of the quad: what was found is of one
    through: boolean; // every place is filled: it is looked for unasked
    onplanned: () => Promise<unknown>;
  }
  let { quad, revision, through, onplanned }: Props = $props();

  const view = new Loaded<WholeView>();
  let looking = $state(false);
  let refused = $state.raw<Failure | null>(null);
  let said = $state('');
  const shown = $derived(view.data?.revision === revision ? view.data : null);

  async function look() {
    looking = true;
    said = '';
    await view.take(api.wholePlans(quad));
    looking = false;
  }
  let planned = false;
  $effect(() => {
    if (through && !planned) untrack(() => void look());
  });
  async function planIt(plan: WholePlan) {
    if (!shown) return;
    const answer = await api.planWhole(
      quad,
      shown.revision,
      plan.steps.map((s) => s.patch),
    );
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    planned = true;
    await onplanned(); // before that, what is asked below is of the quad as it was
    said = 'Planned, all of it. What is not known yet is asked below.';
  }
</script>

<section class="panel grid gap-2.5 px-5 py-4" aria-labelledby="rest-title">
  <h2 id="rest-title">Plan the rest</h2>
  <p>Feed, wires, ports, plates, releases and settings with which it fits, as far as it is known today.</p>
  <p class="good" role="status">{said}</p>
  {#if view.failure}<FailureNote failure={view.failure} again={look} />{/if}
  {#if refused}<FailureNote failure={refused} />{/if}
  {#if shown}
    <Plans found={shown.found} onplan={planIt} folded />
  {:else}
    <p>
      <button type="button" class="button" disabled={looking} onclick={look}
        >{looking ? 'Trying every way…' : 'Find it'}</button
      >
    </p>
  {/if}
</section>
