<script lang="ts">
  // The ways to add something: on a quad's picture, from the trade shelf, from a file, or
  // by all its details.
  import Card from '../lib/Card.svelte';
  import type { Form } from './forms';

  let { kinds }: { kinds: Form[] } = $props();

  // As a builder looks for them; a kind that is in none comes last.
  const shelves: { name: string; kinds: string[] }[] = [
    { name: 'On the quad', kinds: ['airUnit', 'board', 'receiver', 'part', 'antenna', 'frame', 'pack', 'regulator'] },
    { name: 'In the hand', kinds: ['goggles', 'controller', 'kit'] },
    { name: 'What goes together', kinds: ['pairing', 'flightFirmware', 'region', 'bandPlan'] },
    { name: 'To prove it', kinds: ['course', 'testFlight', 'task'] },
    {
      name: 'Small parts',
      kinds: [
        'connector',
        'harness',
        'header',
        'adapter',
        'plate',
        'bracket',
        'readyQuad',
        'capacitor',
        'screw',
        'washer',
        'standoff',
        'spare',
      ],
    },
  ];
  const listed = new Set([...shelves.flatMap((s) => s.kinds), 'quad']);
  const groups = $derived(
    [...shelves, { name: 'Other', kinds: kinds.map((k) => k.kind).filter((k) => !listed.has(k)) }]
      .map((s) => ({ name: s.name, kinds: s.kinds.flatMap((kind) => kinds.filter((k) => k.kind === kind)) }))
      .filter((s) => s.kinds.length > 0),
  );
  const button = 'button main inline-flex items-center no-underline';
</script>

<div class="grid cols-fit-[300px] gap-4 items-start">
  <Card title="A quad, and what is on it">
    <p class="soft">Each part is put in on a picture of the quad; what is new gets its entry by itself.</p>
    <p class="buttons">
      <a class={button} href="#/begin/quad">Begin a quad</a> <a href="#/begin/link">Ask whether two link</a>
    </p>
  </Card>
  <Card title="Something everybody knows">
    <p class="soft">Screws, packs, connectors, wire, common shapes: copied from the trade shelf, with their sources.</p>
    <p><a class={button} href="#/shelf/trade">Look on the trade shelf</a></p>
  </Card>
  <Card title="A gear pack somebody made">
    <p class="soft">You see what it changes, and for whose quads, before it is taken in.</p>
    <p><a class={button} href="#/shelf/files">Take a file in</a></p>
  </Card>
  <Card title="A table you keep">
    <p class="soft">Counts, prices and pieces of kit out of a spreadsheet, each row seen before it is taken.</p>
    <p><a class={button} href="#/shelf/table">Read a table</a></p>
  </Card>
</div>
<section class="panel mt-4 px-5 py-4" aria-labelledby="by-hand">
  <h2 id="by-hand">One entry, from its sheet or by hand</h2>
  <dl class="grid grid-cols-[max-content_minmax(0,1fr)] max-sm:grid-cols-1 gap-x-5 gap-y-1 mt-2">
    {#each groups as g (g.name)}
      <dt class="text-soft pt-1.5">{g.name}</dt>
      <dd class="flex flex-wrap gap-x-4">
        {#each g.kinds as k (k.kind)}
          <a class="inline-flex items-center min-h-9 max-sm:min-h-11" href={`#/shelf/add/${k.kind}`}>{k.word}</a>
        {/each}
      </dd>
    {/each}
    <dt class="text-soft pt-1.5">Whole</dt>
    <dd>
      <a class="inline-flex items-center min-h-9 max-sm:min-h-11" href="#/shelf/add/quad">a quad with all its details</a
      >
    </dd>
  </dl>
</section>
