import type { LineKind } from './kinds';

/** How a body is built, as the eye tells it apart. */
export const SHAPES = [
  'axial',
  'axial-glass',
  'axial-plastic',
  'disc',
  'bead',
  'film',
  'can',
  'drum',
  'chip',
  'chip-diode',
  'sot23',
  'to92',
  'to126',
  'to220',
  'dip',
  'so',
  'sil',
  'trimmer',
  'trimmer-multiturn',
  'control',
  'led',
  'led-chip',
  'relay',
  'terminal',
  'header',
  'jack',
  'socket',
  'crystal',
  'coin-clip',
  'battery',
  'toggle',
  'slide',
  'key',
  'buzzer',
  'loudspeaker',
  'fuse',
  'lamp',
  'ldr',
  'link',
  'screw',
  'drop',
  'bridge',
  'microphone',
  'display',
  'module',
  'transformer',
  'sink',
  'unknown',
] as const;
export type Shape = (typeof SHAPES)[number];

/** A pin seen from above, millimetres from the middle of the body. */
export interface Pad {
  readonly pin: number;
  readonly x: number;
  readonly y: number;
}

/** Pads of a body that lies somewhere, turned clockwise by so many degrees, millimetres. */
export function padsAsPlaced(pads: readonly Pad[], { x, y, rotation }: { readonly x: number; readonly y: number; readonly rotation: number }): Pad[] {
  const [cos, sin] = [Math.cos((rotation * Math.PI) / 180), Math.sin((rotation * Math.PI) / 180)];
  return pads.map((p) => ({ pin: p.pin, x: x + p.x * cos - p.y * sin, y: y + p.x * sin + p.y * cos }));
}

export interface Package {
  readonly shape: Shape;
  /** Body seen from above, millimetres. */
  readonly width: number;
  readonly height: number;
  readonly pads: readonly Pad[];
  /** False where nothing tells how it is built: it is drawn plain and says so. */
  readonly known: boolean;
}

interface Described {
  readonly kind: LineKind;
  readonly label: string;
  readonly package?: string | undefined;
  readonly type?: string | undefined;
  readonly value?: number | null | undefined;
}

/** 0.1 inch, the grid of through-hole boards. */
const PITCH = 2.54;

const row = (pins: number, pitch = PITCH, y = 0): Pad[] => Array.from({ length: pins }, (_, i) => ({ pin: i + 1, x: (i - (pins - 1) / 2) * pitch, y }));
const pair = (span: number): Pad[] => row(2, span);

/** Pins of a dual in-line body, counted anticlockwise from the notch at the left (JEDEC MS-001). */
function dual(pins: number, pitch: number, rows: number): Pad[] {
  const side = Math.max(1, Math.ceil(pins / 2));
  return Array.from({ length: pins }, (_, i) =>
    i < side ? { pin: i + 1, x: (i - (side - 1) / 2) * pitch, y: rows / 2 } : { pin: i + 1, x: ((side - 1) / 2 - (i - side)) * pitch, y: -rows / 2 },
  );
}

const make = (shape: Shape, width: number, height: number, pads: readonly Pad[], known = true): Package => ({ shape, width, height, pads, known });

/** Chip sizes by their imperial code, millimetres (IEC 60115-8, EIA code). */
const CHIP_SIZES: Readonly<Record<string, readonly [number, number]>> = {
  '0402': [1, 0.5],
  '0603': [1.6, 0.8],
  '0805': [2, 1.25],
  '1206': [3.2, 1.6],
  '1210': [3.2, 2.5],
  '2010': [5, 2.5],
  '2512': [6.4, 3.2],
};

/** A number of pins from words: `DIP-8`, `14 pin`, `8 pins`, `2 poles`; null when none is told. */
export function pinCount(words: string): number | null {
  const found =
    /(?:DIP|DIL|PDIP|SOIC|SOP|SSOP|TSSOP|SO|SIP|SIL|MSOP)[-\s]?(\d{1,2})\b/i.exec(words) ??
    /\b(\d{1,2})[-\s]?(?:pins?|poles?|ways?|pol\b|fach|broches|pines|pinos|脚|pin\b)/i.exec(words) ??
    /\b(\d{1,2})p\b/i.exec(words);
  const count = found ? Number(found[1]) : 0;
  return count >= 1 && count <= 64 ? count : null;
}

