<script lang="ts">
  // One quad of the yoke board.
  import type { Board, Row, WhatIf } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { levelOf, levelShort, levelWords } from '../lib/levels';
  import { reachWords } from './reach';

  interface Props {
    row: Row;
    gates: Board['gates'];
    goggles: Board['devices'];
    columns: WhatIf['columns'];
    left: string[];
    ontoggle: (what: string) => void;
    onopen: (gate?: string) => void;
    onfocusrow: () => void;
  }
  let { row, gates, goggles, columns, left, ontoggle, onopen, onfocusrow }: Props = $props();
</script>

<tr class="border-b border-b-line" onfocusin={onfocusrow}>
  <th scope="row">
    <a
      class="font-bold text-part text-ink no-underline border-b border-b-line"
      id={`open-${row.quad}`}
      href={`#/swap/${row.quad}`}>{row.name}</a
    >
    {#if row.use}<small class="block text-soft font-normal text-small leading-tight">{row.use}</small>{/if}
  </th>
  <td class="now"><span class="small-gate hidden">now</span>{row.now}</td>
  {#each row.gates as g, i (g.gate)}
    <td class="gate" class:first={i === 0} class:last={i === row.gates.length - 1}>
      <button
        class="relative grid justify-items-center w-full min-h-11.5 cursor-pointer bg-transparent border-0 px-0 pt-1 pb-0.5"
        type="button"
        onclick={() => onopen(g.gate)}
        title={g.says ?? ''}
        aria-label={`${row.name}, ${gates[i]?.title}: ${levelWords[levelOf(g.level)]}. ${g.says ?? ''}`}
      >
        <span class="small-gate hidden" aria-hidden="true">{gates[i]?.title}</span>
        <LevelMark level={g.level} size={24} />
        <span class="word {levelOf(g.level)} text-tiny leading-tight text-center" aria-hidden="true"
          >{levelShort[levelOf(g.level)]}</span
        >
      </button>
    </td>
  {/each}
  <td class="next">
    <span class="small-gate hidden">next</span><strong>{row.stays ? 'stays' : row.next}</strong>
    {#if row.planned}
      <button
        type="button"
        class="swap"
        aria-pressed={!left.includes(`swap:${row.quad}`)}
        onclick={() => ontoggle(`swap:${row.quad}`)}
      >
        {left.includes(`swap:${row.quad}`) ? '○ left out' : '● planned'}<span class="unseen"> swap of {row.name}</span>
      </button>
    {/if}
    {#if row.needs}<small class="block text-soft font-normal text-small leading-tight">still needs {row.needs}</small
      >{/if}
  </td>
  {#each columns as c (c.model)}
    {@const cell = c.cells.find((x) => x.quad === row.quad)}
    <td class="eyes tried {cell?.reach ?? ''}" title={cell?.says}>
      {#if cell}
        <span class="small-gate hidden">what if: {c.name}</span>
        {#if cell.level}
          <LevelMark level={cell.level} size={18} />
          <small class="block text-ink font-normal text-small leading-tight">{levelShort[levelOf(cell.level)]}</small>
        {/if}
        {reachWords(cell)}
        {#if cell.controller}<small class="block text-soft font-normal text-small leading-tight"
            >with {cell.controller}</small
          >{/if}
      {/if}
    </td>
  {/each}
  {#each row.goggles as r (r.goggles)}
    {@const device = goggles.find((g) => g.kit === r.goggles)}
    <td class="eyes {r.reach}" class:home={!device?.brought} title={r.says}>
      <span class="small-gate hidden">{device?.name}</span>
      {reachWords(r)}
      {#if r.noSticks}<small class="block text-soft font-normal text-small leading-tight">no controller owned</small
        >{:else if r.controller}<small class="block text-soft font-normal text-small leading-tight"
          >with {r.controller}</small
        >{/if}
    </td>
  {/each}
</tr>

<style>
  tr:hover,
  tr:focus-within {
    background: var(--raised);
  }
  th,
  td {
    padding: 0.15rem 0.75rem;
    text-align: left;
    vertical-align: middle;
    line-height: 1.25;
    height: 50px;
  }
  .gate {
    padding: 0;
    position: relative;
    min-width: 64px;
  }
  .gate::before {
    content: '';
    position: absolute;
    left: 0;
    right: 0;
    top: calc(50% - 9px); /* through the knots, however tall the row */
    border-top: 3px solid var(--ink);
  }
  .gate.first::before {
    left: 12%;
  }
  .gate.last::before {
    right: 12%;
  }
  .word.fits {
    color: var(--fits);
  }
  .word.caution {
    color: var(--caution);
  }
  .word.change {
    color: var(--change);
  }
  .word.unknown {
    color: var(--unknown);
  }
  .word.unfit {
    color: var(--unfit);
    font-weight: 700;
  }
  .swap {
    border: 0;
    background: none;
    color: var(--soft);
    font-size: 0.82rem;
    padding: 0 0 0 0.4rem;
    min-height: 24px;
    cursor: pointer;
    text-decoration: underline dotted;
    text-underline-offset: 0.2em;
    position: relative;
  }
  .eyes {
    text-align: center;
    font-weight: 600;
    min-width: 76px;
    padding-inline: 0.3rem;
  }
  .eyes.tried {
    border-inline: 2px dashed var(--line);
  }
  .eyes.now {
    color: var(--fits);
  }
  .eyes.after {
    color: var(--change);
  }
  .eyes.never {
    color: var(--unfit);
  }
  .eyes.unknown {
    color: var(--unknown);
    font-style: italic;
  }
  .eyes.home {
    text-decoration: line-through;
    font-weight: 400;
  }
  @media (max-width: 1120px) {
    tr {
      display: grid;
      grid-template-columns: repeat(7, 1fr);
      padding: 0.5rem 0.6rem;
      gap: 0.15rem 0;
    }
    th,
    td {
      display: block;
      height: auto;
      padding: 0.1rem 0;
    }
    th {
      grid-column: 1 / -1;
    }
    .now {
      grid-column: 1 / 4;
    }
    .next {
      grid-column: 4 / -1;
      order: 1;
    }
    .gate {
      order: 2;
    }
    .gate {
      min-width: 0;
    }
    .gate::before {
      top: 36px;
    }
    .gate {
      width: auto;
    }
    .small-gate {
      display: block;
      color: var(--soft);
      font-weight: 400;
      font-size: 0.8rem;
    }
    .eyes {
      min-width: 0;
      grid-column: span 2;
      order: 3;
    }
  }
  /* Four gates a row, the last one with the rest of its row. */
  @media (max-width: 760px) {
    tr {
      grid-template-columns: repeat(12, 1fr);
    }
    .now {
      grid-column: 1 / 7;
    }
    .next {
      grid-column: 7 / -1;
    }
    .gate,
    .gate.first {
      grid-column: span 3;
    }
    .gate.last {
      grid-column: span 6;
    }
    .gate.last button {
      width: 50%;
    }
    .gate.last::before {
      right: 68%;
    }
    .eyes {
      grid-column: span 4;
    }
  }
</style>
