// What can be entered by hand of each kind of entry: only the values the gates
// need. Paths and words follow the open formats (docs/format); whether a value
// is right is checked by the server, with the same schema as a file.

import { valueAt, type Entry } from './entry';

/** A field that is asked for only where another field of its group has a value. */
interface Asked {
  onlyIf?: { path: string; is?: string }; // without is: whatever value
}

export type Field = Asked & (
  | { path: string; label: string; type: 'text'; hint?: string; required?: boolean }
  | { path: string; label: string; type: 'number'; unit: string; hint?: string; whole?: boolean }
  | { path: string; label: string; type: 'yesno'; hint?: string }
  | { path: string; label: string; type: 'pick'; options: { value: string; name: string }[]; hint?: string; required?: boolean }
  | { path: string; label: string; type: 'ref'; kinds: string[]; of: 'gear' | 'kit'; hint?: string; required?: boolean }
  | { path: string; label: string; type: 'words'; hint?: string }
  | { path: string; label: string; type: 'pins'; known: string[]; hint?: string }
  | { path: string; label: string; type: 'wires'; hint?: string }
  | { path: string; label: string; type: 'list'; fields: Field[]; add: string; hint?: string }
);

const pick = (...values: string[]) => values.map((value) => ({ value, name: value }));

const sourceField: Field = {
  path: 'source.kind', label: 'source', type: 'pick', required: true,
  options: [
    { value: 'maker', name: "maker's sheet" },
    { value: 'measured', name: 'measured' },
    { value: 'practice', name: 'common practice' },
    { value: 'invented', name: 'invented' },
  ],
};
const name: Field = { path: 'name', label: 'name', type: 'text', required: true };
const head = [name, sourceField, { path: 'source.text', label: 'which sheet or measurement', type: 'text' } as Field];

const offer: Field[] = [
  { path: 'offer.price', label: 'price of one', type: 'number', unit: '', hint: 'for the shopping list' },
  { path: 'offer.currency', label: 'currency', type: 'text', required: true, hint: 'three letters, such as EUR', onlyIf: { path: 'offer.price' } },
  { path: 'offer.days', label: 'takes to come', type: 'number', unit: 'days', whole: true },
];

const input: Field[] = [
  { path: 'input.minV', label: 'lowest input voltage', type: 'number', unit: 'V' },
  { path: 'input.maxV', label: 'highest input voltage', type: 'number', unit: 'V' },
  { path: 'input.peakW', label: 'peak power', type: 'number', unit: 'W', hint: 'only for a feed with a current rating' },
  { path: 'input.absoluteMaxV', label: 'absolute limit', type: 'number', unit: 'V', hint: 'for the peak at plug-in' },
  { path: 'input.ceramicUF', label: 'ceramics across the input', type: 'number', unit: 'µF', hint: 'for the peak at plug-in' },
];
const unitPins = ['supply', 'ground', 'uart-rx', 'uart-tx', 'rc-ground', 'rc-out'];
const boardPins = ['ground', '5v', '10v', ...Array.from({ length: 8 }, (_, i) => [`tx${i + 1}`, `rx${i + 1}`]).flat()];
const connectorRef = (path: string, label: string): Field => ({ path, label, type: 'ref', of: 'gear', kinds: ['connector'], hint: 'none: solder pads' });
const converter: Field[] = [
  { path: 'topology', label: 'works as', type: 'pick', options: pick('step-down', 'step-up', 'buck-boost') },
  { path: 'outV', label: 'output voltage', type: 'number', unit: 'V' },
  { path: 'maxA', label: 'current rating', type: 'number', unit: 'A' },
  { path: 'dropoutV', label: 'dropout', type: 'number', unit: 'V', onlyIf: { path: 'topology', is: 'step-down' } },
];
const device: Field[] = [
  { path: 'activation.needed', label: 'a new one needs activating', type: 'yesno' },
  { path: 'activation.firmware', label: 'can be activated on', type: 'text', hint: '*, >=2.3' },
  {
    path: 'releases', label: 'releases', type: 'list', add: 'Add a release', hint: 'oldest first',
    fields: [
      { path: 'version', label: 'version', type: 'text', required: true, hint: 'such as 1.0.6' },
      { path: 'from', label: 'installs over', type: 'text', hint: '*, >=1.0, <=1.0.6' },
      { path: 'oneWay', label: 'one-way', type: 'yesno' },
      { path: 'rollbackTo', label: 'can go back to', type: 'words', hint: 'releases, by commas' },
      { path: 'install.tools', label: 'tools', type: 'words', hint: 'separated by commas' },
      { path: 'install.power', label: 'runs from', type: 'pick', options: pick('usb', 'pack', 'either') },
      { path: 'install.mode', label: 'in mode', type: 'text', hint: 'goggles: only in this mode' },
      { path: 'install.activated', label: 'only once activated', type: 'yesno' },
    ],
  },
];
const sides = pick('left', 'right', 'front', 'rear', 'top', 'bottom');
const screwSizes = pick('M1.6', 'M2', 'M2.5', 'M3');
const lengths = (...list: [path: string, label: string][]): Field[] => list.map(([path, label]) => ({ path, label, type: 'number', unit: 'mm' }));
const numbers = (of: string, label: string, unit: string, names: string[]): Field[] =>
  names.map((n): Field => ({ path: `${of}.${n}`, label: `${label} ${n.replaceAll('-', ' ')}`, type: 'number', unit, whole: true }));