/** Body size of a can by its capacitance and volts where no size is told (common practice, no source), millimetres. */
const canDiameter = (value: number | null | undefined) =>
  value == null || value < 47e-6 ? 5 : value < 330e-6 ? 6.3 : value < 1e-3 ? 8 : value < 2.2e-3 ? 10 : 13;

const diameterIn = (words: string): number | null => {
  const found = /\b(\d{1,2}(?:[.,]\d)?)\s?mm\b/i.exec(words) ?? /[øØ]\s?(\d{1,2}(?:[.,]\d)?)/.exec(words) ?? /\b(\d{1,2}(?:[.,]\d)?)\s?[x×]\s?\d/i.exec(words);
  return found ? Number(found[1]!.replace(',', '.')) : null;
};

/** What the package column or the words say outright, whatever the kind is. */
function byName(words: string, kind: LineKind): Package | null {
  // What a heat sink is for says nothing of its own body.
  if (kind === 'heatsink') return null;
  const chip = /(?:^|[^\d])(0402|0603|0805|1206|1210|2010|2512)(?!\d)/.exec(words)?.[1];
  if (chip) {
    const [w, h] = CHIP_SIZES[chip]!;
    return make(kind === 'led' ? 'led-chip' : 'chip', w, h, pair(w));
  }
  if (/SOT-?23|SOT-?323|TO-?236/i.test(words)) {
    return make('sot23', 2.9, 1.3, [
      { pin: 1, x: -0.95, y: 1.1 },
      { pin: 2, x: 0.95, y: 1.1 },
      { pin: 3, x: 0, y: -1.1 },
    ]);
  }
  if (/TO-?92|TO-?226/i.test(words)) return make('to92', 4.8, 3.8, row(3, 1.27 * 2, 0));
  if (/TO-?126|SOT-?32\b/i.test(words)) return make('to126', 8, 3, row(3, PITCH));
  if (/TO-?220|TO-?247|TO-?218|TO-?202/i.test(words)) return make('to220', 10.2, 4.6, row(pinsBeside(words, 3), PITCH, 0.6));
  if (/SOD-?\d+|MINI-?MELF|MELF|DO-?21[34]|\bSM[ABC]\b/i.test(words)) return make('chip-diode', 3.6, 1.6, pair(3.6));
  if (/DO-?35|DO-?34/i.test(words)) return make('axial-glass', 4, 2, pair(3 * PITCH));
  if (/DO-?41|DO-?15|DO-?201/i.test(words)) return make('axial-plastic', 5.2, 2.7, pair(4 * PITCH));
  if (/\b(?:SOIC|SOP|SSOP|TSSOP|MSOP)\b|\bSO-?\d/i.test(words)) {
    const pins = pinCount(words) ?? 8;
    return make('so', (pins / 2) * 1.27, 3.9, dual(pins, 1.27, 5.2));
  }
  if (/\b[CP]?DI[PL]\b|\bDI[PL]-?\d/i.test(words) && kind !== 'switch' && kind !== 'socket') return dipOf(pinCount(words) ?? 8);
  if (/\bSI[PL]\b|\bSI[PL]-?\d/i.test(words)) return silOf(pinCount(words) ?? 9);
  return null;
}

const pinsBeside = (words: string, usual: number) => Number(/TO-?220-?([2-9])\b/i.exec(words)?.[1] ?? usual);
const dipOf = (pins: number) => make('dip', (pins / 2) * PITCH, 6.4, dual(pins, PITCH, pins > 20 ? 15.24 : 7.62));
const silOf = (pins: number) => make('sil', pins * PITCH, 2.5, row(pins));

/** Three-legged regulators stand in TO-220 when they are of the one-ampere families, in TO-92 when small (data sheet habit). */
const SMALL_REGULATOR = /78L|79L|317L|L\d\d\b|431/i;

