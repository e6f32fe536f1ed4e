<script lang="ts">
  import { onMount } from 'svelte';
  import Router, { push, router } from 'svelte-spa-router';
  import { wrap } from 'svelte-spa-router/wrap';
  import { door } from './api/client.svelte';
  import Bench from './bench/Bench.svelte';
  import Fleet from './fleet/Fleet.svelte';
  import Door from './lib/Door.svelte';
  import { everywhere, typing } from './lib/keys';
  import NotFound from './lib/NotFound.svelte';
  import { switchTheme, theme } from './lib/theme.svelte';
  import Route from './route/Route.svelte';
  import Swap from './swap/Swap.svelte';

  // What is not needed at first is fetched once the first screen stands, so that it
  // is there even if the program is stopped meanwhile.
  const later = {
    board: () => import('./board/Board.svelte'),
    fault: () => import('./fault/Fault.svelte'),
    together: () => import('./fleet/Together.svelte'),
    rehearse: () => import('./route/Rehearse.svelte'),
    shopping: () => import('./route/Shopping.svelte'),
    walk: () => import('./route/Walk.svelte'),
    shelf: () => import('./shelf/Shelf.svelte'),
    goggles: () => import('./bench/Goggles.svelte'),
    about: () => import('./about/About.svelte'),
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
    '/board/:quad': asked(later.board),
    '/fault/:quad': asked(later.fault),
    '/shopping': asked(later.shopping),
    '/shelf/:tab?/:kind?/:id?': asked(later.shelf),
    '/about': asked(later.about),
    '/goggles/:kit': asked(later.goggles),
    '*': NotFound,
  };
  const places = [
    { name: 'Fleet', at: '/', starts: ['/', '/swap', '/together'] },
    { name: 'Route', at: '/route', starts: ['/route', '/rehearse'] },
    { name: 'Bench', at: '/bench', starts: ['/bench', '/board', '/fault', '/walk', '/shopping', '/goggles'] },
    { name: 'Shelf', at: '/shelf', starts: ['/shelf', '/about'] },
  ];
  const screenKeys = [
    { keys: '↓ ↑ or j k', does: 'Fleet: next or previous quad; Bench: next or previous step' },
    { keys: 'Enter', does: 'Fleet: open the quad' },
    { keys: '1 to 7', does: 'Swap: link, power, pins, mount, antenna, OSD or control gate' },
    { keys: 'b', does: 'Swap: its bench sheet' },
  ];

  let list: HTMLDialogElement | undefined = $state();
  let afterG = false;

  function here(starts: string[]): boolean {
    return starts.some((s) => (s === '/' ? router.location === '/' : router.location.startsWith(s)));
  }

  function onkeydown(event: KeyboardEvent) {
    if (typing(event)) return;
    if (afterG) {
      afterG = false;
      const to = { f: '/', r: '/route', b: '/bench', s: '/shelf' }[event.key];
      if (to) void push(to);
      return;
    }
    if (event.key === 'g') afterG = true;
    else if (event.key === 't') switchTheme();
    else if (event.key === '?' && !list?.open) list?.showModal();
  }
</script>

<svelte:window {onkeydown} />

<a class="skip" href="#content" onclick={(e) => { e.preventDefault(); document.getElementById('content')?.focus(); }}>Skip to the content</a>
<header class="screen-only">
  <a class="brand" href="#/"><img src="/yoke.svg" alt="" width="26" height="26" />Yoke Swap</a>
  <nav aria-label="Main">
    {#each places as p (p.at)}
      <a href={'#' + p.at} aria-current={here(p.starts) ? 'page' : undefined}>{p.name}</a>
    {/each}
  </nav>
  <div class="tools">
    <button type="button" onclick={switchTheme}>{theme() === 'dark' ? 'Light' : 'Dark'}</button>
    <button type="button" onclick={() => list?.showModal()} aria-label="Keys"><kbd>?</kbd></button>
  </div>
</header>
<main id="content" tabindex="-1">
  {#if door.shut}<Door />{:else}<Router {routes} restoreScrollState={true} />{/if}
</main>

<dialog bind:this={list} class="panel" aria-labelledby="keys">
  <h2 id="keys">Keys</h2>
  <table class="keys">
    <tbody>
      {#each [...everywhere, ...screenKeys] as k (k.keys)}
        <tr><td><kbd>{k.keys}</kbd></td><td>{k.does}</td></tr>
      {/each}
    </tbody>
  </table>
  <p><a href="#/about" onclick={() => list?.close()}>About Yoke Swap</a></p>
  <button type="button" class="button" onclick={() => list?.close()}>Close</button>
</dialog>

<style>
  .skip {
    position: absolute;
    left: -999px;
  }
  .skip:focus {
    left: 0.5rem;
    top: 0.5rem;
    background: var(--raised);
    padding: 0.5rem;
    z-index: 10;
  }
  header {
    display: flex;
    align-items: stretch;
    gap: 1rem 2rem;
    background: #17313b;
    color: #f4efe4;
    padding: 0 1.25rem;
    min-height: 48px;
  }
  .brand {
    display: flex;
    align-items: center;
    gap: 0.6rem;
    color: inherit;
    text-decoration: none;
    font-weight: 750;
    font-size: 1.05rem;
    white-space: nowrap;
  }
  .brand img {
    border: 1px solid #48626c;
    border-radius: 6px;
  }
  nav {
    display: flex;
    gap: 0.25rem;
  }
  nav a {
    display: flex;
    align-items: center;
    padding: 0 1rem;
    color: #d5dedd;
    text-decoration: none;
    border-bottom: 4px solid transparent;
    border-top: 4px solid transparent;
  }
  nav a:hover {
    color: #fff;
  }
  nav a[aria-current] {
    color: #fff;
    font-weight: 700;
    border-bottom-color: #e0a63a;
  }
  header :focus-visible {
    outline-color: #ffb45e;
    outline-offset: -3px;
  }
  .tools {
    margin-left: auto;
    display: flex;
    align-items: center;
    gap: 0.5rem;
  }
  .tools button {
    color: #d5dedd;
    border: 1px solid #48626c;
    border-radius: 4px;
    padding: 0.2rem 0.6rem;
    min-height: 32px;
    min-width: 36px;
    font-size: 0.9rem;
    cursor: pointer;
  }
  main {
    padding: 1rem 1.25rem 2rem;
    max-width: 1360px;
    margin: 0 auto;
    outline: none;
  }
  dialog {
    margin: auto;
    padding: 1rem 1.4rem 1.2rem;
    max-width: min(34rem, 94vw);
    color: var(--ink);
  }
  dialog::backdrop {
    background: rgb(0 0 0 / 50%);
  }
  .keys td {
    padding: 0.3rem 1rem 0.3rem 0;
    vertical-align: top;
  }
  kbd {
    font-family: var(--font-mono);
    font-weight: 600;
    white-space: nowrap;
  }
  @media (max-width: 640px) {
    header {
      flex-wrap: wrap;
      padding: 0 0.6rem;
      gap: 0;
    }
    .brand {
      min-height: 42px;
    }
    nav {
      order: 3;
      flex-basis: 100%;
    }
    nav a {
      flex: 1;
      justify-content: center;
      min-height: 42px;
      border-top: 0;
    }
    main {
      padding: 0.75rem 0.6rem 2rem;
    }
  }
</style>
