<script lang="ts">
  // The antennas of the plan and those that could go on instead, side by side.
  import type { AntennaView, Patch } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { fixed, money } from '../lib/words';

  interface Props {
    beside: AntennaView['beside'];
    onpick: (patch: Patch, says: string) => void;
  }
  let { beside, onpick }: Props = $props();
</script>

{#if beside.length > 1}
  <section class="panel grid gap-2 px-4 py-3" aria-labelledby="beside">
    <h3 id="beside">Side by side</h3>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="scroll overflow-x-auto" role="group" aria-label="Antennas side by side" tabindex="0">
      <table class="w-full">
        <thead>
          <tr>
            <th scope="col">antennas</th>
            <th scope="col">gate</th>
            <th scope="col">room</th>
            <th scope="col">plug</th>
            <th scope="col">lead</th>
            <th scope="col">link</th>
            <th scope="col">mass</th>
            <th scope="col">to pay</th>
            <th scope="col"><span class="unseen">choose</span></th>
          </tr>
        </thead>
        <tbody>
          {#each beside as a, i (i)}
            <tr>
              <th scope="row">{a.label}</th>
              <td><LevelMark level={a.antenna} /></td>
              <td><LevelMark level={a.mount} /></td>
              <td>{a.plug}</td>
              <td>{a.lead ? `${fixed(a.lead.needMM, 0)} of ${fixed(a.lead.hasMM, 0)} mm` : 'not known'}</td>
              <td>{a.planned ? 'as planned' : a.gains || 'not known'}</td>
              <td>{a.massG === undefined ? 'not known' : `${fixed(a.massG, 1)} g`}</td>
              <td>{a.price === undefined ? 'not known' : a.price === 0 ? 'nothing' : money(a.price, a.money ?? '')}</td>
              <td>
                {#if a.planned}the plan{:else}
                  <button
                    type="button"
                    class="button"
                    aria-label={`Plan ${a.label}`}
                    onclick={() => onpick(a.patch, `Planned: ${a.label}.`)}>Plan these</button
                  >
                {/if}
              </td>
            </tr>
            {#if a.says}<tr class="why"><td colspan="9" class="soft text-note">{a.says}</td></tr>{/if}
          {/each}
        </tbody>
      </table>
    </div>
  </section>
{/if}

<style>
  th,
  td {
    padding: 4px 8px 4px 0;
    text-align: left;
    vertical-align: top;
    border-top: 1px solid var(--line);
  }
  .why td {
    border-top: 0;
    padding-top: 0;
  }
</style>
