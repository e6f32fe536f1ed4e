<script lang="ts">
  // One quad: now on the left, next on the right, the gates between them. Every
  // pick and every fix is the same small patch to the next fit.
  import { untrack } from 'svelte';
  import { MediaQuery } from 'svelte/reactivity';
  import { push } from 'svelte-spa-router';
  import { api, type Failure, type Finding, type Fix, type Patch, type QuadView } from '../api/client.svelte';
  import ConflictNote from '../lib/ConflictNote.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { typing } from '../lib/keys';
  import LevelMark from '../lib/LevelMark.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import Afterwards from '../lib/Afterwards.svelte';
  import FindingCard from './FindingCard.svelte';
  import NextPicks from './NextPicks.svelte';
  import NowColumn from './NowColumn.svelte';
  import { gateParts, type Change, type Part } from './gates';

  let { params }: { params: { quad: string; gate?: string } } = $props();

  const quad = new Loaded<QuadView>();
  // On a phone the worst finding and its fix come first, the picture after them.
  const narrow = new MediaQuery('max-width: 700px');
  let refused = $state.raw<{ failure: Failure; change?: Change } | null>(null);
  let done = $state('');
  let last = $state(0); // the change that is taken back in one press

  // Only another quad loads anew; another gate of the same quad does not.
  const id = $derived(params.quad);
  $effect(() => {
    const quadID = id;
    untrack(() => {
      refused = null;
      done = '';
      last = 0;
      quad.data = null;
      void quad.take(api.quad(quadID));
    });
  });

  const gates = $derived(quad.data?.judgement.gates ?? []);
  const gate = $derived(
    gates.find((g) => g.gate === params.gate) ?? gates.find((g) => g.level === quad.data?.judgement.level) ?? gates[0],
  );
  // The finding above whose fixes are the same: they are offered once.
  function sameFixes(findings: Finding[], at: number): Finding | undefined {
    const ways = (f: Finding) => (f.fixes ?? []).map((x) => x.says).join('\n');
    const own = ways(findings[at]!);
    return own === '' ? undefined : findings.slice(0, at).find((f) => ways(f) === own);
  }

  // One change after another: the next is sent on the revision the last one made.
  let queue: Promise<void> = Promise.resolve();
  function change(how: Change, says: string, onTopOf?: number) {
    queue = queue.then(() => send(how, says, onTopOf));
  }

  const apply = (patch: Patch, says: string) => change((id, revision) => api.plan(id, revision, patch), says);

  async function send(how: Change, says: string, onTopOf?: number) {
    const shown = quad.data;
    if (!shown) return;
    const answer = await how(shown.id, onTopOf ?? shown.revision);
    if (answer.ok) {
      quad.data = answer.data;
      refused = null;
      done = says;
      last = answer.data.revision;
    } else {
      refused = { failure: answer.failure, change: how };
      done = '';
    }
  }

  function applyFix(fix: Fix) {
    apply(fix.patch, `Done: ${fix.says}.`);
  }

  async function takeBack() {
    const answer = await api.undo(last);
    if (!answer.ok) {
      refused = { failure: answer.failure };
      return;
    }
    last = 0;
    if (await quad.take(api.quad(params.quad))) done = 'Taken back.';
  }

  /** What was missing has been entered where it stood. */
  async function noted(says: string) {
    if (await quad.take(api.quad(params.quad))) [done, last] = [says, 0];
  }

  async function setRegion(region: string) {
    const answer = await api.setRegion(quad.data?.antenna.region ?? '', region);
    if (answer.ok) await quad.take(api.quad(params.quad));
    else refused = { failure: answer.failure };
  }

  async function screwOn(...[kit, port, was, model, from]: Parameters<typeof api.screwOn>) {
    const answer = await api.screwOn(kit, port, was, model, from);
    if (!answer.ok) refused = { failure: answer.failure };
    else {
      refused = null;
      done = model ? 'Done: the other antenna is on.' : 'Done: the antenna is off.';
      await quad.take(api.quad(params.quad));
    }
  }

  async function keepTheirs() {
    refused = null;
    await quad.take(api.quad(params.quad));
  }

  function onkeydown(event: KeyboardEvent) {
    if (typing(event) || !quad.data) return;
    const chosen = gates[Number(event.key) - 1];
    if (chosen) void push(`/swap/${quad.data.id}/${chosen.gate}`);
    else if (event.key === 'b') void push(`/bench/${quad.data.id}`);
  }
</script>

<svelte:window {onkeydown} />

