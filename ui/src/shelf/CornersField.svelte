<script lang="ts">
  // Corners in order, one a line. Those of a plate are drawn, with its openings, and can be read
  // from a drawing.
  import { Select } from 'flowbite-svelte';
  import { api, type Failure } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { cornersText, outlinePath, parseCorners, type Corner } from './corners';
  import type { Entry } from './entry';

  interface Props {
    id: string;
    label: string;
    about: string;
    corners: Corner[];
    plate?: Entry | undefined; // whose outline it is; none of an opening
    error: string;
    onchange: (corners: Corner[] | undefined) => void;
    onread: (plate: Entry) => void;
  }
  let { id, label, about, corners, plate, error, onchange, onread }: Props = $props();

  let wrong = $state('');
  let forward = $state<'right' | 'up' | 'left' | 'down'>('right');
  let says = $state<string[]>([]);
  let failure = $state.raw<Failure | null>(null);

  const openings = $derived(((plate?.openings ?? []) as { corners?: Corner[] }[]).map((o) => o.corners ?? []));
  const frame = $derived.by(() => {
    const [x, y] = [corners.map((c) => c.xMM), corners.map((c) => c.yMM)];
    const [front, rear, left, right] = [Math.max(...x), Math.min(...x), Math.max(...y), Math.min(...y)];
    return `${-left - 3} ${-front - 3} ${left - right + 6} ${front - rear + 6}`;
  });

  function set(typed: string) {
    const read = parseCorners(typed);
    wrong = read.wrong ?? '';
    if (!wrong) onchange(read.corners);
  }
  async function take(event: Event) {
    const input = event.currentTarget as HTMLInputElement;
    const file = input.files?.[0];
    if (!file) return;
    [failure, says] = [null, []];
    const answer = await api.readPlate(await file.text(), forward, plate?.fromXMM as number | undefined);
    input.value = ''; // the same file can be taken again
    if (!answer.ok) {
      failure = answer.failure;
      return;
    }
    const { says: left, openings: cut, ...rest } = answer.data;
    says = [`Read: ${rest.outline.length} corners and ${cut.length} openings.`, ...left];
    wrong = '';
    onread({ ...rest, openings: cut.length > 0 ? cut : undefined });
  }
</script>

<div class="grid col-span-full gap-1.5 min-w-0 min-[620px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-4">
  <div class="grid gap-1 content-start min-w-0">
    <label class="text-note font-semibold" for={id}>{label}<span class="soft font-normal">&nbsp;in mm</span></label>
    <textarea
      {id}
      rows={corners.length > 8 ? 8 : 5}
      class="bg-raised text-ink border border-soft rounded p-2 w-full mono text-note"
      spellcheck="false"
      value={cornersText(corners)}
      title={about}
      aria-invalid={wrong !== '' || error !== ''}
      onchange={(e) => set(e.currentTarget.value)}></textarea>
    {#if wrong || error}<p class="bad" role="alert">{wrong || error}</p>{:else}<p class="soft text-small">
        a corner a line: forward, then to the left{plate ? '; empty: the plate counts as a full block' : ''}
      </p>{/if}
  </div>
  {#if plate}
    <div class="grid gap-1.5 content-start min-w-0">
      {#if corners.length > 2}
        <svg viewBox={frame} class="max-h-44 w-full" role="img" aria-label={`${label}, drawn`}>
          <path d={outlinePath([corners, ...openings])} fill-rule="evenodd" />
        </svg>
      {/if}
      <div class="flex flex-wrap gap-2 items-end">
        <label class="grid gap-0.5 text-note"
          ><span>Forward is, in the drawing,</span>
          <Select
            size="sm"
            placeholder=""
            bind:value={forward}
            items={[
              { value: 'right', name: 'to the right' },
              { value: 'up', name: 'up' },
              { value: 'left', name: 'to the left' },
              { value: 'down', name: 'down' },
            ]}
          /></label
        >
        <label class="button cursor-pointer inline-flex items-center focus-within:outline-2"
          >Read a drawing (DXF)<input class="unseen" type="file" accept=".dxf" onchange={take} /></label
        >
      </div>
      {#each says as line (line)}<p class="text-note" role="status">{line}</p>{/each}
      {#if failure}<FailureNote {failure} />{/if}
    </div>
  {/if}
</div>

<style>
  path {
    fill: var(--line);
    stroke: var(--soft);
    stroke-width: 0.6;
  }
</style>
