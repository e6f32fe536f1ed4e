<script lang="ts">
  // From what one sees to what it is: causes ranked by this quad's own facts, one
  // test after another, the flight board asked where it can be.
  import { untrack } from 'svelte';
  import { push, replace, router } from 'svelte-spa-router';
  import { api, type BoardPorts, type FaultView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import TakePhoto from '../photos/TakePhoto.svelte';
  import LogList from '../lib/LogList.svelte';
  import { Loaded } from '../lib/loaded.svelte';

  let { params }: { params: { quad: string } } = $props();
  const id = $derived(params.quad);
  const view = new Loaded<FaultView>();
  const ports = new Loaded<BoardPorts>();

  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const symptom = $derived(query.get('symptom') ?? '');
  const list = (name: string) => (query.get(name) ?? '').split(',').filter(Boolean);
  let address = $state('');
  let logged = $state('');

  $effect(() => {
    const [quad, s, yes, no, at] = [id, symptom, query.get('yes') ?? '', query.get('no') ?? '', address];
    untrack(
      () =>
        void view.take(
          at && s ? api.faultAsking(quad, { symptom: s, yes, no }, at) : api.fault(quad, { symptom: s, yes, no }),
        ),
    );
  });
  $effect(() => {
    const quad = id;
    untrack(() => void ports.take(api.boardPorts(quad)));
  });

  function show(s: string, yes: string[], no: string[]) {
    const parts = [
      `symptom=${s}`,
      yes.length > 0 ? `yes=${yes.join(',')}` : '',
      no.length > 0 ? `no=${no.join(',')}` : '',
    ].filter(Boolean);
    void (s === symptom ? replace : push)(`/fault/${id}?${parts.join('&')}`);
    logged = '';
  }
  function answer(cause: string, said: 'yes' | 'no' | '') {
    const yes = list('yes').filter((c) => c !== cause);
    const no = list('no').filter((c) => c !== cause);
    show(symptom, said === 'yes' ? [...yes, cause] : yes, said === 'no' ? [...no, cause] : no);
  }
  const said = (cause: string) => (list('yes').includes(cause) ? 'yes' : list('no').includes(cause) ? 'no' : '');
  const words = { found: 'found', likely: 'likely', possible: 'possible', 'ruled-out': 'ruled out' } as const;
  const marks = { found: '✓', likely: '!', possible: '?', 'ruled-out': '–' } as const;
  const known = $derived([...(ports.data?.standIn ? [ports.data.standIn] : []), ...(ports.data?.ports ?? [])]);
  const canAsk = $derived(view.data?.diagnosis?.causes.some((c) => c.askBoard) ?? false);

  async function keep() {
    const first = view.data?.diagnosis?.causes[0];
    if (!view.data?.diagnosis || !first) return;
    const answered = await api.log(id, `${view.data.diagnosis.symptom}: ${first.label}. ${first.fix}`);
    logged = answered.ok ? 'In the log.' : answered.failure.detail;
    if (answered.ok) view.data = { ...view.data, log: answered.data };
  }
</script>

{#if view.failure}<FailureNote
    failure={view.failure}
    again={() => {
      address = '';
      return view.take(api.fault(id, { symptom }));
    }}
  />{/if}
{#if view.data}
  {@const v = view.data}
  <div class="title">
    <h1>{v.diagnosis ? `${v.quad}: ${v.diagnosis.symptom}` : `What is wrong with ${v.quad}?`}</h1>
    <a href={`#/bench/${id}`}>Bench sheet</a>
    {#if v.diagnosis}<a href={`#/fault/${id}`}>Another symptom</a>{/if}
  </div>
  {#if !v.diagnosis}
    <ul class="grid cols-fill-[290px] gap-2 my-3">
      {#each v.symptoms as s (s.id)}<li>
          <button type="button" class="button w-full min-h-14 text-left text-body" onclick={() => show(s.id, [], [])}
            >{s.label}</button
          >
        </li>{/each}
    </ul>
  {:else}
    <p class="says text-part font-bold mx-0 my-2" role="status">{v.diagnosis.says}</p>
    <TakePhoto quad={id} of="fault" />
    {#if canAsk}
      <p class="flex flex-wrap gap-y-1 gap-x-4 items-center mb-2.5">
        <label
          >ask the flight board <select bind:value={address}
            ><option value="">no, I look myself</option>{#each known as at (at)}<option value={at}
                >{at === ports.data?.standIn ? 'the stand-in' : at.replace(/^serial:/, '')}</option
              >{/each}</select
          ></label
        >
        <span class="soft"
          >{v.boardRead ? 'It was read: what it says counts below.' : known.length === 0 ? 'None is plugged in.' : ''}
          <a href={`#/board/${id}`}>Flight board</a></span
        >
      </p>
    {/if}
    <ol class="causes grid gap-2">
      {#each v.diagnosis.causes as c, i (c.id)}
        <li class={`panel ${c.standing}`} class:first={i === 0}>
          <h2>
            <span class="inline-block w-5 font-bold" aria-hidden="true">{marks[c.standing as keyof typeof marks]}</span>
            {c.label.charAt(0).toUpperCase() + c.label.slice(1)}
            <small class="font-medium text-soft"
              >{words[c.standing as keyof typeof words]}{c.askBoard && !v.boardRead
                ? ', the board can be asked'
                : ''}</small
            >
          </h2>
          {#each c.because as b (b)}<p class="font-semibold">{b}</p>{/each}
          {#if c.standing !== 'ruled-out'}
            {#if c.caution}<p class="bad">{c.caution}</p>{/if}
            <p><b>Test:</b> {c.test}</p>
            <div class="flex flex-wrap gap-y-1 gap-x-3 items-center mx-0 my-1" role="group" aria-label={c.question}>
              <span>{c.question}</span>
              <button
                type="button"
                class="button"
                aria-pressed={said(c.id) === 'yes'}
                onclick={() => answer(c.id, said(c.id) === 'yes' ? '' : 'yes')}>Yes, it is this</button
              >
              <button type="button" class="button" aria-pressed={said(c.id) === 'no'} onclick={() => answer(c.id, 'no')}
                >No</button
              >
            </div>
            <p><b>Then:</b> {c.fix}</p>
            {#if c.standing === 'found'}<p>
                <button type="button" class="button main" onclick={keep}>Put it into the log</button>
                {logged}
              </p>{/if}
          {:else if said(c.id) === 'no'}
            <button type="button" class="button" onclick={() => answer(c.id, '')}>Take the answer back</button>
          {/if}
        </li>
      {/each}
    </ol>
  {/if}
  <LogList name={v.quad} notes={v.log} />
{:else if !view.failure}
  <p class="soft" role="status">One moment…</p>
{/if}

<style>
  .causes li {
    padding: 0.6rem 0.9rem;
    border-left: 6px solid var(--line);
  }
  .causes li.found {
    border-left-color: var(--unfit);
  }
  .causes li.likely {
    border-left-color: var(--caution);
  }
  .causes li.ruled-out {
    border-left-style: dotted;
  }
</style>
