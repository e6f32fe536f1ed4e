<script lang="ts">
  // What counts for each purpose, to be read and changed; what is changed stands in the address.
  import type { FleetDecision } from '../api/client.svelte';

  interface Props {
    purposes: FleetDecision['purposes'];
    criteria: FleetDecision['criteria'];
    changed: string;
    onchange: (weights: string) => void;
  }
  let { purposes, criteria, changed, onchange }: Props = $props();

  function set(purpose: string, criterion: string, value: string) {
    const name = `${purpose}.${criterion}`;
    const rest = changed.split(',').filter((w) => w && !w.startsWith(`${name}:`));
    onchange([...rest, `${name}:${Math.min(9, Math.max(0, Math.round(Number(value)) || 0))}`].join(','));
  }
</script>

<details class="panel px-4 py-2.5">
  <summary>What counts, by purpose</summary>
  <p class="soft">From 0, not at all, to 9. A quad's purpose and how much it counts are stated with the quad.</p>
  <div class="scroll overflow-x-auto">
    <table>
      <thead>
        <tr
          ><th scope="col">flown for</th>{#each criteria as c (c.id)}<th scope="col" title={c.says}>{c.title}</th
            >{/each}</tr
        >
      </thead>
      <tbody>
        {#each purposes.filter((p) => p.id !== 'none') as p (p.id)}
          <tr>
            <th scope="row">{p.title}<span class="block soft text-note font-normal">{p.why}</span></th>
            {#each criteria as c (c.id)}
              <td
                ><input
                  type="number"
                  min="0"
                  max="9"
                  class="w-16"
                  aria-label={`${p.title}: ${c.title}`}
                  value={p.weights[c.id] ?? 0}
                  onchange={(e) => set(p.id, c.id, e.currentTarget.value)}
                /></td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if changed}<button type="button" class="button" onclick={() => onchange('')}>As they were</button>{/if}
</details>

<style>
  th,
  td {
    padding: 4px 10px 4px 0;
    text-align: left;
    vertical-align: top;
  }
</style>
