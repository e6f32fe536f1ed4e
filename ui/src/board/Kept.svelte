<script lang="ts">
  // The snapshots of this quad's board: what changed from one to the next, to take
  // along as a file, and to put back.
  import { api, place, type BoardKept } from '../api/client.svelte';
  import { moment } from '../lib/words';
  import { keptName } from './kept';

  interface Props {
    quad: string;
    list: BoardKept[];
    canWrite: boolean;
    onkeep: () => void;
    onname: (id: number, name: string) => void;
    onrestore: (id: number, propsOff: boolean) => void;
    ontell: (kept: BoardKept) => void;
  }
  let { quad, list, canWrite, onkeep, onname, onrestore, ontell }: Props = $props();
  let propsOff = $state(false);
  // Two of them held against each other.
  let pair = $state<[number, number]>([0, 0]);
  let between = $state.raw<BoardKept['differs'] | null>(null);
  async function compare() {
    const answer = await api.betweenBoards(quad, pair[0], pair[1]);
    between = answer.ok ? answer.data : null;
  }
</script>

<section class="panel px-4 py-3" aria-labelledby="kept">
  <h2 id="kept">Kept settings</h2>
  <p>
    <button type="button" class="button ml-3" disabled={!canWrite} onclick={onkeep}
      >Keep what is on the board now</button
    >
  </p>
  {#if list.length === 0}
    <p class="soft">None yet. Before a board is set, all its settings are kept here.</p>
  {:else}
    <label class="inline-flex gap-2 items-center min-h-11"
      ><input type="checkbox" bind:checked={propsOff} /> The props are off: settings may be put back</label
    >
    <ul>
      {#each list as k, i (k.id)}
        <li class="border-t border-t-line px-0 py-1.5">
          <p><b>{k.name ? `${k.name}, ` : ''}{moment(k.at)}</b> {k.why} <span class="mono">{k.runs}</span></p>
          <p class="soft">
            {i === list.length - 1
              ? 'the first kept'
              : k.differs.length === 0
                ? 'as the one before'
                : `against the one before: ${k.differs
                    .slice(0, 6)
                    .map((d) => `${d.label} ${d.a || 'nothing'} → ${d.b || 'nothing'}`)
                    .join('; ')}${k.differs.length > 6 ? ` and ${k.differs.length - 6} more` : ''}`}
          </p>
          <p>
            <a href={`${place}/api/quads/${quad}/board/snapshots/${k.id}`} download>JSON</a>
            {#if k.text}<a href={`${place}/api/quads/${quad}/board/snapshots/${k.id}/text`} download>Text</a>{/if}
            <input
              class="min-w-0 w-44 ml-3"
              value={k.name}
              maxlength="80"
              placeholder="no name yet"
              aria-label={`what the settings of ${moment(k.at)} are called`}
              onchange={(e) => onname(k.id, e.currentTarget.value)}
            />
            <button
              type="button"
              class="button ml-3"
              onclick={() => ontell(k)}
              aria-label={`What the settings of ${moment(k.at)} say of today`}>What they say of today</button
            >
            <button
              type="button"
              class="button ml-3"
              disabled={!canWrite || !propsOff}
              onclick={() => onrestore(k.id, propsOff)}
              aria-label={`Put back the settings of ${moment(k.at)}`}>Put back</button
            >
          </p>
        </li>
      {/each}
    </ul>
    {#if list.length > 1}
      <div class="flex flex-wrap gap-2 mt-2.5">
        {#each [0, 1] as const as side (side)}
          <select
            aria-label={side === 0 ? 'hold these settings' : 'against these'}
            bind:value={pair[side]}
            onchange={() => (between = null)}
            ><option value={0}>choose</option>{#each list as k (k.id)}<option value={k.id}>{keptName(k)}</option
              >{/each}</select
          >
        {/each}
        <button type="button" class="button ml-3" disabled={!pair[0] || !pair[1]} onclick={compare}>Compare</button>
      </div>
      {#if between}
        <ul aria-live="polite">
          {#each between as d (d.label)}<li class="border-t border-t-line px-0 py-1.5">
              <b>{d.label}</b>: {d.a || 'nothing'} → {d.b || 'nothing'}
            </li>{:else}<li class="border-t border-t-line px-0 py-1.5">They are the same.</li>{/each}
        </ul>
      {/if}
    {/if}
  {/if}
</section>

<style>
  button:first-child {
    margin-left: 0;
  }
</style>
