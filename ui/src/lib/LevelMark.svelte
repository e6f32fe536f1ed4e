<script lang="ts">
  // A level as a shape: each has its own outline, so that colour is never
  // alone. With `word` it says itself; without, the word is for readers only.
  import { levelOf, levelWords } from './levels';

  interface Props {
    level: string;
    size?: number;
    word?: boolean;
  }
  let { level, size = 22, word = false }: Props = $props();
  const kind = $derived(levelOf(level));
</script>

<span class="mark {kind}">
  <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true">
    {#if kind === 'fits'}
      <circle cx="12" cy="12" r="10" class="fill" />
      <path d="M7 12.5l3.4 3.5L17 8.5" class="cut" />
    {:else if kind === 'caution'}
      <path d="M12 2.5L22.5 21h-21z" class="line" />
      <path d="M12 9v5.5M12 17.2v.6" class="stroke" />
    {:else if kind === 'change'}
      <rect x="3.4" y="3.4" width="17.2" height="17.2" rx="2" class="line" transform="rotate(45 12 12)" />
      <path d="M7.5 12h8M12.5 8.6l3.4 3.4-3.4 3.4" class="stroke" />
    {:else if kind === 'unknown'}
      <circle cx="12" cy="12" r="10" class="line dashed" />
      <path d="M9.2 9.6a2.8 2.8 0 1 1 4.3 2.5c-1 .6-1.5 1.1-1.5 2.1M12 17v.5" class="stroke" />
    {:else}
      <rect x="2" y="2" width="20" height="20" class="fill" />
      <path d="M7.5 7.5l9 9M16.5 7.5l-9 9" class="cut" />
    {/if}
  </svg>
  <span class={word ? 'word' : 'unseen'}>{levelWords[kind]}</span>
</span>

<style>
  .mark {
    display: inline-flex;
    align-items: center;
    gap: 0.35em;
    color: var(--mark);
    white-space: nowrap;
    position: relative;
  }
  svg {
    display: block;
    flex: none;
  }
  .word {
    font-weight: 600;
  }
  .fits {
    --mark: var(--fits);
  }
  .caution {
    --mark: var(--caution);
  }
  .change {
    --mark: var(--change);
  }
  .unknown {
    --mark: var(--unknown);
  }
  .unfit {
    --mark: var(--unfit);
  }
  .fill {
    fill: var(--mark);
  }
  .line {
    fill: var(--sheet);
    stroke: var(--mark);
    stroke-width: 2.2;
  }
  .dashed {
    stroke-dasharray: 3.4 2.6;
  }
  .stroke {
    fill: none;
    stroke: var(--mark);
    stroke-width: 2.2;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  .cut {
    fill: none;
    stroke: var(--sheet);
    stroke-width: 2.6;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
</style>
