<script lang="ts">
  import { onMount } from 'svelte';
  import Router, { push, router } from 'svelte-spa-router';
  import { wrap } from 'svelte-spa-router/wrap';
  import { door, place } from './api/client.svelte';
  import Start from './begin/Start.svelte';
  import Bench from './bench/Bench.svelte';
  import Fleet from './fleet/Fleet.svelte';
  import Door from './lib/Door.svelte';
  import { everywhere, typing } from './lib/keys';
  import NotFound from './lib/NotFound.svelte';
  import Slow from './lib/Slow.svelte';
  import { switchTheme, theme } from './lib/theme.svelte';
  import Route from './route/Route.svelte';
  import Swap from './swap/Swap.svelte';

  // What is not needed at first is fetched once the first screen stands, so that it
  // is there even if the program is stopped meanwhile.
  const later = {
    board: () => import('./board/Board.svelte'),
    fault: () => import('./fault/Fault.svelte'),
    album: () => import('./photos/Album.svelte'),
    together: () => import('./fleet/Together.svelte'),
    rehearse: () => import('./route/Rehearse.svelte'),
    shopping: () => import('./route/Shopping.svelte'),
    walk: () => import('./route/Walk.svelte'),
    shelf: () => import('./shelf/Shelf.svelte'),
    goggles: () => import('./bench/Goggles.svelte'),
    day: () => import('./bench/Day.svelte'),
    changes: () => import('./shelf/Changes.svelte'),
    about: () => import('./about/About.svelte'),
    links: () => import('./route/Links.svelte'),
    link: () => import('./begin/LinkQuestion.svelte'),
    newQuad: () => import('./begin/NewQuad.svelte'),
    fill: () => import('./begin/Fill.svelte'),
    turns: () => import('./turns/Turns.svelte'),
    make: () => import('./make/Make.svelte'),
    decide: () => import('./decide/Decide.svelte'),
    scenarios: () => import('./decide/Scenarios.svelte'),
    candidates: () => import('./decide/Candidates.svelte'),
    against: () => import('./decide/TwoQuads.svelte'),
    prove: () => import('./prove/Prove.svelte'),
    fly: () => import('./prove/Fly.svelte'),
    log: () => import('./prove/Log.svelte'),
    tasks: () => import('./prove/Tasks.svelte'),
    hours: () => import('./prove/Hours.svelte'),
  };
  const asked = (load: () => Promise<unknown>) => wrap({ asyncComponent: load as never });
  onMount(() => {
    const timer = setTimeout(() => void Promise.allSettled(Object.values(later).map((load) => load())), 400);
    return () => clearTimeout(timer);
  });

  const routes = {
    '/': Fleet,
    '/swap/:quad/:gate?': Swap,
    '/together': asked(later.together),
    '/route/:way?': Route,
    '/walk/:way?': asked(later.walk),
    '/rehearse': asked(later.rehearse),
    '/bench/:quad?': Bench,
    '/bench-day': asked(later.day),
    '/board/:quad': asked(later.board),
    '/fault/:quad': asked(later.fault),
    '/photos/:quad': asked(later.album),
    '/shopping': asked(later.shopping),
    '/shelf/:tab?/:kind?/:id?': asked(later.shelf),
    '/about': asked(later.about),
    '/links/:unit?/:goggles?': asked(later.links),
    '/begin': Start,
    '/begin/link/:quad?': asked(later.link),
    '/begin/quad/:story?': asked(later.newQuad),
    '/fill/:quad/:side?/:slot?': asked(later.fill),
    '/turns/:quad': asked(later.turns),
    '/make/:quad/:part?': asked(later.make),
    '/candidates/:quad': asked(later.candidates),
    '/against': asked(later.against),
    '/decide': asked(later.decide),
    '/scenarios': asked(later.scenarios),
    '/prove': asked(later.prove),
    '/prove/fly/:flight/:spot?': asked(later.fly),
    '/log': asked(later.log),
    '/tasks': asked(later.tasks),
    '/hours': asked(later.hours),
    '/goggles/:kit': asked(later.goggles),
    '*': NotFound,
  };
  const places = [
    {
      name: 'Fleet',
      at: '/',
      starts: ['/', '/swap', '/together', '/begin', '/fill', '/turns', '/make'],
    },
    { name: 'Decide', at: '/decide', starts: ['/decide', '/candidates', '/against', '/scenarios'] },
    { name: 'Route', at: '/route', starts: ['/route', '/rehearse', '/links'] },
    {
      name: 'Bench',
      at: '/bench',
      starts: ['/bench', '/board', '/fault', '/photos', '/walk', '/shopping', '/goggles'],
    },
    { name: 'Prove', at: '/prove', starts: ['/prove', '/log', '/tasks', '/hours'] },
    { name: 'Shelf', at: '/shelf', starts: ['/shelf', '/about'] },
  ];
  const screenKeys = [
    { keys: '↓ ↑ or j k', does: 'Fleet: next or previous quad; Bench: next or previous step' },
    { keys: 'Enter', does: 'Fleet: open the quad' },
    { keys: '1 to 7', does: 'Swap: link, power, pins, mount, antenna, OSD or control gate' },
    { keys: 'b', does: 'Swap: its bench sheet' },
  ];

  let list: HTMLDialogElement | undefined = $state();
  // What was changed, to be taken back from wherever one is; the screen beneath is made anew.
  let changes: HTMLDialogElement | undefined = $state();
  let looking = $state(false);
  let epoch = $state(0);
  function showChanges() {
    looking = true;
    changes?.showModal();
  }
  let afterG = false;

  function here(starts: string[]): boolean {
    return starts.some((s) => (s === '/' ? router.location === '/' : router.location.startsWith(s)));
  }

  function onkeydown(event: KeyboardEvent) {
    if (typing(event)) return;
    if (afterG) {
      afterG = false;
      const to = { f: '/', d: '/decide', r: '/route', b: '/bench', p: '/prove', s: '/shelf' }[event.key];
      if (to) void push(to);
      return;
    }
    if (event.key === 'g') afterG = true;
    else if (event.key === 't') switchTheme();
    else if (event.key === 'u' && !changes?.open) showChanges();
    else if (event.key === '?' && !list?.open) list?.showModal();
  }

  const tool = 'text-[#d5dedd] border border-[#48626c] rounded px-2.5 py-1 min-h-8 min-w-9 text-note';
