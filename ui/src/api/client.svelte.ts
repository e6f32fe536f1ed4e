// The one place that talks to the server. Every answer is either data or a
// Failure that says what happened and what to do.
import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

type Schemas = components['schemas'];
export type Board = Schemas['BoardPage'];
export type FlightsView = Schemas['FlightsView'];
export type FlightView = Schemas['FlightView'];
export type Proof = Schemas['Proof'];
export type TasksView = Schemas['TasksView'];
export type FleetLog = Schemas['FleetLog'];
export type AsOf = Schemas['AsOf'];
export type RecordingView = Schemas['RecordingView'];
export type WhatIf = Schemas['WhatIf'];
export type AlbumView = Schemas['AlbumView'];
export type PhotoOf = 'quad' | 'step' | 'plug' | 'fault';
export type HoursView = Schemas['HoursView'];
export type RouteWhatIf = Schemas['RouteWhatIf'];
export type Row = Schemas['Row'];
export type QuadView = Schemas['QuadView'];
export type Finding = Schemas['Finding'];
export type Fix = Schemas['Fix'];
export type Patch = Schemas['Patch'];
export type Path = Schemas['SupplyView'];
export type Picture = QuadView['link'];
export type SupplyView = Schemas['SupplyView'];
export type Together = Schemas['TogetherView'];
export type MountView = QuadView['mount'];
export type Shopping = Schemas['ShoppingView'];
export type AntennaView = QuadView['antenna'];
export type OsdView = QuadView['osd'];
export type OsdDrawn = NonNullable<OsdView['before']>;
export type BoardPorts = Schemas['BoardPorts'];
export type BoardView = Schemas['BoardView'];
export type BoardReport = Schemas['BoardReport'];
export type BoardTextView = Schemas['BoardTextView'];
export type BoardTextReport = Schemas['TextLoaded'];
export type BoardKept = Schemas['BoardKept'];
export type BoardLive = Schemas['BoardLive'];
export type Comparison = Schemas['SetupComparison'];
export type Faults = Schemas['SimFaults'];
export type Note = FaultView['log'][number];
export type FaultView = Schemas['FaultView'];
export type ControlView = QuadView['control'];
export type PinsView = Schemas['WiringView'];
export type PinsPicture = PinsView['picture'];
export type Run = Schemas['Run'];
export type TurnsView = Schemas['TurnsView'];
export type TurnPair = TurnsView['turns'][number];
/** What can be done about the fits a quad carries in turn. */
export type TurnDeed = NonNullable<
  paths['/api/quads/{quad}/turns']['post']['requestBody']
