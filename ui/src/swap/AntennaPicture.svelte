<script lang="ts">
  // Both ends of the link with what is on them: bands as boxes, the hand drawn as
  // the way it turns, the beam as a wedge. Below, the budget against today.
  import type { AntennaView } from '../api/client';

  interface Props {
    view: AntennaView;
    onregion: (region: string) => void;
  }
  let { view, onregion }: Props = $props();
  const signed = (x: number) => (x > 0.05 ? '+' : x < -0.05 ? '−' : '±') + Math.abs(x).toFixed(1);

  /** A wedge of the beam's width, straight up, in a circle of radius 15. */
  function wedge(beam: number | undefined): string {
    const half = ((beam ?? 360) / 2) * (Math.PI / 180);
    if (half >= Math.PI - 0.01) return 'M 18 3 a 15 15 0 1 1 -0.01 0 z';
    const x = 15 * Math.sin(half);
    const y = 15 * Math.cos(half);
    return `M 18 18 L ${18 - x} ${18 - y} A 15 15 0 ${half > Math.PI / 2 ? 1 : 0} 1 ${18 + x} ${18 - y} z`;
  }
</script>

<p class="region">
  <label for="region">Your region</label>
  <select id="region" value={view.region} onchange={(e) => onregion(e.currentTarget.value)}>
    <option value="">not chosen</option>
    {#each view.regions as r (r.id)}<option value={r.id}>{r.name}</option>{/each}
  </select>
  <span class="soft">its limits on power and bands come first; enter them on the Shelf as your authority states them</span>
</p>
<figure class="panel">
  <figcaption class="unseen">The antennas on each end of the link.</figcaption>
  <div class="ends">
    {#each view.picture.ends as end, n (n)}
      <div>
        <p><strong>{end.label}</strong> <span class="soft">{end.bands || 'bands not stated'}{end.wanted === undefined ? '' : `, takes ${end.wanted}`}</span></p>
        <ul>
          {#each end.antennas as a, i (i)}
            <li>
              <svg width="36" height="36" viewBox="0 0 36 36" aria-hidden="true"><circle cx="18" cy="18" r="15" class="round" /><path d={wedge(a.beam)} class="beam" /><circle cx="18" cy="18" r="2.5" class="foot" /></svg>
              <span><b>{a.label}</b><small>{a.beam === undefined ? 'beam not stated' : a.beam >= 360 ? 'all round' : `${a.beam}° wide`}</small></span>
              <span class="hand">
                <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
                  {#if a.hand === 'linear'}<path d="M11 2v18" class="turn" />{:else if a.hand}<path d="M11 3a8 8 0 1 1 -8 8" class="turn" transform={a.hand === 'left-hand' ? 'translate(22 0) scale(-1 1)' : ''} /><path d="M0 13 L3 8 L7 12" class="turn" transform={a.hand === 'left-hand' ? 'translate(22 0) scale(-1 1)' : ''} />{:else}<text x="6" y="17">?</text>{/if}
                </svg>{a.hand || 'hand not stated'}
              </span>
              <span class="bands">
                {#each a.bands as b (b.band)}<span class="band" class:used={b.used}>{b.band} GHz <small>{b.gainDBi === undefined ? '? dBi' : `${b.gainDBi} dBi`}{b.used ? '' : ', not used'}</small></span>{/each}
              </span>
            </li>
          {:else}
            <li class="soft">No antennas stated.</li>
          {/each}
        </ul>
      </div>
    {:else}
      <p class="soft">Pick an air unit and goggles to see their antennas.</p>
    {/each}
  </div>
</figure>
{#each view.budgets as b (b.band)}
  <section class="panel budget" aria-label={`Link on ${b.band} GHz against today`}>
    <h3>{b.says}</h3>
    {#if b.rows.length > 0}
      <table>
        <thead><tr><th scope="col">dB</th><th scope="col">today</th><th scope="col">next</th><th scope="col">change</th><th scope="col"><span class="unseen">as a bar</span></th></tr></thead>
        <tbody>
          {#each b.rows as r (r.what)}
            {@const change = r.nowDB !== undefined && r.nextDB !== undefined ? r.nextDB - r.nowDB : undefined}
            <tr>
              <th scope="row">{r.what}</th>
              <td class="mono">{r.nowDB === undefined ? '?' : r.nowDB.toFixed(1)}</td>
              <td class="mono">{r.nextDB === undefined ? '?' : r.nextDB.toFixed(1)}</td>
              <td class="mono">{change === undefined ? 'left out' : signed(change)}</td>
              <td class="fall" aria-hidden="true">{#if change !== undefined && Math.abs(change) > 0.05}<i class={change > 0 ? 'up' : 'down'} style:width={`${Math.min(50, Math.abs(change) * 4)}%`}></i>{/if}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </section>
{/each}
{#each view.sets as s (s.goggles)}
  <p class="panel set"><b>{s.says}</b>
    {#if s.betterDB > 0.05}Screw on: {s.best.join(', ')} (now {s.now.join(', ') || 'nothing'}).{/if}
    {#if s.buy}To buy, better still: {s.buy}, {signed(s.buyDB ?? 0)} dB more.{/if}
  </p>
{/each}

<style>
  figure {
    margin: 0;
    padding: 0.6rem 0.9rem;
  }
  .ends {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(100%, 300px), 1fr));
    gap: 0.4rem 1.4rem;
  }
  ul {
    list-style: none;
    margin: 0.2rem 0 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: 40px minmax(90px, 1fr) 110px;
    gap: 0.1rem 0.5rem;
    align-items: center;
    border-top: 1px solid var(--line);
    padding: 0.25rem 0;
    line-height: 1.2;
  }
  .bands {
    grid-column: 2 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
  }
  small {
    display: block;
    color: var(--soft);
  }
  .band small {
    display: inline;
  }
  .band {
    border: 1.5px dashed var(--soft);
    padding: 0 0.45rem;
    font-size: 0.9rem;
  }
  .band.used {
    border: 1.5px solid var(--accent);
    background: var(--accent-wash);
  }
  .hand {
    display: flex;
    gap: 0.3rem;
    align-items: center;
  }
  .round {
    fill: none;
    stroke: var(--line);
  }
  .beam {
    fill: var(--accent-wash);
    stroke: var(--accent);
    stroke-width: 1.5;
  }
  .foot {
    fill: var(--ink);
  }
  .turn {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  text {
    fill: var(--ink);
  }
  .region {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.7rem;
    align-items: center;
  }
  select {
    min-height: 38px;
    background-color: var(--raised);
    color: var(--ink);
    border: 1px solid var(--soft);
    border-radius: 4px;
  }
  .budget,
  .set {
    padding: 0.6rem 0.9rem;
  }
  h3 {
    font-weight: 700;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 0.95rem;
  }
  th,
  td {
    text-align: left;
    font-weight: 500;
    padding: 0.1rem 0.8rem 0.1rem 0;
  }
  thead th {
    color: var(--soft);
  }
  .fall {
    width: 30%;
  }
  .fall i {
    display: block;
    height: 12px;
  }
  .up {
    background: var(--fits);
    margin-left: 50%;
  }
  .down {
    background: var(--unfit);
    margin-right: 50%;
    margin-left: auto;
  }
</style>
