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

<ol class="panel p-1">
  {#each states as s, i (s.id)}
    <li class={s.state}>
      <button
        class="grid grid-cols-[1.9rem_1fr_auto] gap-2 items-center w-full min-h-10.5 text-left bg-transparent border-0 border-l-5 border-l-transparent text-ink cursor-pointer leading-tight px-2 py-1"
        type="button"
        aria-current={s.id === shown ? 'step' : undefined}
        onclick={() => onpick(s.id)}
      >
        <span class="box grid place-items-center w-7 h-7 border-2 border-line rounded text-note" aria-hidden="true"
          >{s.state === 'done' ? '✓' : s.state === 'stopped' ? '✕' : s.state === 'held' ? '–' : i + 1}</span
        >
        <span class="what"
          >{s.title}{#if s.value !== undefined && s.reading}<small class="mono text-small text-soft ml-1.5">
              {s.reading.choices?.[s.value] ?? `${s.value} ${s.reading.unit}`}</small
            >{/if}</span
        >
        <span
          class={s.state === 'todo'
            ? 'unseen'
            : s.state === 'stopped'
              ? 'text-tiny text-unfit font-bold'
              : 'text-tiny text-soft'}>{stateWords[s.state] ?? s.state}</span
        >
      </button>
      <div class="paper hidden">
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
  button[aria-current] {
    border-left-color: var(--accent);
    background: var(--accent-wash);
    font-weight: 700;
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
