'use client';
import type { Line } from '@/core/kit';
import { type LineKind, packageOf } from '@/core/vocabulary';
import { PartBody } from './Body';
import { marksOf } from './marks';
import styles from './PartsSheet.module.css';
import { Top } from './Top';

type Sample = readonly [LineKind, string, Partial<Line>?];

/** One of each body, as a parts list would name it. */
export const SAMPLES: readonly Sample[] = [
  ['resistor', '4.7 k', { value: 4700, tolerance: [-0.05, 0.05] }],
  ['resistor', '3.32 k 1 %', { value: 3320, tolerance: [-0.01, 0.01] }],
  ['resistor', '0.47 Ω 5 W', { value: 0.47 }],
  ['resistor', '10 k 0805', { value: 10000, package: '0805' }],
  ['network', 'SIL-9 10 k', { value: 10000 }],
  ['network', 'DIP-16 network 1 k', { value: 1000 }],
  ['capacitor', '100 nF', { value: 1e-7 }],
  ['capacitor', '470 nF film', { value: 4.7e-7 }],
  ['capacitor', '100 nF 1206', { value: 1e-7, package: '1206' }],
  ['electrolytic', '10 µF 25 V', { value: 1e-5 }],
  ['electrolytic', '2200 µF 25 V', { value: 2.2e-3 }],
  ['inductor', '100 µH', { value: 1e-4 }],
  ['inductor', '330 µH radial', { value: 3.3e-4 }],
  ['trimmer', '10 k trimmer', { value: 10000 }],
  ['trimmer', '10 k multiturn', { value: 10000 }],
  ['trimmer', '50 k volume pot with shaft', { value: 50000 }],
  ['thermistor', '10 k NTC', { value: 10000 }],
  ['ldr', 'light sensor'],
  ['lamp', 'lamp 12 V'],
  ['fuse', 'fuse 500mA'],
  ['diode', '1N4148'],
  ['diode', '1N4007', { package: 'DO-41' }],
  ['diode', '1N4148W', { package: 'SOD-123' }],
  ['zener', 'Zener 5.6 V', { value: 5.6 }],
  ['led', 'LED red 5 mm', { colour: 'red' }],
  ['led', 'LED green 3 mm', { colour: 'green' }],
  ['led', 'LED blue 0805', { colour: 'blue', package: '0805' }],
  ['npn', 'BC547'],
  ['npn', 'BC847', { package: 'SOT-23' }],
  ['npn', 'BD139', { package: 'TO-126' }],
  ['nmos', 'power MOSFET', { package: 'TO-220' }],
  ['regulator', '7805'],
  ['regulator', '317', { package: 'TO-220' }],
  ['regulator', '78L05'],
  ['opamp', '358 DIP-8'],
  ['timer', '555 8 pins'],
  ['ic', '4017 DIP-16'],
  ['ic', '24C02 SO-8', { package: 'SO-8' }],
  ['ic', 'power amplifier chip SIL-9'],
  ['socket', 'socket 8 pins'],
  ['relay', 'Relay 12 V'],
  ['crystal', '16 MHz', { value: 16e6 }],
  ['connector', 'screw block 2 poles'],
  ['connector', 'pin header 6 pins'],
  ['connector', 'DC jack 5.5/2.1'],
  ['switch', 'key 6 × 6'],
  ['switch', 'slide switch'],
  ['switch', 'toggle switch'],
  ['other', 'coin cell clip'],
  ['other', '9 V battery clip'],
  ['other', 'buzzer'],
  ['other', 'loudspeaker 8 Ω'],
  ['link', 'wire link'],
  ['tantalum', '10 µF 16 V', { value: 1e-5 }],
  ['bridge', 'B40C1500'],
  ['microphone', 'Electret 9x7'],
  ['display', '7-segment, common cathode'],
  ['module', 'RF module'],
  ['transformer', 'EI19'],
  ['heatsink', 'Cooling fin'],
  ['mechanical', 'M3 screw'],
  ['other', 'something else'],
];

export const sampleLine = ([kind, label, more]: Sample): Line => ({ id: label, kind, label, value: null, tolerance: null, quantity: 1, refs: [], ...more });

/** Room around a body on the sheet, millimetres. */
const MARGIN = 3;

/** All bodies side by side, in the hand and on the board: for looking at, not part of the product's navigation. */
export function PartsSheet() {
  return (
    <main className={styles.sheet}>
      <h1>Bodies</h1>
      <ul className={styles.list}>
        {SAMPLES.map((sample) => {
          const line = sampleLine(sample);
          const { shape, known } = packageOf(line);
          return (
            <li key={line.id} className={styles.sample}>
              <b>{line.label}</b>
              <small className="soft">
                {shape}
                {known ? '' : ', not known'}
              </small>
              <PartBody line={line} />
              <FromAbove line={line} />
            </li>
          );
        })}
      </ul>
    </main>
  );
}

function FromAbove({ line }: { line: Line }) {
  const marks = marksOf(line);
  const { body } = marks;
  const w = 2 * Math.max(body.width / 2, ...body.pads.map((p) => Math.abs(p.x))) + MARGIN;
  const h = 2 * Math.max(body.height / 2, ...body.pads.map((p) => Math.abs(p.y))) + MARGIN;
  return (
    <svg viewBox={`${-w / 2} ${-h / 2} ${w} ${h}`} className={styles.board} aria-hidden="true">
      <rect x={-w / 2} y={-h / 2} width={w} height={h} fill="var(--board)" />
      <Top marks={marks} pins="pads" />
    </svg>
  );
}
