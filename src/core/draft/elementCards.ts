import { ledModel, type LibraryItem, MODELS, zenerModel } from '../circuit';
import type { Line, Ref } from '../kit';
import { cardFor } from '../typecard';
import { OPAMP_PINS, packageOf } from '../vocabulary';

/** A part of the list as the drawing shows it: its pins, and the cards that stand for it in a deck. */
export interface DrawnPart {
  /** Names of its pins, in the order in which one asks for them. */
  readonly pins: readonly string[];
  /** Cards of its elements, given the net of each pin; none for a chip without a model. */
  cards: (nets: readonly string[]) => readonly string[];
  readonly needs: readonly LibraryItem[];
  /** Whether the circuit computes what it does. */
  readonly modelled: boolean;
}

/** Values of parts whose list gives none (common practice, no source). */
const USUAL = {
  resistor: 10e3,
  ldr: 5e3,
  thermistor: 10e3,
  lamp: 100,
  fuse: 0.1,
  relay: 400,
  trimmer: 10e3,
  capacitor: 1e-7,
  electrolytic: 1e-5,
  inductor: 1e-3,
} as const;
const CLOSED_OHMS = 0.05;
const LINK_OHMS = 0.01;
/** A crystal at rest is its holder, farads (common practice, no source). */
const HOLDER_FARADS = 5e-12;
/** Drop-out and own current of fixed regulators (common types, from memory). */
const DROP_VOLTS = 2;

const letterFirst = (letter: string, ref: Ref) => (ref[0]?.toUpperCase() === letter ? ref : `${letter}${ref}`);

/** How a line's part is drawn; null for what a drawing does not show (screws, sockets, spacers). */
export function drawnPart(line: Line, ref: Ref): DrawnPart | null {
  const two = (letter: string, value: number | string, pins: readonly string[] = ['1', '2'], ...needs: LibraryItem[]): DrawnPart => ({
    pins,
    cards: (nets) => [`${letterFirst(letter, ref)} ${nets.join(' ')} ${value}`],
    needs,
    modelled: true,
  });
  const three = (letter: string, pins: readonly string[], model: LibraryItem, order = (nets: readonly string[]) => nets): DrawnPart => ({
    pins,
    cards: (nets) => [`${letterFirst(letter, ref)} ${order(nets).join(' ')} ${model.name}`],
    needs: [model],
    modelled: true,
  });
  switch (line.kind) {
    case 'resistor':
    case 'ldr':
    case 'thermistor':
    case 'lamp':
    case 'fuse':
    case 'relay':
      return two('R', line.value ?? USUAL[line.kind]);
    case 'capacitor':
      return two('C', line.value ?? USUAL.capacitor);
    case 'electrolytic':
    case 'tantalum':
      return two('C', line.value ?? USUAL.electrolytic, ['+', '-']);
    case 'inductor':
      return two('L', line.value ?? USUAL.inductor);
    case 'switch':
      return two('R', CLOSED_OHMS);
    case 'link':
      return two('R', LINK_OHMS);
    case 'potentiometer':
    case 'trimmer': {
      const half = (line.value ?? USUAL.trimmer) / 2;
      return {
        pins: ['1', 'wiper', '3'],
        cards: ([a, wiper, b]) => [`R${ref}a ${a!} ${wiper!} ${half}`, `R${ref}b ${wiper!} ${b!} ${half}`],
        needs: [],
        modelled: true,
      };
    }
    case 'diode':
    case 'zener':
    case 'led': {
      const model = diodeModel(line);
      return two('D', model.name, ['A', 'K'], model);
    }
    case 'npn':
      return three('Q', ['C', 'B', 'E'], MODELS.npn);
    case 'pnp':
      return three('Q', ['C', 'B', 'E'], MODELS.pnp);
    case 'nmos':
    case 'pmos':
      return three('M', ['D', 'G', 'S'], MODELS[line.kind], ([d, g, s]) => [d!, g!, s!, s!]);
    case 'njf':
    case 'pjf':
      return three('J', ['D', 'G', 'S'], MODELS[line.kind]);
    case 'network':
      return network(line, ref);
    case 'crystal':
      return { ...two('C', HOLDER_FARADS), modelled: false };
    case 'connector':
      return pinsAlone(ref, numbered(pinsOf(line)));
    case 'opamp':
    case 'regulator':
    case 'timer':
    case 'ic':
    case 'microcontroller':
      return chip(line, ref);
    default:
      return null;
  }
}

