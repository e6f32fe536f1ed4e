<script lang="ts">
  // The snapshots of this quad's board: what changed from one to the next, to take
  // along as a file, and to put back.
  import type { BoardKept } from '../api/client';

  interface Props {
    quad: string;
    list: BoardKept[];
    canWrite: boolean;
    onkeep: () => void;
    onrestore: (id: number, propsOff: boolean) => void;
  }
  let { quad, list, canWrite, onkeep, onrestore }: Props = $props();
  let propsOff = $state(false);
</script>

<section class="panel" aria-labelledby="kept">
  <h2 id="kept">Kept settings</h2>
  <p><button type="button" disabled={!canWrite} onclick={onkeep}>Keep what is on the board now</button></p>
  {#if list.length === 0}
    <p class="soft">None yet. Before a board is set, all its settings are kept here.</p>
  {:else}
    <label class="props"><input type="checkbox" bind:checked={propsOff} /> The props are off: settings may be put back</label>
    <ul>
      {#each list as k, i (k.id)}
        <li>
          <p><b>{new Date(k.at).toLocaleString()}</b> {k.why} <span class="mono">{k.runs}</span></p>
          <p class="soft">{i === list.length - 1 ? 'the first kept' : k.differs.length === 0 ? 'as the one before' : `against the one before: ${k.differs.slice(0, 6).map((d) => `${d.label} ${d.a || 'nothing'} → ${d.b || 'nothing'}`).join('; ')}${k.differs.length > 6 ? ` and ${k.differs.length - 6} more` : ''}`}</p>
          <p><a href={`/api/quads/${quad}/board/snapshots/${k.id}`} download>JSON</a>
            <button type="button" disabled={!canWrite || !propsOff} onclick={() => onrestore(k.id, propsOff)} aria-label={`Put back the settings of ${new Date(k.at).toLocaleString()}`}>Put back</button></p>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  section {
    padding: 0.7rem 1rem;
  }
  h2 {
    font-size: 1.15rem;
    font-weight: 700;
  }
  button {
    min-height: 40px;
    padding: 0 0.9rem;
    border: 1.5px solid var(--soft);
    border-radius: 4px;
    background: var(--raised);
    color: var(--ink);
    margin-left: 0.8rem;
  }
  button:first-child {
    margin-left: 0;
  }
  button:disabled {
    opacity: 0.5;
  }
  .props {
    display: inline-flex;
    gap: 0.5rem;
    align-items: center;
    min-height: 44px;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    border-top: 1px solid var(--line);
    padding: 0.4rem 0;
  }
</style>
