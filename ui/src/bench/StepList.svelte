<script lang="ts">
  // All steps in order. On paper each shows what to do, with a box to tick.
  import type { StepState } from '../api/client.svelte';
  import { stateWords } from './states';

  interface Props {
    states: StepState[];
    shown: string;
    onpick: (id: string) => void;
  }
  let { states, shown, onpick }: Props = $props();
</script>

<ol class="panel">
  {#each states as s, i (s.id)}
    <li class={s.state}>
      <button type="button" aria-current={s.id === shown ? 'step' : undefined} onclick={() => onpick(s.id)}>
        <span class="box" aria-hidden="true">{s.state === 'done' ? '✓' : s.state === 'stopped' ? '✕' : s.state === 'held' ? '–' : i + 1}</span>
        <span class="what">{s.title}{#if s.value !== undefined && s.reading}<small class="mono"> {s.reading.choices?.[s.value] ?? `${s.value} ${s.reading.unit}`}</small>{/if}</span>
        <span class={s.state === 'todo' ? 'unseen' : 'state'}>{stateWords[s.state] ?? s.state}</span>
      </button>
      <div class="paper">
        <ul>
          {#each s.do as line, k (k)}<li>{line}</li>{/each}
          {#each s.cautions ?? [] as c, k (k)}<li><b>Caution:</b> {c}</li>{/each}
        </ul>
        {#if s.reading}<p>{s.reading.label}: __________ {s.reading.unit} (expected {s.reading.expected})</p>{/if}
      </div>
    </li>
  {/each}
</ol>

<style>
  ol {
    list-style: none;
    margin: 0;
    padding: 0.3rem;
  }
  button {
    display: grid;
    grid-template-columns: 1.9rem 1fr auto;
    gap: 0.5rem;
    align-items: center;
    width: 100%;
    min-height: 42px;
    padding: 0.25rem 0.5rem;
    text-align: left;
    background: none;
    border: 0;
    border-left: 5px solid transparent;
    color: var(--ink);
    cursor: pointer;
    line-height: 1.2;
  }
  button[aria-current] {
    border-left-color: var(--accent);
    background: var(--accent-wash);
    font-weight: 700;
  }
  .box {
    display: grid;
    place-items: center;
    width: 1.7rem;
    height: 1.7rem;
    border: 2px solid var(--line);
    border-radius: 4px;
    font-size: 0.9rem;
  }
  .done .box {
    background: var(--fits);
    border-color: var(--fits);
    color: var(--sheet);
  }
  .stopped .box {
    background: var(--unfit);
    border-color: var(--unfit);
    color: var(--sheet);
  }
  .held .what {
    color: var(--soft);
  }
  .state {
    font-size: 0.8rem;
    color: var(--soft);
  }
  .stopped .state {
    color: var(--unfit);
    font-weight: 700;
  }
  small {
    font-size: 0.85rem;
    color: var(--soft);
  }
  .paper {
    display: none;
  }
  @media print {
    ol {
      border: 0;
    }
    li {
      break-inside: avoid;
    }
    button {
      font-weight: 700;
    }
    .paper {
      display: block;
      padding-left: 2.6rem;
      font-size: 0.9rem;
    }
    .paper ul {
      list-style: disc;
      margin: 0;
      padding-left: 1rem;
    }
  }
</style>