const across = (base = ''): Field[] => [
  { path: `${base}xMM`, label: 'across', type: 'number', unit: 'mm' },
  { path: `${base}yMM`, label: 'along', type: 'number', unit: 'mm' },
];
const holes = (path: string, label: string, threads = false): Field => ({ path, label, type: 'list', add: 'Add a pattern', fields: [...across(),
  ...(threads ? [{ path: 'screw', label: 'screw', type: 'pick', options: screwSizes } as Field, { path: 'depthMM', label: 'depth of the thread', type: 'number', unit: 'mm' } as Field] : [])] });
const port = (base: string): Field[] => [
  { path: `${base}.bands`, label: 'radio bands in GHz', type: 'words', hint: '5.8 or 2.4, 5.8' },
  { path: `${base}.antennas`, label: 'how many antennas', type: 'number', unit: '', whole: true },
  connectorRef(`${base}.plug`, 'antenna plug'),
];
const controllersField: Field = {
  path: 'controllers', label: 'controllers that go through the air unit', type: 'list', add: 'Add a controller',
  fields: [
    { path: 'id', label: 'controller', type: 'ref', of: 'gear', kinds: ['controller'], required: true },
    { path: 'firmware', label: 'firmware', type: 'text', hint: '*, >=1.4' },
  ],
};
const fit = (base: string): Field[] => [
  { path: `${base}.analog`, label: 'analog video it carries', type: 'text', hint: 'leave empty for digital' },
  { path: `${base}.airUnit.kit`, label: 'air unit', type: 'ref', of: 'kit', kinds: ['airUnit'] },
  { path: `${base}.goggles.kit`, label: 'goggles', type: 'ref', of: 'kit', kinds: ['goggles'] },
  { path: `${base}.controller.kit`, label: 'controller', type: 'ref', of: 'kit', kinds: ['controller'] },
  { path: `${base}.receiver`, label: 'separate receiver', type: 'ref', of: 'gear', kinds: ['receiver'] },
  { path: `${base}.board`, label: 'flight board', type: 'ref', of: 'gear', kinds: ['board'] },
  { path: `${base}.pack`, label: 'flight pack', type: 'ref', of: 'gear', kinds: ['pack'] },
  {
    path: `${base}.feeds`, label: 'what is fed from what', type: 'list', add: 'Add a feed',
    fields: [
      { path: 'to', label: 'part', type: 'text', required: true, hint: 'airUnit, receiver, board' },
      { path: 'from', label: 'fed from', type: 'text', required: true, hint: 'pack, board.5v' },
    ],
  },
  { path: `${base}.capacitorUF`, label: 'capacitor across the battery leads', type: 'number', unit: 'µF' },
  { path: `${base}.packLead.mm`, label: 'pack lead, one way', type: 'number', unit: 'mm' },
  { path: `${base}.packLead.awg`, label: 'gauge of the pack lead', type: 'number', unit: 'AWG', whole: true },
  { path: `${base}.frame`, label: 'frame', type: 'ref', of: 'gear', kinds: ['frame'] },
  { path: `${base}.bay`, label: 'bay the unit sits in', type: 'text', hint: 'its id' },
  { path: `${base}.plate`, label: 'adapter plate', type: 'ref', of: 'gear', kinds: ['plate'] },
  { path: `${base}.screw`, label: 'screws of the unit', type: 'ref', of: 'gear', kinds: ['screw'] },
  { path: `${base}.washer`, label: 'washers under them', type: 'ref', of: 'gear', kinds: ['washer'] },
  { path: `${base}.softMM`, label: 'soft mounts under the unit', type: 'number', unit: 'mm' },
  { path: `${base}.standoff`, label: 'other standoffs', type: 'ref', of: 'gear', kinds: ['standoff'] },
  { path: `${base}.drill`, label: 'new holes in the frame', type: 'yesno' },
  { path: `${base}.tiltDeg`, label: 'camera looks up by', type: 'number', unit: '°' },
  { path: `${base}.boardTurnDeg`, label: 'flight board turned by', type: 'number', unit: '°', hint: '90: its arrow to the right' },
  { path: `${base}.antennas.models`, label: 'antennas of the air unit', type: 'words', hint: 'ids, one for each, by commas' },
  { path: `${base}.antennas.angleDeg`, label: 'angle between them', type: 'number', unit: '°' },
  { path: `${base}.antennas.carbonMM`, label: 'their distance from carbon', type: 'number', unit: 'mm' },
  { path: `${base}.antennas.controlMM`, label: 'their distance from the sticks’ antenna', type: 'number', unit: 'mm' },
  { path: `${base}.antennas.placed`, label: 'they stand', type: 'pick', options: pick('clear', 'protected') },
  { path: `${base}.antennas.why`, label: 'why so', type: 'text' },
  { path: `${base}.runs.id`, label: 'flight firmware', type: 'ref', of: 'gear', kinds: ['flightFirmware'] },
  { path: `${base}.runs.version`, label: 'its release', type: 'text', hint: '4.5.2', onlyIf: { path: `${base}.runs.id` } },
  { path: `${base}.osd.grid`, label: 'grid of the OSD layout', type: 'text', hint: '30x16' },
  { path: `${base}.osd.elements`, label: 'OSD elements', type: 'list', add: 'Add an element', onlyIf: { path: `${base}.osd.grid` }, fields: [
    { path: 'id', label: 'element', type: 'text', required: true, hint: 'battery-voltage' }, { path: 'x', label: 'column, from 0', type: 'number', unit: '', whole: true }, { path: 'y', label: 'row, from 0', type: 'number', unit: '', whole: true }] },
  { path: `${base}.sticks.order`, label: 'channel order', type: 'text', hint: 'AETR' },
  { path: `${base}.sticks.minUS`, label: 'sticks from', type: 'number', unit: 'µs', whole: true }, { path: `${base}.sticks.maxUS`, label: 'sticks to', type: 'number', unit: 'µs', whole: true },
  { path: `${base}.sticks.unit`, label: 'RC protocol in the goggles', type: 'pick', options: pick('normal', 'fast', 'low-latency') },
  { path: `${base}.sticks.board`, label: 'RC protocol on the board', type: 'pick', options: pick('normal', 'fast', 'low-latency') },
  { path: `${base}.sticks.switches`, label: 'switches', type: 'list', add: 'Add a switch', fields: [
    { path: 'mode', label: 'mode', type: 'pick', options: pick('arm', 'level', 'flip-over', 'beeper', 'return-home'), required: true }, { path: 'aux', label: 'AUX', type: 'number', unit: '', whole: true },
    { path: 'fromUS', label: 'from', type: 'number', unit: 'µs', whole: true }, { path: 'toUS', label: 'to', type: 'number', unit: 'µs', whole: true }] },
  { path: `${base}.harness`, label: 'cable of the air unit', type: 'ref', of: 'gear', kinds: ['harness'] },
  { path: `${base}.harnessTo`, label: 'plug of the board it goes into', type: 'text', hint: 'empty: soldered' },
  {
    path: `${base}.wires`, label: 'wires soldered from the air unit', type: 'list', add: 'Add a wire',
    fields: [
      { path: 'pin', label: 'pin', type: 'number', unit: '', whole: true, hint: 'of the air unit, from 1' },
      { path: 'to', label: 'to', type: 'text', required: true, hint: 'ground, tx4, rx4, 10v' },
      { path: 'colour', label: 'colour', type: 'text' },
    ],
  },
  {
    path: `${base}.ports`, label: 'what each serial port is for', type: 'list', add: 'Add a port',
    fields: [
      { path: 'uart', label: 'UART', type: 'number', unit: '', whole: true },
      { path: 'use', label: 'for', type: 'pick', options: pick('msp', 'rc', 'receiver', 'gps', 'telemetry', 'vtx-control', 'other') },
    ],
  },
];