function byKind({ kind, value }: Described, words: string): Package {
  switch (kind) {
    case 'resistor': {
      const watts = Number(/(\d+(?:[.,]\d+)?)\s?W\b/i.exec(words)?.[1]?.replace(',', '.') ?? 0.25);
      return watts >= 5
        ? make('axial', 22, 9, pair(10 * PITCH))
        : watts >= 2
          ? make('axial', 12, 4.5, pair(7 * PITCH))
          : make('axial', 6.4, 2.5, pair(4 * PITCH));
    }
    case 'network':
      return /dil|dip/i.test(words) ? dipOf(pinCount(words) ?? 16) : silOf(pinCount(words) ?? 9);
    case 'capacitor':
      return /film|foil|box|MKT|MKP|polyester|polyprop|mylar|folie|薄膜|CBB|CL\d/i.test(words)
        ? make('film', 7.2, 2.5, pair(2 * PITCH))
        : make('disc', 5, 2.6, pair(2 * PITCH));
    case 'electrolytic': {
      const d = diameterIn(words) ?? canDiameter(value);
      return /axial/i.test(words) ? make('axial', 11, 5, pair(6 * PITCH)) : make('can', d, d, pair(d <= 6.3 ? PITCH : d <= 8 ? 3.5 : 5));
    }
    case 'tantalum':
      return make('drop', 4.5, 3.5, pair(PITCH));
    case 'inductor':
      return /radial|drum|power|storage/i.test(words) ? make('drum', 8, 8, pair(5)) : make('axial', 7, 3, pair(4 * PITCH));
    case 'trimmer':
      if (/multi|25[-\s]?turn|turns|3296|spindel/i.test(words)) return make('trimmer-multiturn', 9.5, 4.8, row(3));
      return /pot(?!entio)|shaft|control|knob|volume/i.test(words)
        ? make('control', 16, 12, row(3, 5, 6))
        : make('trimmer', 6.5, 6.5, [
            { pin: 1, x: -PITCH, y: 2.5 },
            { pin: 2, x: 0, y: -2.5 },
            { pin: 3, x: PITCH, y: 2.5 },
          ]);
    case 'potentiometer':
      return make('control', 16, 12, row(3, 5, 6));
    case 'varistor':
      return make('disc', 10, 4, pair(3 * PITCH));
    case 'bridge':
      return /DB\d|MB\d|dip/i.test(words) ? dipOf(4) : make('bridge', 9, 9, dual(4, 5.08, 5.08));
    case 'thermistor':
      return make('bead', 4, 2.6, pair(PITCH));
    case 'ldr':
      return make('ldr', 5, 4.3, pair(3.4));
    case 'lamp':
      return make('lamp', 5, 5, pair(PITCH));
    case 'fuse':
      return make('fuse', 20, 5.2, pair(22));
    case 'relay':
      return make('relay', 19, 15.5, [
        { pin: 1, x: -7.5, y: -6 },
        { pin: 2, x: -7.5, y: 6 },
        { pin: 3, x: -7.5, y: 0 },
        { pin: 4, x: 6.7, y: -6 },
        { pin: 5, x: 6.7, y: 6 },
      ]);
    case 'diode':
      return /40\d\d|54\d\d|58\d\d|power|rectif/i.test(words) ? make('axial-plastic', 5.2, 2.7, pair(4 * PITCH)) : make('axial-glass', 4, 2, pair(3 * PITCH));
    case 'zener':
      return make('axial-glass', 4, 2, pair(3 * PITCH));
    case 'led': {
      const d = diameterIn(words);
      return make('led', d !== null && d <= 12 ? d : 5, d !== null && d <= 12 ? d : 5, pair(PITCH));
    }
    case 'npn':
    case 'pnp':
      return /TIP\d|BD2\d\d|BDX|2N3055|MJE|D8\d\d/i.test(words)
        ? make('to220', 10.2, 4.6, row(3, PITCH, 0.6))
        : /BD1\d\d|MJE3/i.test(words)
          ? make('to126', 8, 3, row(3))
          : make('to92', 4.8, 3.8, row(3));
    case 'nmos':
    case 'pmos':
      return /2N700|BS170|BS250|VN\d/i.test(words) ? make('to92', 4.8, 3.8, row(3)) : make('to220', 10.2, 4.6, row(3, PITCH, 0.6));
    case 'njf':
    case 'pjf':
      return make('to92', 4.8, 3.8, row(3));
    case 'regulator':
      return SMALL_REGULATOR.test(words) ? make('to92', 4.8, 3.8, row(3)) : make('to220', 10.2, 4.6, row(3, PITCH, 0.6));
    case 'optocoupler':
      return dipOf(pinCount(words) ?? (/817|TLP\d|CNY/i.test(words) ? 4 : /6N13/i.test(words) ? 8 : 6));
    case 'opamp':
    case 'timer':
      return dipOf(pinCount(words) ?? (/324|339|347|074|084|\bquad/i.test(words) ? 14 : 8));
    case 'microcontroller':
    case 'ic': {
      const pins = pinCount(words);
      if (pins !== null) return dipOf(pins);
      // Without a number of pins the body of a chip is not known.
      return { ...dipOf(8), known: false };
    }
    case 'socket':
      return socketOf(pinCount(words) ?? 8);
    case 'crystal':
      return make('crystal', 11, 4.7, pair(4.9));
    case 'connector':
      return connector(words);
    case 'switch':
      if (/slide|schiebe|拨动/i.test(words)) return make('slide', 8.5, 3.7, row(3));
      return /toggle|kipp|rocker|lever/i.test(words)
        ? make('toggle', 12.5, 6.8, row(3, 4.7))
        : make('key', 6, 6, [
            { pin: 1, x: -3.25, y: 2.25 },
            { pin: 2, x: 3.25, y: 2.25 },
            { pin: 3, x: 3.25, y: -2.25 },
            { pin: 4, x: -3.25, y: -2.25 },
          ]);
    case 'link':
      return make('link', 4 * PITCH, 1, pair(4 * PITCH));
    case 'display':
      return /lcd|128|1602|oled/i.test(words)
        ? make('display', 80, 36, row(16, PITCH, -15))
        : make('display', 12.6, 19, dual(pinCount(words) ?? 10, PITCH, 15.24));
    case 'module':
      return make('module', 20, 15, row(pinCount(words) ?? 4, PITCH, 6));
    case 'loudspeaker':
      return make('loudspeaker', 28, 28, pair(8));
    case 'buzzer':
      return make('buzzer', 12, 12, pair(7.6));
    case 'microphone':
      return make('microphone', 9.7, 9.7, pair(PITCH));
    case 'motor':
      return make('drum', 20, 20, pair(10));
    case 'transformer':
      return make('transformer', 22, 19, [
        { pin: 1, x: -7.5, y: -7.5 },
        { pin: 2, x: -7.5, y: 7.5 },
        { pin: 3, x: 7.5, y: -7.5 },
        { pin: 4, x: 7.5, y: 7.5 },
      ]);
    case 'battery':
    case 'holder':
      return /fuse|sicherung|fusible|предохр|保险/i.test(words) ? make('fuse', 22, 9, pair(22)) : byWords(`${words} battery`);
    case 'heatsink':
      return make('sink', 23, 16, []);
    case 'case':
    case 'board':
    case 'wire':
    case 'consumable':
    case 'document':
      return make('unknown', 9, 6, [], false);
    case 'mechanical':
    case 'other':
      return byWords(words);
  }
}

