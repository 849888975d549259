/**
 * The warming jacket of a honey tank: fed through its own fuse and a switch, and, unknown to its owner, a second
 * time through a pilot resistor from the accessory line. With the jacket off, both ends of a blown fuse are live.
 */
import type { CircuitFile } from '../core/format';

const at = (place: string, lead: string) => [{ place, lead }];

export const BACK_FED: CircuitFile = {
  format: 'every-trace/circuit',
  version: 1,
  id: 'pickup-jacket',
  name: 'Honey-tank warming jacket',
  nominalVolts: 12,
  reference: 'minus',
  places: [
    { id: 'bay', name: 'Engine bay', minutesToOpen: 1 },
    { id: 'box', name: 'Box behind the seat', minutesToOpen: 2 },
    { id: 'bed', name: 'Load bed', minutesToOpen: 0 },
  ],
  nodes: [
    { id: 'plus', name: 'battery plus post', access: at('bay', 'the plus post') },
    { id: 'minus', name: 'battery minus post', access: at('bay', 'the minus post') },
    { id: 'feed', name: 'feed side of fuse J1', access: at('box', 'the upper blade of fuse J1') },
    { id: 'fused', name: 'load side of fuse J1', access: at('box', 'the lower blade of fuse J1') },
    { id: 'acc', name: 'accessory line at fuse J2', access: at('box', 'the upper blade of fuse J2') },
    { id: 'pilot', name: 'load side of fuse J2', access: at('box', 'the lower blade of fuse J2') },
    { id: 'switched', name: 'jacket switch output', access: at('box', 'the lower tab of the switch') },
    { id: 'jacket-plus', name: 'jacket plug, feed', access: at('bed', 'the red pin') },
    { id: 'jacket-minus', name: 'jacket plug, earth', access: at('bed', 'the black pin') },
  ],
  parts: [
    { id: 'B', kind: 'battery', name: 'Battery', pins: { plus: 'plus', minus: 'minus' }, place: 'bay' },
    {
      id: 'WF',
      kind: 'wire',
      name: 'Feed cable',
      pins: { a: 'plus', b: 'feed' },
      lengthMetres: 3,
      sizeMm2: 6,
    },
    {
      id: 'J1',
      kind: 'fuse',
      name: 'Fuse J1 (15 A)',
      pins: { in: 'feed', out: 'fused' },
      ratingAmps: 15,
      place: 'box',
    },
    {
      id: 'K1',
      kind: 'key-contact',
      name: 'Accessory contact of the key switch',
      pins: { in: 'feed', out: 'acc' },
      closedIn: ['accessory', 'run'],
    },
    {
      id: 'J2',
      kind: 'fuse',
      name: 'Fuse J2 (3 A)',
      pins: { in: 'acc', out: 'pilot' },
      ratingAmps: 3,
      place: 'box',
    },
    { id: 'RP', kind: 'resistor', name: 'Pilot resistor', pins: { a: 'pilot', b: 'fused' }, ohms: 470 },
    {
      id: 'S1',
      kind: 'switch',
      name: 'Jacket switch',
      positions: ['off', 'on'],
      rest: 'off',
      pins: { in: 'fused', out: 'switched' },
      contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
      place: 'box',
    },
    {
      id: 'W1',
      kind: 'wire',
      name: 'Jacket feed',
      pins: { a: 'switched', b: 'jacket-plus' },
      lengthMetres: 4,
      sizeMm2: 2.5,
    },
    {
      id: 'H1',
      kind: 'heater',
      name: 'Warming jacket',
      pins: { plus: 'jacket-plus', minus: 'jacket-minus' },
      watts: 110,
      place: 'bed',
    },
    {
      id: 'W2',
      kind: 'wire',
      name: 'Jacket earth',
      pins: { a: 'jacket-minus', b: 'minus' },
      lengthMetres: 4,
      sizeMm2: 2.5,
    },
  ],
  conditions: [
    { id: 'off', name: 'Key off, jacket off', key: 'off', switches: { S1: 'off' } },
    { id: 'run-off', name: 'Key on, jacket off', key: 'run', switches: { S1: 'off' } },
    { id: 'run-on', name: 'Key on, jacket on', key: 'run', switches: { S1: 'on' } },
  ],
  functions: [{ id: 'jacket', name: 'Warming jacket', load: 'H1' }],
};
