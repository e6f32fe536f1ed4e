<script lang="ts">
  // The statements about a pair as bars over each device's releases, so that
  // one sees which releases overlap, where each device stands and where it goes.
  import type { Picture } from '../api/client.svelte';

  let { picture }: { picture: Picture } = $props();

  const roles: Record<string, string> = { airUnit: 'air unit', goggles: 'goggles', controller: 'controller' };
  const letters = 'ABCDEFGH';

  const releases = $derived(picture.lanes.flatMap((l) => l.releases));
  const doors = $derived(releases.some((r) => r.oneWay));
  const avoided = $derived(releases.some((r) => r.avoid));

  /** First and last column (from 1) that a statement covers on a lane; null for none. */
  function span(lane: Picture['lanes'][number], bar: Picture['bars'][number]): [number, number] | null {
    const covered = bar.covers[lane.role] ?? [];
    const at = lane.releases.map((r, i) => (covered.includes(r.version) ? i + 1 : 0)).filter(Boolean);
    return at.length === 0 ? null : [Math.min(...at), Math.max(...at)];
  }
</script>

<figure class="panel">
  <figcaption class="unseen">
    {#each picture.lanes as lane (lane.role)}
      {lane.label} is on {lane.current ?? 'a release not known'}{lane.target && lane.target !== lane.current ? `, planned ${lane.target}` : ''}.
    {/each}
    {#each picture.bars as bar, i (bar.pairing)}
      Statement {letters[i]}: {picture.lanes.map((l) => `${roles[l.role]} ${bar.ranges[l.role] ?? ''}`).join(', ')}{bar.mode ? `, mode ${bar.mode}` : ''}. {bar.holds ? 'Holds.' : 'Does not hold.'}
    {/each}
  </figcaption>
  {#if picture.never}
    <p class="never">{picture.never}</p>
  {:else if picture.lanes.length < 2}
    <p class="soft none">Pick an air unit and goggles to see which releases link.</p>
  {:else if picture.bars.length === 0}
    <p class="soft none">No statement about this pair: nobody has said whether they link.</p>
  {/if}
  <div class="lanes" aria-hidden="true">
    {#each picture.lanes as lane (lane.role)}
      <div class="lane">
        <p><span class="soft">{roles[lane.role]}</span> <strong>{lane.label}</strong>
          {#if lane.toMode}<span class="mode">mode {lane.mode && lane.mode !== lane.toMode ? `${lane.mode} → ` : ''}{lane.toMode}</span>{/if}</p>
        <div class="grid" style:grid-template-columns={`1.4rem repeat(${Math.max(1, lane.releases.length)}, minmax(0, 1fr))`}>
          <span></span>
          {#each lane.releases as r (r.version)}
            <span class="release mono" class:current={r.version === lane.current} class:target={r.version === lane.target} title={r.avoid}>
              {r.version}{#if r.oneWay}<b title="one-way">⊣</b>{/if}{#if r.avoid}<b>!</b>{/if}
              <small>{r.version === lane.current ? 'on it' : r.version === lane.target ? 'planned' : ''}</small>
            </span>
          {/each}
          {#if lane.releases.length === 0}<span class="soft">no releases stated</span>{/if}
          {#each picture.bars as bar, i (bar.pairing)}
            {@const s = span(lane, bar)}
            <span class="letter" class:holds={bar.holds} style:grid-row={i + 2}>{letters[i]}</span>
            {#if s}
              <span class="bar" class:holds={bar.holds} style:grid-row={i + 2} style:grid-column={`${s[0] + 1} / ${s[1] + 2}`}>{bar.ranges[lane.role]}</span>
            {:else}
              <span class="gap soft" style:grid-row={i + 2} style:grid-column="2 / -1">{lane.role === 'controller' ? 'none' : 'no release stated'}</span>
            {/if}
          {/each}
        </div>
        {#if !lane.current}<p class="soft">its release is not known</p>{/if}
      </div>
    {/each}
  </div>
  {#if picture.bars.length > 0}
    <ul>
      {#each picture.bars as bar, i (bar.pairing)}
        <li class:holds={bar.holds}><b>{letters[i]}</b>{#if bar.mode}&nbsp;mode {bar.mode}{/if}{bar.features.length > 0 ? ': ' + bar.features.join(', ') : ''}{bar.holds ? ' (holds)' : ''}</li>
      {/each}
    </ul>
  {/if}
  {#if doors || avoided}
    <p class="soft key">
      {#if doors}<b>⊣</b> one-way: the old release cannot be put back.{/if}
      {#if avoided}<b>!</b> best avoided.{/if}
    </p>
  {/if}
</figure>

<style>
  figure {
    margin: 0;
    padding: 0.7rem 1rem;
    display: grid;
    gap: 0.5rem;
  }
  .lanes {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
    gap: 0.8rem 1.2rem;
  }
  .lane p {
    font-size: 0.95rem;
    line-height: 1.3;
    overflow-wrap: anywhere;
  }
  .mode {
    font-size: 0.85rem;
    border: 1px solid var(--line);
    border-radius: 3px;
    padding: 0 0.35rem;
    white-space: nowrap;
  }
  .grid {
    display: grid;
    row-gap: 4px;
    align-items: center;
    margin-top: 0.3rem;
  }
  .release {
    text-align: center;
    font-size: 0.88rem;
    padding: 1px 0;
    border-bottom: 3px solid var(--line);
    min-height: 2.5rem;
    display: grid;
    align-content: start;
    line-height: 1.15;
  }
  .release b {
    display: inline;
    color: var(--caution);
  }
  .release small {
    font-size: 0.75rem;
    font-family: var(--font-sans);
  }
  .current {
    border-bottom-color: var(--ink);
    font-weight: 800;
  }
  .target:not(.current) {
    border-bottom-color: var(--accent);
    color: var(--accent);
    font-weight: 800;
  }
  .letter {
    font-weight: 700;
    color: var(--soft);
    font-size: 0.9rem;
  }
  .bar {
    background: var(--unknown-wash);
    border: 1.5px solid var(--unknown);
    border-radius: 3px;
    font-size: 0.78rem;
    padding: 1px 5px;
    margin: 0 2px;
    min-height: 24px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .bar.holds {
    background: var(--fits-wash);
    border-color: var(--fits);
    font-weight: 700;
  }
  .letter.holds {
    color: var(--fits);
  }
  .gap {
    font-size: 0.8rem;
    font-style: italic;
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
    font-size: 0.9rem;
  }
  li.holds {
    color: var(--fits);
    font-weight: 600;
  }
  .never {
    color: var(--unfit);
    font-weight: 700;
  }
  .key {
    font-size: 0.85rem;
  }
</style>
