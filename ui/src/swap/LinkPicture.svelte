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

<figure class="panel grid gap-2 px-4 py-3">
  <figcaption class="unseen">
    {#each picture.lanes as lane (lane.role)}
      {lane.label} is on {lane.current ?? 'a release not known'}{lane.target && lane.target !== lane.current
        ? `, planned ${lane.target}`
        : ''}.
    {/each}
    {#each picture.bars as bar, i (bar.pairing)}
      Statement {letters[i]}: {picture.lanes
        .map((l) => `${roles[l.role]} ${bar.ranges[l.role] ?? ''}`)
        .join(', ')}{bar.mode ? `, mode ${bar.mode}` : ''}. {bar.holds ? 'Holds.' : 'Does not hold.'}
    {/each}
  </figcaption>
  {#if picture.never}
    <p class="text-unfit font-bold">{picture.never}</p>
  {:else if picture.lanes.length < 2}
    <p class="soft none">Pick an air unit and goggles to see which releases link.</p>
  {:else if picture.bars.length === 0}
    <p class="soft none">No statement about this pair: nobody has said whether they link.</p>
  {/if}
  <div class="grid cols-fit-[230px] gap-y-3 gap-x-5" aria-hidden="true">
    {#each picture.lanes as lane (lane.role)}
      <div>
        <p class="text-note leading-snug wrap-anywhere">
          <span class="soft">{roles[lane.role]}</span> <strong>{lane.label}</strong>
          {#if lane.toMode}<span class="text-small border border-line rounded whitespace-nowrap px-1.5 py-0"
              >mode {lane.mode && lane.mode !== lane.toMode ? `${lane.mode} → ` : ''}{lane.toMode}</span
            >{/if}
        </p>
        <div
          class="grid gap-y-1 items-center mt-1"
          style:grid-template-columns={`1.4rem repeat(${Math.max(1, lane.releases.length)}, minmax(0, 1fr))`}
        >
          <span></span>
          {#each lane.releases as r (r.version)}
            <span
              class="release mono grid text-center text-small border-b-3 border-b-line min-h-10 content-start leading-tight px-0 py-px"
              class:current={r.version === lane.current}
              class:target={r.version === lane.target}
              title={r.avoid}
            >
              {r.version}{#if r.oneWay}<b class="inline text-caution" title="one-way">⊣</b>{/if}{#if r.avoid}<b
                  class="inline text-caution">!</b
                >{/if}
              <small>{r.version === lane.current ? 'on it' : r.version === lane.target ? 'planned' : ''}</small>
            </span>
          {/each}
          {#if lane.releases.length === 0}<span class="soft">no releases stated</span>{/if}
          {#each picture.bars as bar, i (bar.pairing)}
            {@const s = span(lane, bar)}
            <span class="letter font-bold text-soft text-note" class:holds={bar.holds} style:grid-row={i + 2}
              >{letters[i]}</span
            >
            {#if s}
              <span
                class="bar bg-unknown-wash border-2 border-unknown rounded text-tiny min-h-6 overflow-hidden text-ellipsis whitespace-nowrap mx-0.5 my-0 px-1.5 py-px"
                class:holds={bar.holds}
                style:grid-row={i + 2}
                style:grid-column={`${s[0] + 1} / ${s[1] + 2}`}>{bar.ranges[lane.role]}</span
              >
            {:else}
              <span class="soft text-tiny italic" style:grid-row={i + 2} style:grid-column="2 / -1"
                >{lane.role === 'controller' ? 'none' : 'no release stated'}</span
              >
            {/if}
          {/each}
        </div>
        {#if !lane.current}<p class="soft text-note leading-snug wrap-anywhere">its release is not known</p>{/if}
      </div>
    {/each}
  </div>
  {#if picture.bars.length > 0}
    <ul class="text-note">
      {#each picture.bars as bar, i (bar.pairing)}
        <li class:holds={bar.holds}>
          <b>{letters[i]}</b>{#if bar.mode}&nbsp;mode {bar.mode}{/if}{bar.features.length > 0
            ? ': ' + bar.features.join(', ')
            : ''}{bar.holds ? ' (holds)' : ''}
        </li>
      {/each}
    </ul>
  {/if}
  {#if doors || avoided}
    <p class="soft text-small">
      {#if doors}<b>⊣</b> one-way: the old release cannot be put back.{/if}
      {#if avoided}<b>!</b> best avoided.{/if}
    </p>
  {/if}
</figure>

<style>
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
  .bar.holds {
    background: var(--fits-wash);
    border-color: var(--fits);
    font-weight: 700;
  }
  .letter.holds {
    color: var(--fits);
  }
  li.holds {
    color: var(--fits);
    font-weight: 600;
  }
</style>
