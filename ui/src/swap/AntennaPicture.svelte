<script lang="ts">
  // Both ends of the link with what is on them: bands as boxes, the hand drawn as
  // the way it turns, the pattern as a polar plot. Below, the budget against today
  // and what of the drawer does best.
  import type { AntennaView } from '../api/client.svelte';
  import BandBars from './BandBars.svelte';
  import BeamPlot from './BeamPlot.svelte';
  import LinkFall from './LinkFall.svelte';
  import { money, signed } from '../lib/words';

  interface Props {
    view: AntennaView;
    onregion: (region: string) => void;
    onscrew: (kit: string, port: number, was: string, model: string, from: string) => void;
  }
  let { view, onregion, onscrew }: Props = $props();

  type Port = AntennaView['picture']['ports'][number];
  function screw(port: Port, at: number, picked: string) {
    const choice = port.choices[Number(picked)];
    if (picked === 'none') onscrew(view.picture.goggles ?? '', at, port.on, '', '');
    else if (choice) onscrew(view.picture.goggles ?? '', at, port.on, choice.model, choice.from ?? '');
  }
  const priceOf = (p: { price?: number; currency?: string } | undefined) => (p?.price === undefined ? 'no price stated' : money(p.price, p.currency ?? ''));
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
              <BeamPlot pattern={a.pattern} label={`Pattern of ${a.label}: ${a.patternFrom || 'not stated'}`} />
              <span><b>{a.label}</b><small>{a.beam === undefined ? 'beam not stated' : a.beam >= 360 ? 'all round' : `${a.beam}° wide`}{a.patternFrom === 'as stated' ? ', pattern as stated' : a.patternFrom === 'from its beam width' ? ', drawn from that' : ''}</small></span>
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
        {#if n === 0 && view.picture.placed}<p class="soft">Placed {view.picture.placed}.</p>{/if}
        {#if n === 1 && view.picture.goggles}
          <div class="ports">
            {#each view.picture.ports as port, at (at)}
              <label>
                <span>antenna {at + 1}</span>
                <select value="" onchange={(e) => { const picked = e.currentTarget.value; e.currentTarget.value = ''; screw(port, at + 1, picked); }}>
                  <option value="">{port.on ? end.antennas[at]?.label ?? port.on : 'nothing on it'}</option>
                  {#each port.choices as c, i (c.model + (c.from ?? ''))}<option value={String(i)}>{c.label}</option>{/each}
                  {#if port.on}<option value="none">take it off</option>{/if}
                </select>
              </label>
            {/each}
          </div>
        {/if}
      </div>
    {:else}
      <p class="soft">Pick an air unit and goggles to see their antennas.</p>
    {/each}
  </div>
  <BandBars ends={view.picture.ends} />
</figure>
{#each view.budgets as b (b.band)}<LinkFall budget={b} />{/each}
{#each view.sets as s (s.goggles)}
  <div class="panel set">
    <p><b>{s.says}</b>{#if s.betterDB > 0.05}{' '}Screw on: {s.best.join(', ')} (now {s.now.join(', ') || 'nothing'}).{/if}</p>
    {#if s.buy}<p>To buy if money is no matter: {s.buy.count} × {s.buy.label}, {signed(s.buy.dB, 1)} dB more, {priceOf(s.buy)}.</p>{/if}
    {#if s.thrift && s.thrift.label !== s.buy?.label}<p>Most for the money: {s.thrift.count} × {s.thrift.label}, {signed(s.thrift.dB, 1)} dB more, {priceOf(s.thrift)}.</p>{/if}
  </div>
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
    grid-template-columns: 84px minmax(90px, 1fr) 110px;
    gap: 0.1rem 0.5rem;
    align-items: center;
    border-top: 1px solid var(--line);
    padding: 0.25rem 0;
    line-height: 1.2;
  }
  li :global(svg[role='img']) {
    grid-row: span 2;
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
  .set {
    padding: 0.6rem 0.9rem;
  }
  .ports {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
    gap: 0.3rem 0.7rem;
    margin-top: 0.3rem;
  }
  .ports span {
    display: block;
    color: var(--soft);
  }
  .ports select {
    width: 100%;
  }
</style>
