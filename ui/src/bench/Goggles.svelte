<script lang="ts">
  // All that is set in one pair of goggles, for every quad they are planned for; to print.
  import { api, type GogglesList } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { fixed } from '../lib/words';
  import { Loaded } from '../lib/loaded.svelte';

  let { params }: { params: { kit: string } } = $props();
  const list = new Loaded<GogglesList>();
  $effect(() => void list.take(api.goggles(params.kit)));
</script>

{#if list.failure}
  <FailureNote failure={list.failure} again={() => list.take(api.goggles(params.kit))} />
{:else if !list.data}
  <p class="soft" role="status">Looking…</p>
{:else}
  {@const l = list.data}
  <div class="title">
    <h1>What is set in {l.name}</h1>
    <p class="soft">{l.firmware ? `on ${l.firmware}` : 'their firmware is not known'}</p>
    <span class="buttons screen-only ml-auto"
      ><button type="button" class="button" onclick={() => print()}>Print</button></span
    >
  </div>
  <p class="soft mb-3">
    {#if l.worn.massG !== undefined}<span>{fixed(l.worn.massG, 0)} g on the head with their antennas.</span>
    {:else}<span>Weight on the head: not known of {l.worn.unweighed.join(', ')}.</span>{/if}
    {#if l.worn.runsMin !== undefined}<span
        >At their typical power they run about {Math.floor(l.worn.runsMin)} min from {l.worn.runsFrom}.</span
      >{/if}
    {#each l.worn.held as h (h.label)}<span
        >{h.label} in the hand{h.massG === undefined ? ': weight not known.' : `: ${fixed(h.massG, 0)} g.`}</span
      >
    {/each}
  </p>
  {#if l.rows.length === 0}
    <p>No quad is planned to fly with them.</p>
  {:else}
    <div class="panel scroll">
      <table class="rows">
        <thead
          ><tr
            ><th scope="col">set</th><th scope="col">in the menu</th><th scope="col">for</th><th scope="col"
              ><span class="unseen">note</span></th
            ></tr
          ></thead
        >
        <tbody>
          {#each l.rows as r (r.says + r.menu)}
            <tr>
              <th scope="row">{r.says}</th>
              <td>{r.menu ?? 'not stated'}</td>
              <td>{r.quads.join(', ')}</td>
              <td
                >{#if r.differs}<span class="warn">other quads want it otherwise: set it before each</span>{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
{/if}
