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
  const priceOf = (p: { price?: number; currency?: string } | undefined) =>
    p?.price === undefined ? 'no price stated' : money(p.price, p.currency ?? '');
</script>

<p class="flex flex-wrap gap-y-1 gap-x-3 items-center">
  <label for="region">Your region</label>
  <select id="region" value={view.region} onchange={(e) => onregion(e.currentTarget.value)}>
    <option value="">not chosen</option>
    {#each view.regions as r (r.id)}<option value={r.id}>{r.name}</option>{/each}
  </select>
  <span class="soft"
    >its limits on power and bands come first; enter them on the Shelf as your authority states them</span
  >
</p>
<figure class="panel px-3.5 py-2.5">
  <figcaption class="unseen">The antennas on each end of the link.</figcaption>
  <div class="grid cols-fit-[300px] gap-y-1.5 gap-x-5.5">
    {#each view.picture.ends as end, n (n)}
      <div>
        <p>
          <strong>{end.label}</strong>
          <span class="soft"
            >{end.bands || 'bands not stated'}{end.wanted === undefined ? '' : `, takes ${end.wanted}`}</span
          >
        </p>
        <ul class="mt-1">
          {#each end.antennas as a, i (i)}
            <li
              class="grid grid-cols-[84px_minmax(90px,1fr)_110px] gap-y-0.5 gap-x-2 items-center border-t border-t-line leading-tight px-0 py-1"
            >
              <BeamPlot pattern={a.pattern} label={`Pattern of ${a.label}: ${a.patternFrom || 'not stated'}`} />
              <span
                ><b>{a.label}</b><small class="block text-soft"
                  >{a.beam === undefined
                    ? 'beam not stated'
                    : a.beam >= 360
                      ? 'all round'
                      : `${a.beam}° wide`}{a.patternFrom === 'as stated'
                    ? ', pattern as stated'
                    : a.patternFrom === 'from its beam width'
                      ? ', drawn from that'
                      : ''}</small
                ></span
              >
              <span class="flex gap-1 items-center">
                <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
                  {#if a.hand === 'linear'}<path d="M11 2v18" class="turn" />{:else if a.hand}<path
                      d="M11 3a8 8 0 1 1 -8 8"
                      class="turn"
                      transform={a.hand === 'left-hand' ? 'translate(22 0) scale(-1 1)' : ''}
                    /><path
                      d="M0 13 L3 8 L7 12"
                      class="turn"
                      transform={a.hand === 'left-hand' ? 'translate(22 0) scale(-1 1)' : ''}
                    />{:else}<text x="6" y="17">?</text>{/if}
                </svg>{a.hand || 'hand not stated'}
              </span>
              <span class="flex col-[2/-1] flex-wrap gap-1">
                {#each a.bands as b (b.band)}<span
                    class="band border-2 border-dashed border-soft text-note px-2 py-0"
                    class:used={b.used}
                    >{b.label}
                    <small class="inline text-soft"
                      >{b.gainDBi === undefined ? '? dBi' : `${b.gainDBi} dBi`}{b.used ? '' : ', not used'}</small
                    ></span
                  >{/each}
              </span>
            </li>
          {:else}
            <li
              class="soft grid grid-cols-[84px_minmax(90px,1fr)_110px] gap-y-0.5 gap-x-2 items-center border-t border-t-line leading-tight px-0 py-1"
            >
              No antennas stated.
            </li>
          {/each}
        </ul>
        {#if n === 0 && view.picture.placed}<p class="soft">Placed {view.picture.placed}.</p>{/if}
        {#if n === 1 && view.picture.goggles}
          <div class="grid cols-fit-[150px] gap-y-1 gap-x-3 mt-1">
            {#each view.picture.ports as port, at (at)}
              <label>
                <span class="block text-soft">antenna {at + 1}</span>
                <select
                  class="w-full"
                  value=""
                  onchange={(e) => {
                    const picked = e.currentTarget.value;
                    e.currentTarget.value = '';
                    screw(port, at + 1, picked);
                  }}
                >
                  <option value="">{port.on ? (end.antennas[at]?.label ?? port.on) : 'nothing on it'}</option>
                  {#each port.choices as c, i (c.model + (c.from ?? ''))}<option value={String(i)}>{c.label}</option
                    >{/each}
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
  <div class="panel px-3.5 py-2.5">
    <p>
      <b>{s.says}</b>
      {#if s.betterDB > 0.05}Screw on: {s.best.join(', ')} (now {s.now.join(', ') || 'nothing'}).{/if}
    </p>
    {#if s.buy}<p>
        To buy if money is no matter: {s.buy.count} × {s.buy.label}, {signed(s.buy.dB, 1)} dB more, {priceOf(s.buy)}.
      </p>{/if}
    {#if s.thrift && s.thrift.label !== s.buy?.label}<p>
        Most for the money: {s.thrift.count} × {s.thrift.label}, {signed(s.thrift.dB, 1)} dB more, {priceOf(s.thrift)}.
      </p>{/if}
  </div>
{/each}

<style>
  li :global(svg[role='img']) {
    grid-row: span 2;
  }
  .band.used {
    border: 1.5px solid var(--accent);
    background: var(--accent-wash);
  }
  .turn {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  text {
    fill: var(--ink);
  }
</style>