</script>

<svelte:window {onkeydown} />

<a
  class="absolute -left-250 focus:left-2 focus:top-2 z-10 bg-raised p-2"
  href="#content"
  onclick={(e) => {
    e.preventDefault();
    document.getElementById('content')?.focus();
  }}>Skip to the content</a
>
<header
  class="screen-only flex items-stretch gap-x-8 gap-y-4 min-h-12 px-5 max-sm:flex-wrap max-sm:gap-0 max-sm:px-2.5 bg-[#17313b] text-[#f4efe4]"
>
  <a
    class="flex items-center gap-2.5 max-sm:min-h-11 text-inherit no-underline font-bold text-body whitespace-nowrap"
    href="#/"
    ><img class="border border-[#48626c] rounded-md" src="/yoke.svg" alt="" width="26" height="26" />Yoke Swap</a
  >
  <nav class="flex gap-1 max-sm:order-3 max-sm:basis-full" aria-label="Main">
    {#each places as p (p.at)}
      <a
        class="flex items-center px-4 max-sm:px-1.5 no-underline border-y-4 border-transparent text-[#d5dedd] hover:text-white aria-[current]:text-white aria-[current]:font-bold aria-[current]:border-b-[#e0a63a] max-sm:flex-1 max-sm:justify-center max-sm:min-h-11 max-sm:border-t-0"
        href={'#' + p.at}
        aria-current={here(p.starts) ? 'page' : undefined}>{p.name}</a
      >
    {/each}
  </nav>
  <div class="flex items-center gap-2 ml-auto">
    <button type="button" class={tool} onclick={showChanges}>Changes</button>
    <button type="button" class={tool} onclick={switchTheme}>{theme() === 'dark' ? 'Light' : 'Dark'}</button>
    <button type="button" class={tool} onclick={() => list?.showModal()} aria-label="Keys"
      ><kbd class="font-mono font-semibold whitespace-nowrap">?</kbd></button
    >
  </div>
</header>
{#if place !== ''}
  <aside
    class="screen-only flex flex-wrap items-center gap-x-4 gap-y-1 bg-caution-wash text-ink px-5 py-1.5"
    aria-label="The demo"
  >
    <strong>The demo, in a place of its own.</strong> Nothing here is yours, and nothing of yours is here.
    <a class="ml-auto font-bold min-h-8 inline-flex items-center" href="/">Leave the demo</a>
  </aside>
{/if}
<main class="max-w-[1360px] mx-auto px-5 pt-4 pb-8 max-sm:px-2.5 outline-none" id="content" tabindex="-1">
  {#if door.shut}<Door />{:else}{#key epoch}<Router {routes} restoreScrollState={true} />{/key}{/if}
</main>
<Slow />

<dialog
  bind:this={changes}
  class="panel w-[min(44rem,94vw)] max-h-[86vh] overflow-y-auto text-ink m-auto px-5.5 pt-4 pb-5"
  aria-label="What was changed"
  onclose={() => (looking = false)}
>
  {#if looking}
    {#await later.changes() then { default: Changes }}<Changes ontaken={() => epoch++} />{/await}
  {/if}
  <button type="button" class="button mt-3" onclick={() => changes?.close()}>Close</button>
</dialog>
<dialog bind:this={list} class="panel max-w-[min(34rem,94vw)] text-ink m-auto px-5.5 pt-4 pb-5" aria-labelledby="keys">
  <h2 id="keys">Keys</h2>
  <table>
    <tbody>
      {#each [...everywhere, ...screenKeys] as k (k.keys)}
        <tr
          ><td class="align-top pl-0 pr-4 py-1"
            ><kbd class="font-mono font-semibold whitespace-nowrap">{k.keys}</kbd></td
          ><td class="align-top pl-0 pr-4 py-1">{k.does}</td></tr
        >
      {/each}
    </tbody>
  </table>
  <p><a href="#/about" onclick={() => list?.close()}>About Yoke Swap</a></p>
  <button type="button" class="button" onclick={() => list?.close()}>Close</button>
</dialog>

<style>
  header :focus-visible {
    outline-color: #ffb45e;
    outline-offset: -3px;
  }
  dialog::backdrop {
    background: rgb(0 0 0 / 50%);
  }
</style>
