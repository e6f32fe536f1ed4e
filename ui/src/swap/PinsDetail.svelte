<script lang="ts">
  // Below the picture of the pins: the serial ports, the crimps to move, old
  // against new, what to solder, and the files to take along.
  import { Button } from 'flowbite-svelte';
  import { place, type Patch, type PinsView } from '../api/client.svelte';
  import Caution from '../lib/Caution.svelte';
  import { money } from '../lib/words';
  import LevelMark from '../lib/LevelMark.svelte';
  import Scroll from '../lib/Scroll.svelte';
  import type { Change } from './gates';
  import OutlinePicture from './OutlinePicture.svelte';
  import WireTable from './WireTable.svelte';
  import TakeNetlist from './TakeNetlist.svelte';
  import PinsPicture from './PinsPicture.svelte';

  interface Props {
    quad: string;
    pins: PinsView;
    onpick: (patch: Patch, says: string) => void;
    onchange: (how: Change, says: string) => void;
  }
  let { quad, pins, onpick, onchange }: Props = $props();
  const wrong = (p: PinsView['parts'][number]) =>
    p.wires.find((w) => w.level === 'unfit' || w.level === 'change')?.says ?? '';
  const kinds: Record<string, string> = { same: 'same', moved: 'moved', missing: 'missing', new: 'new' };
</script>

