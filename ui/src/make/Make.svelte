<script lang="ts">
  // A part that is made: its dimensions, as far as the quad states them, the part in 3D and
  // flat, and the files for a printer, a drill or a cutter. The dimensions stand in the
  // address.
  import { untrack } from 'svelte';
  import { replace, router } from 'svelte-spa-router';
  import { api, place, type Made, type MakeView } from '../api/client.svelte';
  import Caution from '../lib/Caution.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { fixed } from '../lib/words';
  import Solid from './Solid.svelte';

  let { params }: { params: { quad?: string; part?: string } } = $props();

  const quad = $derived(params.quad ?? '');
  const offers = new Loaded<MakeView>();
  const made = new Loaded<Made>();
  $effect(() => {
    const of = quad;
    untrack(() => void offers.take(api.makeable(of)));
  });
  const offer = $derived(offers.data?.offers.find((o) => o.part === params.part) ?? offers.data?.offers[0]);
  const entered = $derived(
    Object.fromEntries(
      (new URLSearchParams(router.querystring ?? '').get('of') ?? '')
        .split(',')
        .filter(Boolean)
        .map((pair) => pair.split(':') as [string, string]),
    ),
  );
  const valueOf = (p: MakeView['offers'][number]['params'][number]) => entered[p.id] ?? p.value?.toString() ?? '';
  // What is drawn: all dimensions that have a value.
  const of = $derived(
    (offer?.params ?? [])
      .filter((p) => valueOf(p) !== '')
      .map((p) => `${p.id}:${valueOf(p)}`)
      .join(','),
  );
  $effect(() => {
    const [part, dimensions] = [offer?.part, of];
    if (part) untrack(() => void made.take(api.makePart(part, dimensions)));
  });

  function enter(id: string, text: string) {
    const all = { ...entered, [id]: text.trim().replace(',', '.') };
    const list = Object.entries(all)
      .filter(([, v]) => v !== '') // what is cleared is as the quad states it
      .map(([k, v]) => `${k}:${v}`)
      .join(',');
    void replace(`/make/${quad}/${offer?.part}?of=${encodeURIComponent(list)}`);
  }
  const file = (name: string) => `${place}/api/make/${offer?.part}/${name}?of=${encodeURIComponent(of)}`;
  const files = [
    { name: 'part.stl', label: 'STL', title: 'for a printer' },
    { name: 'part.3mf', label: '3MF', title: 'for a printer' },
    { name: 'part.svg', label: 'SVG 1:1', title: 'for a cutter' },
    { name: 'part.dxf', label: 'DXF 1:1', title: 'for a cutter or a drill' },
  ];
  const problemOf = (id: string) => made.data?.problems.find((p) => p.param === id);
  const loose = $derived((made.data?.problems ?? []).filter((p) => !offer?.params.some((d) => d.id === p.param)));
  const sound = $derived(made.data !== null && made.data.problems.length === 0);
</script>

{#if offers.failure}<FailureNote failure={offers.failure} again={() => offers.take(api.makeable(quad))} />{/if}
{#if offers.data && offer}
  <div class="title screen-only">
    <h1>Make a part for {offers.data.name}</h1>
    <a href={`#/swap/${quad}/mount`}>Mount gate</a>
  </div>
  <nav class="flex flex-wrap gap-1 mb-2 screen-only" aria-label="Parts to make">
    {#each offers.data.offers as o (o.part)}
      <a
        class="no-underline border-b-3 border-b-transparent aria-[current]:border-b-accent aria-[current]:font-bold min-h-10 px-3.5 py-1.5"
        href={`#/make/${quad}/${o.part}`}
        aria-current={o.part === offer.part ? 'page' : undefined}>{o.title}</a
      >
    {/each}
  </nav>
  <div class="grid gap-4 items-start min-[900px]:grid-cols-[minmax(16rem,22rem)_minmax(0,1fr)] screen-only">
    <section class="panel grid gap-2 px-5 py-4" aria-labelledby="dimensions">
      <h2 id="dimensions">Dimensions</h2>
      <p class="soft text-note">{offer.about}</p>
      {#each offer.params as p (offer.part + p.id)}
        {@const wrong = problemOf(p.id)}
        <label class="grid gap-0.5">
          <span>{p.label}<span class="soft">{p.unit ? ` in ${p.unit}` : ''}</span></span>
          <input
            inputmode="decimal"
            value={valueOf(p)}
            aria-invalid={wrong ? 'true' : undefined}
            aria-describedby={wrong ? `wrong-${p.id}` : undefined}
            onchange={(e) => enter(p.id, e.currentTarget.value)}
          />
          {#if wrong}<span id={`wrong-${p.id}`} class="bad text-note first-letter:uppercase">{wrong.says}</span>{/if}
        </label>
      {/each}
    </section>
    <div class="grid gap-3">
      <div aria-live="polite" class="contents">
        {#if made.failure}<FailureNote
            failure={made.failure}
            again={() => made.take(api.makePart(offer.part, of))}
          />{/if}
        {#each loose as p (p.says)}<p class="bad first-letter:uppercase">{p.says}.</p>{/each}
        {#if made.data && !sound}<p>It is drawn once its dimensions hold.</p>{/if}
      </div>
      {#if made.data && sound}
        {@const m = made.data}
        <section class="panel grid gap-2 px-5 py-4" aria-labelledby="drawn">
          <h2 id="drawn">{m.title}</h2>
          <Solid src={file('part.stl')} label={`${m.title}, in 3D`} />
          <img
            src={file('part.svg')}
            alt={`${m.title}: its flat pieces with their holes`}
            class="flat bg-white max-w-full"
          />
          <ul>
            {#each m.sheets as s (s.name)}
              <li class="border-t border-t-line py-1 first-letter:uppercase">
                {s.name}: {fixed(s.xMM, 1)} × {fixed(s.yMM, 1)} mm, {fixed(s.thickMM, 1)} mm thick; {fixed(s.wallMM, 1)} mm
                at its thinnest
              </li>
            {/each}
            <li class="border-t border-t-line py-1">
              {fixed(m.volumeMM3 / 1000, 2)} cm³: about {fixed(m.massG, 1)} g, printed full of a usual plastic
            </li>
          </ul>
          {#each m.notes as note (note)}<Caution>{note}</Caution>{/each}
          <p class="flex flex-wrap gap-2">
            {#each files as f (f.name)}<a
                class="button inline-flex items-center"
                href={file(f.name)}
                download
                title={f.title}>{f.label}</a
              >{/each}
            <a class="button inline-flex items-center" href={file('template.svg')} download>Template</a>
            <button type="button" class="button main" onclick={() => window.print()}>Print the template</button>
          </p>
          <p class="soft text-note">
            Print it at 100 %, without fitting it to the page, and measure the ruler before you drill. Dust of carbon is
            bad for lungs and boards: wet it, mask on, vacuum after.
          </p>
        </section>
      {/if}
    </div>
  </div>
  {#if sound}<img src={file('template.svg')} alt="" class="paper" />{/if}
{:else if !offers.failure}<p class="soft" role="status">One moment…</p>{/if}

<style>
  .flat {
    max-height: 60mm;
    justify-self: start;
  }
  .paper {
    display: none;
  }
  @media print {
    .paper {
      display: block;
    }
  }
</style>