>['content']['application/json']['do'];
export type StepState = Schemas['StepState'];
export type Shelf = Schemas['Shelf'];
export type GogglesList = Schemas['SetupGogglesList'];
export type FlipView = Schemas['FlipView'];
export type FlipSample = Schemas['ControlSample'];
export type About = Schemas['About'];
export type ShelfEntry = Schemas['ShelfEntry'];
export type Import = Schemas['Import'];
export type FieldChange = Schemas['FieldChange'];
export type Session = Schemas['Session'];
export type RouteView = Schemas['RouteView'];
export type RouteStep = RouteView['plan']['steps'][number];
export type RouteLane = RouteView['plan']['lanes'][number];
export type RouteConflict = NonNullable<RouteView['plan']['links'][number]['conflict']>;
export type BackView = Schemas['BackView'];
/** What was read off a device after a step of the real route. */
export type Read = NonNullable<paths['/api/route/read']['post']['requestBody']>['content']['application/json'];
export type Rehearsal = Schemas['Rehearsal'];
export type Action = Schemas['SimAction'];
export type Missing = Schemas['Missing'];
export type MakeView = Schemas['MakeView'];
export type Made = Schemas['MadeView'];
export type AntennaPick = Schemas['BeginAntennaPick'];
export type Picks = Schemas['PicksView'];
export type Pair = Schemas['PairView'];
export type SheetTable = Schemas['SheetTable'];
export type TakenRow = Schemas['TakenRow'];
export type SheetFound = Schemas['SheetFound'];
export type LinkMap = Schemas['LinkMap'];
export type ChangeList = Schemas['Changes'];
export type Ask = Schemas['AskView'];
export type Question = Schemas['AskQuestion'];
export type Said = Schemas['BeginSaid'];
export type TradeEntry = Schemas['TradeEntry'];
export type Slots = Schemas['SlotsView'];
export type Slot = Schemas['BeginSlot'];
export type LinkQuestion = Schemas['BeginLinkQuestion'];
export type Take = Schemas['BeginTake'];
export type Job = Schemas['Job'];
export type CandidatesView = Schemas['CandidatesView'];
export type AgainstView = Schemas['AgainstView'];
export type DayView = Schemas['DayView'];
export type Candidate = Schemas['DecideCandidate'];
export type FleetDecision = Schemas['FleetDecision'];
export type QuadPlan = FleetDecision['quads'][number];
export type SchoolsView = Schemas['SchoolsView'];
export type QuadDecision = Schemas['QuadDecision'];
export type ScenariosView = Schemas['ScenariosView'];
export type OrderView = Schemas['OrderView'];
export type Purse = Schemas['Purse'];
/** How a decision is asked for; what is absent is as the school has it. */
export type Asked = NonNullable<paths['/api/decide']['get']['parameters']['query']>;
export type WholePlan = Schemas['DecidePlan'];
export type WholeFound = Schemas['DecideFound'];
export type Standing = Schemas['Standing'];
export type WholeView = Schemas['WholeView'];

export interface WrongField {
  location: string;
  message: string;
}

export interface Failure {
  status: number;
  title: string;
  detail: string;
  wrong: WrongField[];
  /** A stale write: how what is there now differs from what was sent. */
  conflict?: { revision: number; differences: FieldChange[] };
}

export type Answer<T> = { ok: true; data: T } | { ok: false; failure: Failure };

/** Shut: the program asks this browser for its key. */
export const door = $state({ shut: false });

/** Where this page stands: the demo is looked round in a place of its own. */
export const place = typeof location !== 'undefined' && location.pathname.startsWith('/demo/') ? '/demo' : '';

/** What is asked and not yet answered, and how to give it up. */
// eslint-disable-next-line svelte/prefer-svelte-reactivity -- nothing on screen follows it
const open = new Map<Request, { since: number; abort: AbortController }>();

/** What takes long at this moment: for how long, and what the program says it is at. */
export const slow = $state<{ seconds: number; jobs: Job[] }>({ seconds: 0, jobs: [] });
const patience = 1500; // ms, after which somebody who waits is told why
let looking: ReturnType<typeof setInterval> | undefined;

async function tracked(request: Request): Promise<Response> {
  const abort = new AbortController();
  open.set(request, { since: Date.now(), abort });
  looking ??= setInterval(() => void look(), 500);
  try {
    return await fetch(request, { signal: abort.signal });
  } finally {
    open.delete(request);
    if (open.size === 0) {
      clearInterval(looking);
      looking = undefined;
      slow.seconds = 0;
    }
  }
}

async function look() {
  const longest = Date.now() - Math.min(...[...open.values()].map((o) => o.since));
  if (open.size === 0 || longest < patience) return;
  const jobs = await fetch(`${place}/api/jobs`).then(
    (r) => (r.ok ? (r.json() as Promise<Job[]>) : []),
    () => [],
  );
  if (open.size === 0) return; // answered meanwhile
  slow.jobs = jobs;
  slow.seconds = Math.round(longest / 1000);
}

/** Gives up what is waited for: reads are let go of, a file that is taken in is stopped. */
export function stopWaiting() {
  for (const [request, { abort }] of open) if (request.method === 'GET') abort.abort();
  for (const job of slow.jobs)
    if (mine.has(job.id)) void client.DELETE('/api/jobs/{job}', { params: { path: { job: job.id } } });
}

