<script lang="ts">
  // Sticks as bars, switches as lights, the battery: moved while one looks.
  import { untrack } from 'svelte';
  import { api, type BoardLive } from '../api/client.svelte';
  import Flip from './Flip.svelte';
  import { percentScale } from '../lib/scale';
  import { fixed } from '../lib/words';

  let { quad, address }: { quad: string; address: string } = $props();
  let on = $state(false);
  let live = $state.raw<BoardLive | null>(null);
  let lost = $state('');
  // The switch finder has the board hold its arming off, and lets go of it in the end.
  let hold = $state(false);
  let holding = false;
  const wanted = () => untrack(() => hold) || (holding ? false : undefined);
  // How far each channel has gone since the check began.
  let reach = $state.raw<{ low: number; high: number }[]>([]);

  $effect(() => {
    if (!on || !address) return;
    let going = true;
    reach = [];
    lost = '';
    void (async () => {
      while (going) {
        const answer = await api.liveBoard(quad, address, wanted());
        if (!going) break;
        if (!answer.ok) {
          lost = answer.failure.detail;
          on = hold = false;
          break;
        }
        live = answer.data;
        holding = live.held;
        reach = answer.data.channels.map((us, i) => ({
          low: Math.min(us, reach[i]?.low ?? us),
          high: Math.max(us, reach[i]?.high ?? us),
        }));
        await new Promise((done) => setTimeout(done, 120));
      }
      if (holding) void api.liveBoard(quad, address, false);
      holding = false;
    })();
    return () => {
      going = hold = false; // whoever starts again says anew that the props are off
    };
  });
  let stored = $state('');
  // The shortest travel of the four sticks, once each has moved.
  const travel = $derived(reach.length >= 4 ? Math.min(...reach.slice(0, 4).map((r) => r.high - r.low)) : 0);
  async function store() {
    if (!live) return;
    const says: string[] = [];
    for (const [step, value, label] of [
      [live.sticksStep, travel, `shortest travel ${travel} µs`],
      [live.voltageStep, live.volts, `${fixed(live.volts, 2)} V`],
    ] as const) {
      const answer = await api.confirm(quad, step, true, value);
      const state = answer.ok ? answer.data.states.find((s) => s.id === step) : undefined;
      says.push(
        answer.ok
          ? `${label}: ${state?.state === 'done' ? 'in the bench sheet' : (state?.says ?? 'in the bench sheet')}`
          : `${label}: ${answer.failure.detail}`,
      );
    }
    stored = says.join('; ') + '.';
  }
  const names = ['roll', 'pitch', 'yaw', 'throttle'];
  const travelled = percentScale(900, 2100).clamp(true);
  const at = (us: number) => `${travelled(us)}%`;
</script>

<section class="panel mb-3 px-4 py-3" aria-labelledby="live">
  <h2 id="live">Check it live</h2>
  <p class="soft">
    Props off. Move every stick to its ends, throw every switch: 1000 to 2000, the right way round. Then switch the
    controller off: the failsafe must come in.
  </p>
  <button type="button" class="button" aria-pressed={on} onclick={() => (on = !on)}>{on ? 'Stop' : 'Start'}</button>
  {#if lost}<p role="alert">{lost}</p>{/if}
  {#if live}
    <p class="mx-0 my-1.5">
      <b class:armed={live.armed}>{live.armed ? '! armed' : '✓ not armed'}</b>
      <span class="mono">{fixed(live.volts, 2)} V</span>
    </p>
    {#if live.modes.length > 0}
      <p class="lights flex flex-wrap gap-y-1 gap-x-2.5">
        {#each live.modes as m (m.mode + String(m.aux))}<span
            class="border-2 border-line text-soft px-2.5 py-0.5"
            class:on={m.on}
            ><i aria-hidden="true">{m.on ? '●' : '○'}</i>
            {m.mode.replaceAll('-', ' ')} <small>AUX {m.aux}, {m.on ? 'on' : 'off'}</small></span
          >{/each}
      </p>
    {/if}
    <ul>
      {#each live.channels as us, i (i)}
        <li class="grid grid-cols-[70px_minmax(80px,1fr)_80px_110px] gap-2.5 items-center min-h-7.5">
          <span>{names[i] ?? `AUX ${i - 3}`}</span>
          <span class="relative h-4.5 border border-soft bg-raised"
            ><i
              class="reach"
              style:left={at(reach[i]?.low ?? us)}
              style:right={`calc(100% - ${at(reach[i]?.high ?? us)})`}
            ></i><i class="now" style:left={at(us)}></i></span
          >
          <span class="mono">{us} µs</span>
          <span class="soft">{reach[i] ? `${reach[i].low} to ${reach[i].high}` : ''}</span>
        </li>
      {/each}
    </ul>
    <p>
      <button type="button" class="button" onclick={store}>Put these readings into the bench sheet</button>
      <span class="soft">shortest travel so far {travel} µs</span>
    </p>
    {#if stored}<p role="status">{stored}</p>{/if}
    {#if on}<Flip {quad} {live} bind:hold />{/if}
  {/if}
</section>

<style>
  .armed {
    color: var(--unfit);
  }
  .lights span.on {
    border-color: var(--fits);
    background: var(--fits-wash);
    color: var(--ink);
    font-weight: 700;
  }
  .reach {
    position: absolute;
    top: 0;
    bottom: 0;
    background: var(--accent-wash);
  }
  .now {
    position: absolute;
    top: -3px;
    bottom: -3px;
    border-left: 5px solid var(--accent);
    margin-left: -2px;
  }
  @media (max-width: 560px) {
    li {
      grid-template-columns: 64px minmax(60px, 1fr) 72px;
    }
    li span:last-child {
      display: none;
    }
  }
</style>