/** A row of resistors: from its pin 1 to each of the others, or between pins in pairs where the list says isolated. */
function network(line: Line, ref: Ref): DrawnPart {
  const ohms = line.value ?? USUAL.resistor;
  const pins = numbered(pinsOf(line));
  const isolated = /isolat|separate|einzel|getrennt/i.test(`${line.label} ${line.note ?? ''}`);
  const card = (k: number, a: string, b: string) => `${letterFirst('R', ref)}${SECTIONS[k]!} ${a} ${b} ${ohms}`;
  return {
    pins,
    cards: (nets) =>
      isolated
        ? Array.from({ length: Math.floor(nets.length / 2) }, (_, k) => card(k, nets[2 * k]!, nets[2 * k + 1]!))
        : nets.slice(1).map((net, k) => card(k, nets[0]!, net)),
    needs: [],
    modelled: true,
  };
}
const SECTIONS = 'abcdefghijklmnopqrstuvwxyz';

const numbered = (count: number) => Array.from({ length: count }, (_, i) => String(i + 1));
/** As many pins as its body has, and as a network or a connector can have. */
const pinsOf = (line: Line) => Math.min(SECTIONS.length, Math.max(2, packageOf(line).pads.length));

/** Its pins keep their nets; what it does is not computed. */
function pinsAlone(ref: Ref, pins: readonly string[]): DrawnPart {
  const model = hollow(pins.length);
  return { pins, cards: (nets) => [`X${ref} ${nets.join(' ')} ${model.name}`], needs: [model], modelled: false };
}

function diodeModel(line: Line): LibraryItem {
  if (line.kind === 'zener') return zenerModel(line.value ?? 5.1);
  if (line.kind === 'led') return ledModel(line.colour ?? 'red');
  const type = `${line.type ?? ''} ${line.label}`.toUpperCase();
  if (/1N58\d\d|SCHOTTKY|BAT\d/.test(type)) return MODELS.schottky;
  return /1N400\d|1N540\d|RECTIFIER/.test(type) ? MODELS.rectifier : MODELS.signalDiode;
}

/** A chip by its type: with the model of its family, or with its pins alone. */
function chip(line: Line, ref: Ref): DrawnPart {
  const type = `${line.type ?? ''} ${line.label}`.toUpperCase();
  const as = (pins: readonly string[], needs: readonly LibraryItem[], call: string): DrawnPart => ({
    pins,
    cards: (nets) => [`X${ref} ${nets.join(' ')} ${call}`],
    needs,
    modelled: true,
  });
  const fixed = /78[LM]?(\d\d)/.exec(type);
  if (fixed)
    return as(['in', 'ground', 'out'], [MODELS.regulator], `REGULATOR v=${Number(fixed[1])} drop=${DROP_VOLTS} iq=5m lim=${/78L/.test(type) ? 0.1 : 1}`);
  if (/317/.test(type)) return as(['in', 'adjust', 'out'], [MODELS.adjustable], 'ADJUSTABLE');
  if (/431/.test(type)) return as(['cathode', 'anode', 'reference'], [MODELS.shunt], 'SHUNTREF');
  const pins = Object.values(cardFor(line, [])?.pins ?? {})[0];
  if (line.kind === 'opamp' && (pins?.length ?? 5) <= 5) return as(OPAMP_PINS, [MODELS.opamp], 'OPAMP');
  if (line.kind === 'opamp' && pins?.length === DUAL_PINS) return as(pins, [MODELS.opamp, DUAL], DUAL.name);
  return pinsAlone(ref, pins ?? numbered(Math.max(packageOf(line).pads.length, 3)));
}

const DUAL_PINS = 8;
/** Two op-amps in one body, in the usual order of its eight pins (from memory). */
export const DUAL: LibraryItem = {
  name: 'DUALOPAMP',
  text: `.subckt DUALOPAMP outa inna inpa vn inpb innb outb vp
Xa inpa inna vp vn outa OPAMP
Xb inpb innb vp vn outb OPAMP
.ends DUALOPAMP`,
  source: 'two of the op-amp above',
};

/** A chip that nobody can compute: its pins keep their nets, nothing is inside. */
export const hollow = (pins: number): LibraryItem => ({
  name: `NOMODEL${pins}`,
  text: `.subckt NOMODEL${pins} ${Array.from({ length: pins }, (_, i) => `p${i + 1}`).join(' ')}\n.ends NOMODEL${pins}`,
  source: 'no model',
});