// What of the next fit is measured or decided at the bench, not picked on screen.
const planned: Field[] = fit('next')
  .filter((f) => /\.(capacitorUF|packLead\..*|antennas\.(angleDeg|carbonMM|controlMM|placed|why)|wires|ports|plate|screw|washer|softMM|standoff|drill|tiltDeg|boardTurnDeg|sticks\..*|runs\..*)$/.test(f.path))
  .map((f): Field => ({ ...f, label: `planned: ${f.label}`, onlyIf: { path: 'next' } }));

/** Whether a field is asked for, given what else is entered. */
export function asked(field: Field, entry: Entry): boolean {
  if (!field.onlyIf) return true;
  const value = valueAt(entry, field.onlyIf.path);
  return field.onlyIf.is === undefined ? value !== undefined : value === field.onlyIf.is;
}

export interface Kind {
  kind: string;
  name: string;
  plural: string;
  fields: Field[];
}

const all: Kind[] = [
  { kind: 'quad', name: 'quad', plural: 'quads', fields: [name, { path: 'use', label: 'flown for', type: 'text' },
    { path: 'fullA', label: 'pack current at full throttle', type: 'number', unit: 'A' }, { path: 'auwG', label: 'weight as it flies', type: 'number', unit: 'g' }, ...fit('now'), ...planned] },
  { kind: 'kit', name: 'piece of kit', plural: 'kit', fields: [name,
    { path: 'model', label: 'model', type: 'ref', of: 'gear', kinds: ['airUnit', 'goggles', 'controller'], required: true },
    { path: 'firmware', label: 'firmware it carries', type: 'text', hint: 'as read off the device: 1.0.6' },
    { path: 'mode', label: 'mode it is in', type: 'text', hint: 'goggles: the id of the mode' },
    { path: 'activated', label: 'activated', type: 'yesno' },
    { path: 'antennas', label: 'antennas on the goggles', type: 'words', hint: 'ids, one for each, by commas' },
    { path: 'matings', label: "air unit: times its antenna plugs were on and off", type: 'number', unit: '', whole: true }] },
  { kind: 'spare', name: 'spare', plural: 'spares', fields: [
    { path: 'model', label: 'model', type: 'ref', of: 'gear', kinds: ['regulator', 'receiver', 'pack', 'board', 'harness', 'antenna', 'adapter', 'plate', 'screw', 'washer', 'standoff'], required: true },
    { path: 'count', label: 'how many', type: 'number', unit: '', whole: true }] },
  { kind: 'airUnit', name: 'air unit', plural: 'air units', fields: [...head, ...input, connectorRef('plug.connector', 'its plug'),
    { path: 'plug.pitchMM', label: 'pitch of its pads', type: 'number', unit: 'mm', hint: 'solder pads only' },
    { path: 'plug.pins', label: 'pins', type: 'pins', known: unitPins },
    { path: 'rcOut.inverted', label: 'RC output inverted', type: 'yesno' }, { path: 'rcOut.protocol', label: 'RC output speaks', type: 'text', hint: 'sbus' },
    { path: 'rcOut.variants', label: 'its RC protocols', type: 'words', hint: 'normal, fast' },
    ...['normal', 'fast', 'low-latency'].map((v): Field => ({ path: `rcOut.latencyMS.${v}`, label: `sticks late, ${v}`, type: 'number', unit: 'ms' })),
    { path: 'osd.dialects', label: 'understands MSP', type: 'words', hint: 'common, superset' }, { path: 'osd.canvas', label: 'shows a canvas on firmware', type: 'text', hint: '*, >=1.1' },
    { path: 'osd.grid', label: "its canvas's grid", type: 'text', hint: '53x20' }, { path: 'osd.builtIn', label: 'elements of its own layout', type: 'words' },
    ...port('radio'),
    { path: 'radio.bandPlan', label: 'its channels', type: 'ref', of: 'gear', kinds: ['bandPlan'] }, { path: 'radio.maxMW', label: 'highest transmit power', type: 'number', unit: 'mW' },
    holes('mount.patterns', 'hole patterns', true), { path: 'mount.heightMM', label: 'height', type: 'number', unit: 'mm' },
    ...(['usb', 'bind', 'card'] as const).map((at): Field => ({ path: `mount.access.${at}`, label: `${at} is on the`, type: 'pick', options: sides })),
    ...lengths(['camera.widthMM', 'camera width'], ['camera.heightMM', 'camera height'], ['camera.frontMM', "camera's screws to its front"], ['camera.backMM', "camera's screws to its back"],
      ['camera.lensMM', "camera's screws to the lens's front"], ['camera.cableMM', 'camera cable']),
    { path: 'camera.perSide', label: 'camera screws a side', type: 'number', unit: '', whole: true },
    { path: 'massG', label: 'mass', type: 'number', unit: 'g' }, ...device] },
  { kind: 'goggles', name: 'goggles', plural: 'goggles', fields: [...head, ...port('receive'), { path: 'canvas', label: 'show a canvas on firmware', type: 'text', hint: '*, >=4.4' }, ...device,
    { path: 'modes', label: 'modes', type: 'list', add: 'Add a mode', fields: [
      { path: 'id', label: 'id', type: 'text', required: true, hint: 'such as first' },
      { path: 'name', label: 'name', type: 'text' },
      { path: 'firmware', label: 'from firmware', type: 'text', hint: '>=4.6' }] }] },
  { kind: 'controller', name: 'controller', plural: 'controllers', fields: [...head, ...device] },
  { kind: 'receiver', name: 'receiver', plural: 'receivers', fields: [...head, ...input,
    { path: 'fullDuplex', label: 'needs both pads of its port', type: 'yesno' }, { path: 'inverted', label: 'its signal is inverted', type: 'yesno' },
    { path: 'latencyMS', label: 'sticks late', type: 'number', unit: 'ms' }, { path: 'protocols', label: 'protocols', type: 'words', hint: 'crsf, sbus' },
    { path: 'fromMHz', label: 'its radio uses from', type: 'number', unit: 'MHz' }, { path: 'toMHz', label: 'to', type: 'number', unit: 'MHz' }] },
  { kind: 'board', name: 'flight board', plural: 'flight boards', fields: [...head, ...input.slice(0, 2),
    { path: 'usbSide', label: 'its USB, arrow to the front, is', type: 'pick', options: sides },
    { path: 'pads', label: 'power pads', type: 'list', add: 'Add a pad', fields: [
      { path: 'id', label: 'id', type: 'text', required: true, hint: 'such as 10v' },
      { path: 'kind', label: 'carries', type: 'pick', options: pick('pack', 'regulated', 'jumper'), required: true },
      ...converter.map((f): Field => ({ onlyIf: { path: 'kind', is: 'regulated' }, ...f })),
      { path: 'choices', label: 'choices', type: 'words', hint: 'such as pack, 5v', onlyIf: { path: 'kind', is: 'jumper' } },
      { path: 'default', label: 'as delivered', type: 'text', hint: 'such as 5v', onlyIf: { path: 'kind', is: 'jumper' } },
      { path: 'aliveOnUSB', label: 'alive on USB', type: 'yesno', onlyIf: { path: 'kind', is: 'regulated' } }] },
    { path: 'uarts', label: 'serial ports', type: 'list', add: 'Add a port', fields: [
      { path: 'id', label: 'UART', type: 'number', unit: '', whole: true },
      { path: 'tx', label: 'TX broken out', type: 'yesno' }, { path: 'rx', label: 'RX broken out', type: 'yesno' },
      { path: 'hardware', label: 'hardware port', type: 'yesno', hint: 'no: soft-serial' },
      { path: 'invert', label: 'inverted signal', type: 'pick', options: pick('none', 'pad', 'jumper', 'software') }] },
    { path: 'plugs', label: 'plugs and rows of pads', type: 'list', add: 'Add a plug', fields: [
      { path: 'id', label: 'id', type: 'text', required: true, hint: 'such as hd' }, { path: 'name', label: 'name', type: 'text' },
      connectorRef('connector', 'connector'), { path: 'pitchMM', label: 'pitch of pads', type: 'number', unit: 'mm' },
      { path: 'pins', label: 'pins', type: 'pins', known: boardPins }] }] },
  { kind: 'regulator', name: 'regulator', plural: 'regulators', fields: [...head, ...converter, ...input.slice(0, 2),
    { path: 'efficiency', label: 'efficiency', type: 'number', unit: '0 to 1' }] },
  { kind: 'pack', name: 'flight pack', plural: 'flight packs', fields: [...head,
    { path: 'chemistry', label: 'chemistry', type: 'pick', options: [
      { value: 'lipo', name: 'lithium polymer, 4.20 V' }, { value: 'lihv', name: 'lithium polymer, 4.35 V' },
      { value: 'liion', name: 'cylindrical lithium-ion' }, { value: 'lifepo', name: 'iron phosphate' }] },
    { path: 'cells', label: 'cells in series', type: 'number', unit: '', whole: true },
    { path: 'milliohmPerCell', label: 'resistance of a cell', type: 'number', unit: 'mΩ' }] },
  { kind: 'connector', name: 'connector', plural: 'connectors', fields: [...head,
    { path: 'pitchMM', label: 'pitch', type: 'number', unit: 'mm' }, { path: 'pins', label: 'pins', type: 'number', unit: '', whole: true },
    { path: 'matings', label: 'survives being plugged', type: 'number', unit: 'times', whole: true }, { path: 'maxA', label: 'current a pin', type: 'number', unit: 'A' }] },
  { kind: 'harness', name: 'harness', plural: 'harnesses', fields: [...head,
    { path: 'from', label: "connector at the air unit's end", type: 'ref', of: 'gear', kinds: ['connector'] },
    { path: 'to', label: "connector at the board's end", type: 'ref', of: 'gear', kinds: ['connector'], hint: 'none: bare ends' },
    { path: 'wires', label: 'wires', type: 'wires' }] },
  { kind: 'antenna', name: 'antenna', plural: 'antennas', fields: [...head,
    { path: 'bands', label: 'bands', type: 'list', add: 'Add a band', fields: [
      { path: 'band', label: 'band in GHz', type: 'text', required: true, hint: '5.8' }, { path: 'gainDBi', label: 'gain', type: 'number', unit: 'dBi' }] },
    { path: 'polarisation', label: 'polarisation', type: 'pick', options: [{ value: 'rhcp', name: 'right-hand circular' }, { value: 'lhcp', name: 'left-hand circular' }, { value: 'linear', name: 'linear' }] },
    { path: 'beamDeg', label: 'width of its beam', type: 'number', unit: '°', hint: '360: all round' }, connectorRef('plug', 'its plug'),
    { path: 'barrelMM', label: 'length of its barrel', type: 'number', unit: 'mm' },
    { path: 'pattern', label: 'pattern', type: 'list', add: 'Add a point', hint: 'off its strongest direction, from 0°', fields: [
      { path: 'offDeg', label: 'off by', type: 'number', unit: '°' }, { path: 'dB', label: 'weaker by', type: 'number', unit: 'dB, 0 or less' }] },
    { path: 'leadMM', label: 'length of its lead', type: 'number', unit: 'mm' }, { path: 'leadLossDBPM', label: 'loss of its lead', type: 'number', unit: 'dB a metre' },
    { path: 'massG', label: 'mass', type: 'number', unit: 'g' }] },
  { kind: 'adapter', name: 'adapter', plural: 'adapters', fields: [...head,
    connectorRef('from', "the antenna's plug"), connectorRef('to', 'goes onto'), { path: 'lossDB', label: 'loss', type: 'number', unit: 'dB' }] },
  { kind: 'region', name: 'region', plural: 'regions', fields: [...head,
    { path: 'limits', label: 'limits', type: 'list', add: 'Add a limit', fields: [
      { path: 'band', label: 'band in GHz', type: 'text', required: true, hint: '5.8' }, { path: 'maxEIRPmW', label: 'most it may radiate', type: 'number', unit: 'mW EIRP' }] }] },
  { kind: 'bandPlan', name: 'band plan', plural: 'band plans', fields: [...head,
    { path: 'channels', label: 'channels', type: 'list', add: 'Add a channel', fields: [
      { path: 'id', label: 'channel', type: 'text', required: true }, { path: 'mhz', label: 'its middle', type: 'number', unit: 'MHz' }, { path: 'widthMHz', label: 'how wide', type: 'number', unit: 'MHz' }] }] },
  { kind: 'frame', name: 'frame', plural: 'frames', fields: [...head,
    ...lengths(['cageMM', 'camera cage'], ['guardMM', 'cage stands out by'], ['cameraDownMM', "camera's screws to the bottom plate"], ['cameraUpMM', "camera's screws to the top plate"],
      ['cameraBackMM', "camera's screws to what is behind"], ['standoffMM', 'standoffs']),
    { path: 'standoffSize', label: "standoffs' thread", type: 'pick', options: screwSizes }, { path: 'standoffs', label: 'how many standoffs', type: 'number', unit: '', whole: true },
    { path: 'cagePerSide', label: 'camera screws a side', type: 'number', unit: '', whole: true },
    { path: 'boardOpen', label: 'flight board reached from', type: 'words', hint: 'left, rear' }, { path: 'massG', label: 'mass', type: 'number', unit: 'g' },
    { path: 'bays', label: 'bays', type: 'list', add: 'Add a bay', fields: [
      { path: 'id', label: 'id', type: 'text', required: true, hint: 'such as rear' }, { path: 'name', label: 'name', type: 'text' },
      ...lengths(['plateMM', 'thickness the screws go through'], ['heightMM', 'clear height'], ['solidXMM', 'solid across, for new holes'], ['solidYMM', 'solid along'],
        ['cameraMM', "camera cable's way"], ['antennaMM', "antenna leads' way"]),
      { path: 'raised', label: 'standoffs raise it', type: 'yesno' }, { path: 'open', label: 'reached when closed', type: 'words', hint: 'rear, top, left' },
      holes('patterns', 'hole patterns')] }] },
  { kind: 'plate', name: 'adapter plate', plural: 'adapter plates', fields: [...head,
    ...across('from.').map((f): Field => ({ ...f, label: `frame, ${f.label}` })), ...across('to.').map((f): Field => ({ ...f, label: `unit, ${f.label}` })),
    { path: 'thickMM', label: 'thickness', type: 'number', unit: 'mm' }, { path: 'massG', label: 'mass', type: 'number', unit: 'g' }, { path: 'printed', label: 'can be printed', type: 'yesno' }] },
  { kind: 'screw', name: 'screw', plural: 'screws', fields: [...head,
    { path: 'size', label: 'size', type: 'pick', options: screwSizes }, { path: 'lengthMM', label: 'length under the head', type: 'number', unit: 'mm' }] },
  { kind: 'flightFirmware', name: 'flight firmware', plural: 'flight firmware', fields: [...head,
    { path: 'variant', label: 'what it calls itself over MSP', type: 'text', hint: 'four capital letters' },
    { path: 'dialect', label: 'kind of MSP', type: 'pick', options: pick('common', 'superset') },
    { path: 'canvasFrom', label: 'draws a canvas from', type: 'text', hint: 'such as 4.4' },
    { path: 'needsTelemetry', label: 'the sticks need the telemetry feature', type: 'yesno' },
    { path: 'avoid', label: 'releases to keep off', type: 'list', add: 'Add a warning', fields: [
      { path: 'firmware', label: 'releases', type: 'text', required: true, hint: '>=4.5 <4.5.2' }, { path: 'why', label: 'why', type: 'text', required: true }] },
    ...numbers('functions', 'port function', 'bit', ['msp', 'displayport', 'digital', 'rc', 'gps', 'esc-telemetry', 'vtx-control']),
    ...numbers('features', 'feature', 'bit', ['osd', 'rx-serial', 'telemetry']),
    ...numbers('providers', 'receiver', 'number', ['sbus', 'crsf']),
    ...numbers('modes', 'mode', 'number', ['arm', 'level', 'flip-over', 'beeper', 'return-home']),
    { path: 'elements', label: 'OSD elements', type: 'list', add: 'Add an element', fields: [
      { path: 'id', label: 'id', type: 'text', required: true, hint: 'battery-voltage' }, { path: 'name', label: 'name', type: 'text' },
      { path: 'index', label: 'its place in the list', type: 'number', unit: '', whole: true }, { path: 'shows', label: 'looks like', type: 'text', hint: '16.4V' },
      { path: 'width', label: 'cells across', type: 'number', unit: '', whole: true }, { path: 'height', label: 'rows', type: 'number', unit: '', whole: true },
      { path: 'instead', label: 'tells nearly the same', type: 'words' }] }] },
  { kind: 'washer', name: 'washer', plural: 'washers', fields: [...head, { path: 'size', label: 'size', type: 'pick', options: screwSizes }, ...lengths(['thickMM', 'thickness'])] },
  { kind: 'standoff', name: 'standoff', plural: 'standoffs', fields: [...head,
    { path: 'size', label: 'thread', type: 'pick', options: screwSizes }, ...lengths(['lengthMM', 'length']), { path: 'massG', label: 'mass', type: 'number', unit: 'g' }] },
  { kind: 'pairing', name: 'pairing', plural: 'pairings', fields: [
    { path: 'airUnit', label: 'air unit', type: 'ref', of: 'gear', kinds: ['airUnit'], required: true },
    { path: 'airFirmware', label: 'its firmware', type: 'text', hint: '*, <=1.0.6, >=1.1 <2' },
    { path: 'goggles', label: 'goggles', type: 'ref', of: 'gear', kinds: ['goggles'], required: true },
    { path: 'gogglesFirmware', label: 'their firmware', type: 'text', hint: '*, >=4.1' },
    { path: 'mode', label: 'mode the goggles must be in', type: 'text', hint: 'empty: any' },
    { path: 'never', label: 'never links, whatever the firmware', type: 'yesno' }, controllersField,
    sourceField, { path: 'source.text', label: 'which sheet or measurement', type: 'text' }] },
];

// What the shopping list can ask for.
const bought = ['airUnit', 'receiver', 'regulator', 'harness', 'antenna', 'adapter', 'plate', 'screw', 'washer', 'standoff'];

export const kinds: Kind[] = all.map((k) => (bought.includes(k.kind) ? { ...k, fields: [...k.fields, ...offer] } : k));

export function kindOf(kind: string): Kind | undefined {
  return kinds.find((k) => k.kind === kind);
}