{#snippet piece(part: Part | undefined, q: QuadView)}
  {#if part}
    {#key q.id}<part.component {...part.props(q, { apply, change, setRegion, screwOn })} />{/key}
  {/if}
{/snippet}

{#if quad.failure}
  <FailureNote failure={quad.failure} again={() => quad.take(api.quad(params.quad))} />
{:else if !quad.data}
  <p class="soft" role="status">Judging {params.quad}…</p>
{:else}
  {@const q = quad.data}
  <div class="title">
    <h1>{q.name}</h1>
    <p class="soft">{q.use}</p>
    <span class="self-center"><LevelMark level={q.judgement.level} size={26} word /></span>
    <a class="ml-auto min-h-8 inline-flex items-center" href={`#/candidates/${q.id}`}>What could go on it</a>
    <a class="min-h-8 inline-flex items-center" href={`#/fill/${q.id}/plan`}>Its parts</a>
    <a class="min-h-8 inline-flex items-center" href={`#/turns/${q.id}`}>In turn</a>
    <a class="font-bold border-2 border-accent rounded no-underline px-3.5 py-1.5" href={`#/bench/${q.id}`}
      >Bench sheet</a
    >
  </div>
  {#if refused?.failure.conflict}
    {@const mine = refused.change}
    <ConflictNote
      conflict={refused.failure.conflict}
      {keepTheirs}
      applyMine={(revision) => mine && change(mine, 'Applied on top of what was there.', revision)}
    />
  {:else if refused}
    <FailureNote failure={refused.failure} />
  {/if}
  <div class="yoke grid grid-cols-[210px_minmax(0,1fr)_270px] items-start mt-2">
    <div class="now"><NowColumn fit={q.now} level={q.nowLevel} /></div>
    <div class="between">
      <nav aria-label="Gates" class="line flex relative justify-around h-18">
        {#each gates as g, i (g.gate)}
          <a
            class="relative grid justify-items-center gap-px content-start text-ink no-underline h-17.5 px-4 pt-2.5 pb-0"
            href={`#/swap/${q.id}/${g.gate}`}
            aria-current={g.gate === gate?.gate ? 'true' : undefined}
          >
            <LevelMark level={g.level} size={30} />
            <span><kbd class="font-mono text-soft text-[0.85em]" aria-hidden="true">{i + 1}</kbd> {g.title}</span>
          </a>
        {/each}
      </nav>
      {#if gate}
        <section class="gate grid gap-2.5 px-5 pt-2.5 pb-0" aria-label={`Gate ${gate.title}`}>
          <h2>{gate.question}</h2>
          {#if !narrow.current}{@render piece(gateParts[gate.gate]?.picture, q)}{/if}
          <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
            <p class="done good" aria-live="polite">{done}</p>
            {#if done && last > 0}<button type="button" class="button" onclick={takeBack}>Take it back</button>{/if}
          </div>
          <div class="grid gap-2">
            {#each gate.findings as f, i (f.code + f.subject + i)}
              <FindingCard
                finding={f}
                open={i === 0}
                fixedWith={sameFixes(gate.findings, i)}
                onfix={applyFix}
                quad={q.id}
                onanswered={noted}
              />
            {/each}
          </div>
          {#if narrow.current}{@render piece(gateParts[gate.gate]?.picture, q)}{/if}
          {#key gate.gate}<Afterwards>{@render piece(gateParts[gate.gate]?.below, q)}</Afterwards>{/key}
        </section>
      {/if}
    </div>
    <div class="next">
      <NextPicks folded={narrow.current} places={q.places} onpick={(patch, says) => apply(patch, says)} />
    </div>
  </div>
{/if}

<style>
  .line::before {
    content: '';
    position: absolute;
    left: 0;
    right: 0;
    top: 24px;
    border-top: 4px solid var(--ink);
  }
  .line a[aria-current] {
    font-weight: 750;
  }
  .line a[aria-current]::after {
    content: '';
    position: absolute;
    left: 20%;
    right: 20%;
    bottom: 0;
    border-bottom: 4px solid var(--accent);
  }
  .done:empty {
    display: none;
  }
  @media (max-width: 640px) {
    .line a {
      padding: 9px 0.4rem 0;
    }
    kbd {
      display: none;
    }
  }
  @media (max-width: 1000px) {
    .yoke {
      grid-template-columns: minmax(0, 1fr);
      gap: 1rem;
    }
    .next {
      order: 0;
    }
    .between {
      order: 1;
    }
    .now {
      order: 2;
    }
    .gate {
      padding: 0.6rem 0 0;
    }
  }
</style>