const socketOf = (pins: number) => make('socket', (pins / 2) * PITCH, 10, dual(pins, PITCH, pins > 20 ? 15.24 : 7.62));

function connector(words: string): Package {
  const pins = pinCount(words) ?? 2;
  if (/jack|barrel|socket.*mm|DC[-\s]?\d/i.test(words)) return make('jack', 14, 9, row(3, 4.8));
  if (/socket|fassung|zócalo|插座/i.test(words) && pins >= 6) return socketOf(pins);
  if (/header|pin strip|stiftleiste|jumper|pins?\b(?!.*screw)/i.test(words) && !/screw|terminal|block|klemme/i.test(words))
    return make('header', pins * PITCH, 2.5, row(pins));
  return make('terminal', pins * 5.08, 7.6, row(pins, 5.08));
}

function byWords(words: string): Package {
  if (/coin|CR20\d\d|cell (?:clip|holder)/i.test(words)) return make('coin-clip', 23, 16, pair(20));
  if (/batter|9\s?V clip|snap/i.test(words)) return make('battery', 26, 17, pair(12));
  if (/speaker|lautsprecher|喇叭/i.test(words)) return make('loudspeaker', 28, 28, pair(8));
  if (/buzz|beep|piezo|summer|蜂鸣/i.test(words)) return make('buzzer', 12, 12, pair(7.6));
  if (/crystal|quarz|晶振/i.test(words)) return make('crystal', 11, 4.7, pair(4.9));
  if (/screw|nut|spacer|standoff|washer|schraube|bolt/i.test(words)) return make('screw', 6, 6, []);
  return make('unknown', 9, 6, pair(2 * PITCH), false);
}

/** The body of a line's parts: what its package says, else what parts of its kind and type usually have. */
export function packageOf(part: Described): Package {
  const words = [part.package, part.type, part.label].filter(Boolean).join(' ');
  return byName(part.package ?? '', part.kind) ?? byName(words, part.kind) ?? byKind(part, words);
}