const client = createClient<paths>({ baseUrl: place, fetch: tracked });

/** The jobs of this page. */
// eslint-disable-next-line svelte/prefer-svelte-reactivity -- nothing on screen follows it
const mine = new Set<string>();

/**
 * Sends what may take long under a name. Where the line is cut before the answer has come,
 * the answer is asked for again by that name.
 */
async function asJob<T>(
  send: (job: string) => Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<Answer<T>> {
  const job = Array.from(crypto.getRandomValues(new Uint32Array(4)), (n) => n.toString(36)).join('-');
  mine.add(job);
  try {
    let answer = await answered(send(job));
    for (let silent = 0; !answer.ok && answer.failure.status === 0 && silent < 5;) {
      const asked = await answered(client.GET('/api/jobs/{job}', { params: { path: { job } } }));
      if (asked.ok && asked.data.ended) answer = { ok: true, data: asked.data.answer as T };
      else if (!asked.ok && asked.failure.status === 404)
        return answer; // it never arrived
      else if (!asked.ok && asked.failure.status > 0) return asked;
      silent = asked.ok ? 0 : silent + 1;
      await new Promise((later) => setTimeout(later, 500));
    }
    return answer;
  } finally {
    mine.delete(job);
  }
}

interface Problem {
  status?: number;
  title?: string;
  detail?: string;
  errors?: { location?: string; message?: string }[] | null;
  revision?: number;
  differences?: FieldChange[];
}

export function failureOf(status: number, problem: Problem | undefined): Failure {
  const failure: Failure = {
    status,
    title: problem?.title ?? 'The server answered with an error',
    detail: problem?.detail ?? `It answered ${status}. Nothing was changed; try again.`,
    wrong: (problem?.errors ?? []).map((e) => ({ location: e.location ?? '', message: e.message ?? '' })),
  };
  if (status === 409 && problem?.revision !== undefined && problem.differences) {
    failure.conflict = { revision: problem.revision, differences: problem.differences };
  }
  return failure;
}

const unreachable: Failure = {
  status: 0,
  title: 'The program does not answer',
  detail:
    'Is Yoke Swap still running on this machine? Start it again and press “Try again”. What was confirmed is kept.',
  wrong: [],
};

const stopped: Failure = {
  status: -1,
  title: 'You stopped waiting',
  detail: 'Nothing was changed. Ask again when it suits.',
  wrong: [],
};

async function answered<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<Answer<T>> {
  try {
    const { data, error, response } = await call;
    if (response.ok && data !== undefined) return { ok: true, data };
    if (response.status === 401) door.shut = true;
    return { ok: false, failure: failureOf(response.status, error as Problem | undefined) };
  } catch (error) {
    return { ok: false, failure: error instanceof DOMException && error.name === 'AbortError' ? stopped : unreachable };
  }
}

/** Where a photo of a quad is. */
export const photoURL = (quad: string, id: number) =>
  `${place}/api/quads/${encodeURIComponent(quad)}/photos/${id}/picture`;

// What is read shows what was just written: a read waits for the writes under way.
let writes: Promise<unknown> = Promise.resolve();

function written<T>(call: Promise<Answer<T>>): Promise<Answer<T>> {
  writes = Promise.all([writes, call]);
  return call;
}

async function read<T>(call: () => Promise<{ data?: T; error?: unknown; response: Response }>): Promise<Answer<T>> {
  await writes;
  return answered(call());
}

export const api = {
  board: (left: string[], count?: number) =>
    read(() => client.GET('/api/board', { params: { query: { left: left.join(','), count } } })),
  whatIf: (tried: string[], left: string[]) =>
    read(() => client.GET('/api/whatif', { params: { query: { try: tried.join(','), left: left.join(',') } } })),
  routeWhatIf: (tried: string[]) =>
    read(() => client.GET('/api/route/whatif', { params: { query: { try: tried.join(',') } } })),
  quad: (quad: string) => read(() => client.GET('/api/quads/{quad}', { params: { path: { quad } } })),
  plan: (quad: string, revision: number, patch: Patch) =>
    written(answered(client.POST('/api/quads/{quad}/next', { params: { path: { quad } }, body: { revision, patch } }))),
  wholePlans: (quad: string) => read(() => client.GET('/api/quads/{quad}/whole', { params: { path: { quad } } })),
  candidates: (quad: string) => read(() => client.GET('/api/quads/{quad}/candidates', { params: { path: { quad } } })),
  against: (one: string, other: string, planned: boolean) =>
    read(() => client.GET('/api/against', { params: { query: { one, other, planned } } })),
  benchDay: (one: string, other: string, hands: number) =>
    read(() => client.GET('/api/bench-day', { params: { query: { one, other, hands } } })),
  decide: (query: Asked) => read(() => client.GET('/api/decide', { params: { query } })),
  order: (query: Asked & { by?: string; every?: number }) =>
    read(() => client.GET('/api/decide/order', { params: { query } })),
  scenarios: (is: string, than: string) =>
    read(() => client.GET('/api/scenarios', { params: { query: { is, than } } })),
  keepScenario: (body: paths['/api/scenarios']['post']['requestBody']['content']['application/json']) =>
    written(answered(client.POST('/api/scenarios', { body }))),
  planScenario: (scenario: string, revision: number) =>
    written(
      answered(client.POST('/api/scenarios/{scenario}/plan', { params: { path: { scenario } }, body: { revision } })),
    ),
  dropScenario: (scenario: string, revision: number) =>
    written(
      answered(client.DELETE('/api/scenarios/{scenario}', { params: { path: { scenario }, query: { revision } } })),
    ),
  schools: (budget: number) => read(() => client.GET('/api/decide/schools', { params: { query: { budget } } })),
  spend: (was: Purse, is: Purse) => written(answered(client.PUT('/api/means', { body: { was, is } }))),
  planFleet: (quads: QuadDecision[], sells: string[]) =>
    written(answered(client.POST('/api/decide', { body: { quads, sells } }))),
  planWhole: (quad: string, revision: number, patches: Patch[]) =>
    written(
      answered(client.POST('/api/quads/{quad}/whole', { params: { path: { quad } }, body: { revision, patches } })),
    ),
  note: (quad: string, revision: number, patch: Patch) =>
    written(answered(client.POST('/api/quads/{quad}/now', { params: { path: { quad } }, body: { revision, patch } }))),
  solder: (quad: string, revision: number, wire: { today: boolean; node: string; pin: number; place: string }) =>
    written(
      answered(client.POST('/api/quads/{quad}/wire', { params: { path: { quad } }, body: { revision, ...wire } })),
    ),
  bench: (quad: string) => read(() => client.GET('/api/quads/{quad}/bench', { params: { path: { quad } } })),
  confirm: (quad: string, step: string, done: boolean, value?: number, read?: string) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/bench', { params: { path: { quad } }, body: { step, done, value, read } }),
      ),
    ),
  route: () => read(() => client.GET('/api/route')),
  routeWhy: (want: number, whole: number) =>
    read(() => client.GET('/api/route/why', { params: { query: { want, whole } } })),
  saveGoals: (revision: number, goals: RouteView['goals']) =>
    written(answered(client.PUT('/api/route', { body: { revision, goals } }))),
  wayBack: () => read(() => client.GET('/api/route/back')),
  recordRead: (body: Read) => written(answered(client.POST('/api/route/read', { body }))),
  offered: (device: string, release: string, revision: number) =>
    written(answered(client.POST('/api/route/offered', { body: { device, release, revision } }))),
  closeRoute: (revision: number) => written(answered(client.POST('/api/route/close', { body: { revision } }))),
  rehearse: (actions: Action[], back = false) => read(() => client.POST('/api/rehearsal', { body: { actions, back } })),
  setRegion: (was: string, region: string) => written(answered(client.PUT('/api/region', { body: { was, region } }))),
  screwOn: (kit: string, port: number, was: string, model: string, from: string) =>
    written(
      answered(
        client.PUT('/api/kit/{kit}/antennas/{port}', { params: { path: { kit, port } }, body: { was, model, from } }),
      ),
    ),
  boardPorts: (quad: string) => read(() => client.GET('/api/quads/{quad}/board', { params: { path: { quad } } })),
  standIn: (quad: string, faults: Faults, more: { stop?: boolean; osdOff?: boolean } = {}) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/board/stand-in', { params: { path: { quad } }, body: { faults, ...more } }),
      ),
    ),
  enter: (key: string, name: string) => answered(client.POST('/api/session', { body: { key, name } })),
  sessions: () => read(() => client.GET('/api/sessions')),
  endSession: (id: number) =>
    written(
      answered(
        client
          .DELETE('/api/sessions/{id}', { params: { path: { id } } })
          .then((r) => ({ ...r, data: r.response.ok ? true : undefined })),
      ),
    ),
  fault: (quad: string, query: { symptom?: string; yes?: string; no?: string }) =>
    read(() => client.GET('/api/quads/{quad}/fault', { params: { path: { quad }, query } })),
  faultAsking: (quad: string, query: { symptom?: string; yes?: string; no?: string }, address: string) =>
    read(() => client.POST('/api/quads/{quad}/fault', { params: { path: { quad }, query }, body: { address } })),
  finish: (quad: string, revision: number, anyway: boolean) =>
    written(
      answered(client.POST('/api/quads/{quad}/finish', { params: { path: { quad } }, body: { revision, anyway } })),
    ),
  flights: () => read(() => client.GET('/api/flights')),
  flight: (flight: string) => read(() => client.GET('/api/flights/{flight}', { params: { path: { flight } } })),
  beginFlight: (quad: string, course: string) =>
    written(answered(client.POST('/api/flights', { body: { quad, course } }))),
  readSpot: (
    flight: string,
    body: NonNullable<paths['/api/flights/{flight}/read']['post']['requestBody']>['content']['application/json'],
  ) => written(answered(client.POST('/api/flights/{flight}/read', { params: { path: { flight } }, body }))),
  tasks: () => read(() => client.GET('/api/tasks')),
  taskDone: (task: string, done: boolean) =>
    written(answered(client.POST('/api/tasks/{task}/done', { params: { path: { task } }, body: { done } }))),
  fleetLog: (query: NonNullable<paths['/api/log']['get']['parameters']['query']>) =>
    read(() => client.GET('/api/log', { params: { query } })),
  planBack: (quad: string, revision: number, event: number) =>
    written(answered(client.POST('/api/quads/{quad}/back', { params: { path: { quad } }, body: { revision, event } }))),
  asOf: (day: string, than?: string) => read(() => client.GET('/api/asof', { params: { query: { day, than } } })),
  recordings: (flight: string) =>
    read(() => client.GET('/api/flights/{flight}/recordings', { params: { path: { flight } } })),
  recording: (flight: string, id: number, part?: number) =>
    read(() =>
      client.GET('/api/flights/{flight}/recordings/{id}', { params: { path: { flight, id }, query: { part } } }),
    ),
  keepRecording: (flight: string, name: string, file: Blob) =>
    written(
      answered(
        client.POST('/api/flights/{flight}/recordings', {
          params: { path: { flight }, query: { name } },
          body: file as never,
          bodySerializer: (body) => body as never,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ),
    ),
  hours: () => read(() => client.GET('/api/hours')),
  fly: (quad: string, body: Schemas['Post-api-quads-by-quad-outingsRequest']) =>
    written(answered(client.POST('/api/quads/{quad}/outings', { params: { path: { quad } }, body }))),
  lookOver: (quad: string, at: number) =>
    written(answered(client.POST('/api/quads/{quad}/outings/{at}/looked', { params: { path: { quad, at } } }))),
  photos: (quad: string) => read(() => client.GET('/api/quads/{quad}/photos', { params: { path: { quad } } })),
  keepPhoto: (
    quad: string,
    query: { of: PhotoOf; key: string; moment: '' | 'before' | 'after'; words: string },
    file: Blob,
  ) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/photos', {
          params: { path: { quad }, query },
          body: file as never,
          bodySerializer: (body) => body as never,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ),
    ),
  sayPhoto: (quad: string, id: number, body: Schemas['Put-api-quads-by-quad-photos-by-idRequest']) =>
    written(answered(client.PUT('/api/quads/{quad}/photos/{id}', { params: { path: { quad, id } }, body }))),
  dropPhoto: (quad: string, id: number) =>
    written(answered(client.DELETE('/api/quads/{quad}/photos/{id}', { params: { path: { quad, id } } }))),
  inventRecording: (flight: string) =>
    written(answered(client.POST('/api/flights/{flight}/invent', { params: { path: { flight } } }))),
  sayRecording: (
    flight: string,
    id: number,
    body: NonNullable<
      paths['/api/flights/{flight}/recordings/{id}']['put']['requestBody']
    >['content']['application/json'],
  ) =>
    written(answered(client.PUT('/api/flights/{flight}/recordings/{id}', { params: { path: { flight, id } }, body }))),
  dropRecording: (flight: string, id: number) =>
    written(answered(client.DELETE('/api/flights/{flight}/recordings/{id}', { params: { path: { flight, id } } }))),
  proof: (before: string[], after: string[]) =>
    read(() => client.GET('/api/proof', { params: { query: { before: before.join(','), after: after.join(',') } } })),
  turns: (quad: string) => read(() => client.GET('/api/quads/{quad}/turns', { params: { path: { quad } } })),
  turn: (quad: string, revision: number, how: TurnDeed, turn?: string) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/turns', { params: { path: { quad } }, body: { revision, do: how, turn } }),
      ),
    ),
  logOf: (quad: string) => read(() => client.GET('/api/quads/{quad}/log', { params: { path: { quad } } })),
  log: (quad: string, says: string) =>
    written(answered(client.POST('/api/quads/{quad}/log', { params: { path: { quad } }, body: { says } }))),
  readBoard: (quad: string, address: string, confirmed: boolean) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/board/read', { params: { path: { quad } }, body: { address, confirmed } }),
      ),
    ),
  takeBoard: (quad: string, address: string, confirmed: boolean, take: string[]) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/board/today', {
          params: { path: { quad } },
          body: { address, confirmed, take },
        }),
      ),
    ),
  /** What kept settings or a text say of today; what is named in take is noted. */
  boardTold: (quad: string, body: Schemas['BoardTold']) =>
    written(answered(client.POST('/api/quads/{quad}/board/told', { params: { path: { quad } }, body }))),
  setBoard: (quad: string, address: string, propsOff: boolean) =>
    written(
      answered(client.POST('/api/quads/{quad}/board/set', { params: { path: { quad } }, body: { address, propsOff } })),
    ),
  /** Hold: arming is held off first, or let go of; absent: left as it is. */
  liveBoard: (quad: string, address: string, hold?: boolean) =>
    read(() =>
      client.POST('/api/quads/{quad}/board/live', {
        params: { path: { quad } },
        body: { address, hold, propsOff: hold || undefined },
      }),
    ),
  keepBoard: (quad: string, address: string) =>
    written(answered(client.POST('/api/quads/{quad}/board/keep', { params: { path: { quad } }, body: { address } }))),
  keepText: (quad: string, address: string, confirmed: boolean) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/board/text/keep', { params: { path: { quad } }, body: { address, confirmed } }),
      ),
    ),
  /** A text, as it stands or as it was kept, held against the board or against what was kept of it. */
  compareText: (quad: string, body: Schemas['BoardTextAsk']) =>
    read(() => client.POST('/api/quads/{quad}/board/text/compare', { params: { path: { quad } }, body })),
  loadText: (quad: string, body: Schemas['BoardTextLoad']) =>
    written(answered(client.POST('/api/quads/{quad}/board/text/load', { params: { path: { quad } }, body }))),
  keptBoards: (quad: string) =>
    read(() => client.GET('/api/quads/{quad}/board/snapshots', { params: { path: { quad } } })),
  nameBoard: (quad: string, id: number, name: string) =>
    written(
      answered(
        client.PUT('/api/quads/{quad}/board/snapshots/{id}/name', { params: { path: { quad, id } }, body: { name } }),
      ),
    ),
  betweenBoards: (quad: string, a: number, b: number) =>
    read(() => client.GET('/api/quads/{quad}/board/between', { params: { path: { quad }, query: { a, b } } })),
  restoreBoard: (quad: string, address: string, snapshot: number, propsOff: boolean) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/board/restore', {
          params: { path: { quad } },
          body: { address, snapshot, propsOff },
        }),
      ),
    ),
  together: (quads: string[], guests: string[]) =>
    read(() =>
      client.GET('/api/together', { params: { query: { quads: quads.join(','), guests: guests.join(',') } } }),
    ),
  seatFor: (quad: string, part: string) =>
    read(() => client.GET('/api/quads/{quad}/seat', { params: { path: { quad }, query: { part } } })),
  makeable: (quad: string) => read(() => client.GET('/api/quads/{quad}/make', { params: { path: { quad } } })),
  makePart: (part: string, of: string) =>
    read(() => client.GET('/api/make/{part}', { params: { path: { part }, query: { of } } })),
  shopping: () => read(() => client.GET('/api/shopping')),
  changes: (before = 0) =>
    read(() => client.GET('/api/changes', { params: { query: { before: before || undefined } } })),
  undo: (change: number) => written(answered(client.POST('/api/undo', { body: { change } }))),
  setLanguage: (was: string, language: string) =>
    written(answered(client.PUT('/api/language', { body: { was, language } }))),
  goggles: (kit: string) => read(() => client.GET('/api/goggles/{kit}', { params: { path: { kit } } })),
  flip: (quad: string, mode: string, samples: FlipSample[], range?: { fromUS: number; toUS: number }) =>
    read(() =>
      client.POST('/api/quads/{quad}/flip', { params: { path: { quad } }, body: { mode, samples, ...range } }),
    ),
  about: () => read(() => client.GET('/api/about')),
  forms: () => read(() => client.GET('/api/forms')),
  askLink: (body: LinkQuestion) => written(answered(client.POST('/api/begin/link', { body }))),
  beginQuad: (name: string, analog: boolean, like: string) =>
    written(answered(client.POST('/api/begin/quad', { body: { name, analog, like: like || undefined } }))),
  /** Takes in a quad that was bought whole, flown like another. */
  takeInQuad: (name: string, ready: string, like: string) =>
    written(answered(client.POST('/api/begin/quad', { body: { name, analog: false, ready, like } }))),
  quads: () => read(() => client.GET('/api/shelf', { params: { query: { kind: 'quad', count: 500 } } })),
  pair: (quad: string) => read(() => client.GET('/api/quads/{quad}/pair', { params: { path: { quad } } })),
  readSheet: (kind: string, text: string) =>
    read(() =>
      client.POST('/api/read/{kind}', {
        params: { path: { kind } },
        body: text as never,
        bodySerializer: (plain) => plain as unknown as string,
        headers: { 'Content-Type': 'text/plain' },
      }),
    ),
  readPlate: (text: string, forward: 'right' | 'up' | 'left' | 'down', rearMM?: number) =>
    read(() =>
      client.POST('/api/drawings/plate', {
        params: { query: { forward, rearMM: rearMM === undefined ? undefined : String(rearMM) } },
        body: text as never,
        bodySerializer: (plain) => plain as unknown as string,
        headers: { 'Content-Type': 'text/plain' },
      }),
    ),
  readTable: (text: string) =>
    read(() =>
      client.POST('/api/read/table', {
        body: text as never,
        bodySerializer: (plain) => plain as unknown as string,
        headers: { 'Content-Type': 'text/plain' },
      }),
    ),
  takeTable: (rows: TakenRow[], more: boolean) =>
    written(answered(client.POST('/api/table', { body: { rows, more } }))),
  asks: (quad: string, today: boolean) =>
    read(() => client.GET('/api/quads/{quad}/ask', { params: { path: { quad }, query: { today } } })),
  picks: (quad: string, field: string) =>
    read(() => client.GET('/api/quads/{quad}/picks', { params: { path: { quad }, query: { field } } })),
  antennaPicks: (kit: string) => read(() => client.GET('/api/kit/{kit}/antennas', { params: { path: { kit } } })),
  putAntennas: (kit: string, key: string) =>
    written(answered(client.POST('/api/kit/{kit}/antennas', { params: { path: { kit } }, body: { key } }))),
  state: (quad: string, body: Said) =>
    written(answered(client.POST('/api/quads/{quad}/statement', { params: { path: { quad } }, body }))),
  links: (query: { kit?: string; to?: string } = {}) => read(() => client.GET('/api/links', { params: { query } })),
  stateOf: (unit: string, goggles: string, body: Said & { instead: boolean }) =>
    written(answered(client.POST('/api/links/{unit}/{goggles}', { params: { path: { unit, goggles } }, body }))),
  trade: (kind: string) => read(() => client.GET('/api/trade', { params: { query: { kind } } })),
  takeFromTrade: (id: string) => written(answered(client.POST('/api/trade/{id}', { params: { path: { id } } }))),
  slots: (quad: string, today: boolean) =>
    read(() => client.GET('/api/quads/{quad}/slots', { params: { path: { quad }, query: { today } } })),
  fill: (quad: string, slot: string, revision: number, today: boolean, take: Take) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/slots/{slot}', {
          params: { path: { quad, slot } },
          body: { revision, today, take },
        }),
      ),
    ),
  shelf: (query: { kind?: string; find?: string; count?: number } = {}) =>
    read(() => client.GET('/api/shelf', { params: { query } })),
  save: (kind: string, id: string, revision: number, entry: unknown) =>
    written(
      answered(
        client.PUT('/api/entries/{kind}/{id}', {
          params: { path: { kind, id }, query: { revision } },
          body: JSON.stringify(entry) as never,
          bodySerializer: (text) => text as unknown as string,
          headers: { 'Content-Type': 'application/json' },
        }),
      ),
    ),
  remove: (kind: string, id: string, revision: number) =>
    written(
      answered(client.DELETE('/api/entries/{kind}/{id}', { params: { path: { kind, id }, query: { revision } } })),
    ),
  restore: (file: Blob, replace: boolean) =>
    written(
      asJob((job) =>
        client.POST('/api/restore', {
          params: { query: { replace, job } },
          body: file as never,
          bodySerializer: (blob) => blob as unknown as Blob,
          headers: { 'Content-Type': 'application/jsonl' },
        }),
      ),
    ),
  importFile: (
    file: Blob,
    options: { apply?: boolean; replace?: boolean; base?: number; file?: string[]; there?: string[] } = {},
  ) =>
    written(
      asJob((job) =>
        client.POST('/api/import', {
          params: { query: { ...options, job } },
          body: file as never,
          bodySerializer: (blob) => blob as unknown as Blob,
          headers: { 'Content-Type': 'application/json' },
        }),
      ),
    ),
  takeWiring: (quad: string, file: Blob) =>
    written(
      answered(
        client.POST('/api/quads/{quad}/wiring.csv', {
          params: { path: { quad } },
          body: file as never,
          bodySerializer: (blob) => blob as unknown as Blob,
          headers: { 'Content-Type': 'text/csv' },
        }),
      ),
    ),
};