<div class="grid gap-2.5">
  {#if pins.hasPorts && pins.ports.ports.length + pins.ports.lost.length > 0}
    <section class="panel" aria-labelledby="ports">
      <h3 id="ports">Serial ports</h3>
      <p>{pins.ports.says}</p>
      <div class="scroll">
        <table class="rows">
          <thead
            ><tr><th scope="col">for</th><th scope="col">port</th><th scope="col">wires</th><th scope="col">why</th></tr
            ></thead
          >
          <tbody>
            {#each pins.ports.ports as p, i (i)}
              <tr
                ><th scope="row">{p.for}<small class="soft block font-normal">{p.label}</small></th><td class="mono"
                  >UART {p.uart}</td
                ><td>{p.moves === 0 ? 'none' : p.moves}</td><td>{p.why}</td></tr
              >
            {/each}
            {#each pins.ports.lost as p, i (i)}
              <tr class="text-unfit"
                ><th scope="row">{p.for}<small class="soft block font-normal">{p.label}</small></th><td>✕ none</td><td
                ></td><td
                  >{p.why.join('. ')}.{p.cures.length > 0 ? ` Would solve it: ${p.cures.join('; or ')}.` : ''}</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
      </div>
      {#each pins.ports.freed as f, i (i)}<p class="soft">Freed: {f}.</p>{/each}
    </section>
  {/if}
  {#if pins.outline}<OutlinePicture outline={pins.outline} />{/if}
  <WireTable {pins} {onchange} />
  {#if pins.depths.length > 0}
    <section class="panel" aria-labelledby="depths">
      <h3 id="depths">How far to wire it, and what brings the sticks</h3>
      <Scroll label="Ways to wire it">
        <table class="rows">
          <thead
            ><tr
              ><th scope="col">way</th><th scope="col">ports</th><th scope="col">wires</th><th scope="col">sticks</th
              ><th scope="col">costs</th><th scope="col">what it brings</th><th scope="col"
                ><span class="unseen">plan</span></th
              ></tr
            ></thead
          >
          <tbody>
            {#each pins.depths as d, i (i)}
              <tr>
                <th scope="row" class="sticky left-0 bg-sheet pr-2"
                  >{d.label}<small class="soft block font-normal">sticks by {d.sticks}</small><LevelMark
                    level={d.level}
                    word
                  /></th
                >
                <td class="mono whitespace-nowrap">{d.uarts.join(', ')}</td>
                <td class="mono">{d.wires}</td>
                <td class="whitespace-nowrap"
                  ><span class="mono">{d.lagMS === undefined ? 'not stated' : `${d.lagMS} ms late`}</span><small
                    class="soft block">{d.rangeKM === undefined ? 'reach not stated' : `reach ${d.rangeKM} km`}</small
                  ></td
                >
                <td class="min-w-25"
                  >{d.costs}{#if d.price !== undefined && d.currency}<small class="block"
                      >{money(d.price, d.currency)}</small
                    >{/if}{#if d.addsG}<small class="soft block">receiver {d.addsG} g</small>{/if}</td
                >
                <td class="text-note min-w-65"
                  >{d.gives.join(', ')}{#if d.without.length > 0}<span class="block"
                      ><b>Without:</b> {d.without.join(', ')}</span
                    >{/if}{#if d.adds}<b class="block">{d.adds}</b>{/if}</td
                >
                <td
                  >{#if d.chosen}<b>planned</b>{:else}<Button
                      size="xs"
                      color="alternative"
                      aria-label={`Plan ${d.label}, sticks by ${d.sticks}`}
                      onclick={() => onpick(d.patch, `Planned: ${d.label}, sticks by ${d.sticks}.`)}>Plan it so</Button
                    >{/if}</td
                >
              </tr>
            {/each}
          </tbody>
        </table>
      </Scroll>
    </section>
  {/if}
  {#if pins.parts.length > 0}
    <section class="panel" aria-labelledby="beside">
      <h3 id="beside">Wired beside the unit</h3>
      {#each pins.parts as p (p.node)}
        <details>
          <summary class="cursor-pointer min-h-7.5">
            <b>{p.label}</b>
            {#if p.rewired}<span class="kind new border border-line rounded text-small px-1.5 py-0">not as today</span
              >{/if}
            <span class={wrong(p) ? 'text-unfit font-bold' : 'soft'}
              >{wrong(p) || p.missing || `${p.wires.length} ${p.wires.length === 1 ? 'wire' : 'wires'}`}</span
            >
          </summary>
          <PinsPicture picture={p} />
        </details>
      {/each}
    </section>
  {/if}
  {#if pins.off.wires.length + pins.off.unplug.length + pins.off.insulate.length > 0}
    <section class="panel" aria-labelledby="off">
      <h3 id="off">Comes off, from today's wiring</h3>
      <ul class="list-disc pl-5">
        {#each pins.off.unplug as cable, i (i)}<li>Pull {cable}.</li>{/each}
        {#each pins.off.wires as w, i (i)}<li>
            {w.part}, {w.wire}: off {w.from}{w.colour ? ` (${w.colour})` : ''}
          </li>{/each}
        {#each pins.off.insulate as end, i (i)}<li><b>Insulate</b> {end}.</li>{/each}
      </ul>
      {#if pins.off.frees.length > 0}<p><b>Free afterwards:</b> {pins.off.frees.join(', ')}.</p>{/if}
      {#if pins.off.stays.length > 0}<p class="soft">Stays as it is: {pins.off.stays.join(', ')}.</p>{/if}
    </section>
  {/if}
  {#if pins.repins.length > 0}
    <section class="panel" aria-labelledby="repin">
      <h3 id="repin">Re-pin the cable</h3>
      {#each pins.repins as r, i (i)}
        <details open={i === 0}>
          <summary class="cursor-pointer min-h-7.5"><b>{r.says}</b></summary>
          <ol class="list-decimal mb-1.5 pl-5">
            {#each r.steps as s, k (k)}<li>{s}</li>{/each}
          </ol>
          <Button size="sm" onclick={() => onpick(r.patch, `Planned: ${r.says}.`)}>Plan it so</Button>
        </details>
      {/each}
    </section>
  {/if}
  {#if pins.changes.length > 0}
    <section class="panel" aria-labelledby="changes">
      <h3 id="changes">Today's wiring against the next, by function</h3>
      <ul class="grid gap-1 mb-1.5">
        {#each pins.changes as c (c.function)}
          <li>
            <b>{c.function}</b>
            <span class="kind {c.kind} border border-line rounded text-small px-1.5 py-0"
              >{kinds[c.kind] ?? c.kind}</span
            >
            {c.says}{#if c.colour}<span class="warn text-unfit font-bold ml-2">{c.colour}</span>{/if}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if pins.soldering.wires.length + pins.soldering.jumpers.length > 0}
    <section class="panel" aria-labelledby="solder">
      <h3 id="solder">To solder</h3>
      <div class="scroll">
        <table class="rows">
          <thead
            ><tr
              ><th scope="col">wire</th><th scope="col">to</th><th scope="col">colour</th><th scope="col">AWG</th><th
                scope="col">mm</th
              ><th scope="col">note</th></tr
            ></thead
          >
          <tbody>
            {#each pins.soldering.wires as w, i (i)}
              <tr
                ><th scope="row">{w.wire}<small class="soft block font-normal">{w.from}</small></th><td
                  >{w.to}{#if w.printed}<small class="soft block">{w.printed}</small
                    >{/if}{#if w.beside && w.beside.length > 0}<small class="block"
                      ><b>Beside it:</b> {w.beside.join('; ')}</small
                    >{/if}</td
                ><td>{w.colour}</td><td class="mono">{w.awg ?? ''}</td><td class="mono">{w.lengthMM ?? ''}</td><td
                  >{w.note}</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
      </div>
      {#each pins.soldering.jumpers as j, i (i)}<p>Solder jumper, {j}.</p>{/each}
      <p class="soft">
        Lengths hold a little slack for a second try. {pins.soldering.materials.length > 0
          ? `Also: ${pins.soldering.materials.join(', ')}.`
          : ''}
      </p>
      <Caution>Pack unplugged, hot iron and fumes. Meter every pair before a pack goes in.</Caution>
    </section>
  {/if}
  {#each pins.headers as h, i (i)}
    <p class="panel note"><b>Header on the {h.plug}:</b> {h.fits ? '✓ ' : ''}{h.says}.</p>
  {/each}
  {#if pins.taken.length > 0}
    <section class="panel" aria-labelledby="taken">
      <h3 id="taken">From analog: what goes out, what it frees</h3>
      <ul class="list-disc mb-1.5 pl-5">
        {#each pins.taken as t, i (i)}<li>{t}</li>{/each}
      </ul>
    </section>
  {/if}
  {#if pins.picture.wires.length > 0}
    <p class="flex flex-wrap gap-y-1 gap-x-4.5">
      <span class="soft">Take along:</span>
      <a href={`${place}/api/quads/${quad}/wiring.svg`} download>picture (SVG)</a>
      <a href={`${place}/api/quads/${quad}/wiring.csv`} download>netlist (CSV)</a>
      <a href={`${place}/api/quads/${quad}/soldering.csv`} download>soldering list (CSV)</a>
      <a href={`${place}/api/quads/${quad}/circuit.net`} download>circuit (netlist of circuit editors)</a>
      <a href={`#/bench/${quad}`}>meter each pair on the bench</a>
    </p>
    <TakeNetlist {quad} {onpick} />
  {/if}
</div>

<style>
  section,
  .note {
    padding: 0.6rem 0.9rem;
    display: grid;
    gap: 0.3rem;
    min-width: 0;
  }
  .note {
    display: block;
  }
  .kind.moved,
  .kind.new {
    border-color: var(--change);
    color: var(--change);
  }
  .kind.missing {
    border-color: var(--unfit);
    color: var(--unfit);
  }
</style>
