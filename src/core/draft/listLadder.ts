import { type Check, type Line, type Need, type ProbePoint, type Stage, socketedChips } from '../kit';
import { CAUTIONS } from '../power';
import { functionChecks, soak, type Known, lookStage, measure, observe, slug } from './stageParts';

const ground: ProbePoint = { net: '0' };

/** Least ohms between a rail and ground of a board that is not shorted (common practice, no source). */
const LEAST_OHMS = 1000;
/** A bench supply or adapter holds its volts within this share. */
const SUPPLY = 0.05;
const FIXED = 0.04;

/**
 * Stages of a kit of which only the list is known: from its regulators, rails named in its text, polarised parts, need of a
 * supply, LEDs. Windows are typed ones: what the text and the rules of the trade say (common practice, no source).
 */
export function listLadder({ lines, needs, title, built = false }: Known): Stage[] {
  const fitted = lines.filter((l) => !l.notFitted);
  const all = fitted.flatMap((l) => l.refs);
  if (all.length === 0) return [];
  const socketed = built ? [] : socketedChips(fitted);
  const supply = needs.find((n) => n.kind === 'supply' || n.kind === 'battery');
  const input = supply?.volts ?? namedVolts([title, ...needs.map((n) => n.text)].join(' '));
  const regulated = fitted.flatMap(regulatedVolts);
  const rails: Check[] = [
    ...(input === null
      ? []
      : [
          measure('v-in', `supply at the board, ${input} V`, {
            mode: 'dcv',
            red: { net: 'supply +' },
            black: ground,
            window: about(input, SUPPLY),
            note: 'Behind a guard diode 0.7 V less, behind a bridge 1.4 V less.',
          }),
        ]),
    ...regulated.map(({ ref, volts }) =>
      measure(`v-${slug(ref)}`, `output of ${ref}, ${volts} V`, { mode: 'dcv', red: { ref, pin: 'output' }, black: ground, window: about(volts, FIXED) }),
    ),
  ];
  const cold: Check[] = [
    measure('r-in', 'supply input, plus to minus', { mode: 'ohms', red: { net: 'supply +' }, black: ground, window: { low: LEAST_OHMS, high: null } }),
    ...regulated.map(({ ref }) =>
      measure(`r-${slug(ref)}`, `output of ${ref} to ground`, {
        mode: 'ohms',
        red: { ref, pin: 'output' },
        black: ground,
        window: { low: LEAST_OHMS, high: null },
      }),
    ),
  ];
  const leds = fitted.filter((l) => l.kind === 'led').flatMap((l) => l.refs);
  const lit: Check[] = leds.length === 0 ? [] : [observe('leds', 'LEDs', 'Look at the LEDs', 'Those that should be are lit', { channels: leds })];
  const cool = observe(
    'cool',
    'nothing gets warm',
    'Power on for half a minute, the back of a finger near regulators and chips',
    'Nothing gets hot, no smell, no sound',
  );
  const power: Stage = {
    id: 'p-power',
    title: built ? 'Supply, from its plug inwards' : socketed.length > 0 ? 'First power, sockets empty' : 'First power, limited',
    kind: 'power',
    note: powerNote(supply, input),
    fits: [],
    supplies: [],
    cautions: [CAUTIONS.power, CAUTIONS.mains],
    checks: [cool, ...rails, ...(socketed.length > 0 ? sockets(socketed, regulated[0]?.volts ?? input) : lit)],
  };
  const chips: Stage[] =
    socketed.length === 0
      ? []
      : [
          {
            id: 'p-chips',
            title: 'Chips in',
            kind: 'power',
            note: 'Power off before the chips go in; notch to notch.',
            fits: socketed,
            supplies: [],
            checks: [{ ...cool }, ...rails.map((c) => ({ ...c })), ...lit],
          },
        ];
  return [
    lookStage(
      fitted,
      all.filter((r) => !socketed.includes(r)),
    ),
    {
      id: 'p-cold',
      title: 'Cold: ohms of the rails',
      kind: 'cold',
      note: 'No power. Capacitors charge through the meter: wait until the reading stands.',
      fits: [],
      supplies: [],
      power: 'unplugged',
      cautions: [CAUTIONS.cold],
      checks: cold,
    },
    power,
    ...chips,
    {
      id: 'p-load',
      title: 'In use',
      kind: 'load',
      fits: [],
      supplies: [],
      cautions: [CAUTIONS.hot],
      checks: [...functionChecks(fitted), soak('Let it run')],
    },
  ];
}

const about = (volts: number, share: number) => ({ low: round(volts - Math.abs(volts) * share), high: round(volts + Math.abs(volts) * share) });
const round = (v: number) => Number(v.toPrecision(4));

const sockets = (refs: readonly string[], volts: number | null): Check[] =>
  refs.map((ref) =>
    measure(`socket-${slug(ref)}`, `empty socket ${ref}: its supply pin`, {
      mode: 'dcv',
      red: { ref, pin: 'supply' },
      black: { ref, pin: 'ground' },
      ...(volts === null ? {} : { window: about(volts, SUPPLY) }),
    }),
  );

function powerNote(need: Need | undefined, volts: number | null): string {
  const from = need
    ? `It wants: ${need.text}.`
    : volts === null
      ? 'The list does not say what it runs from: look at the instructions, and type the windows.'
      : `It seems to run from ${volts} V.`;
  return `${from} From a supply with a current limit, or a weak battery first.`;
}

/** The first voltage that a text names, such as `12 V`; null without one. */
function namedVolts(text: string): number | null {
  const match = /(?:^|[^\d.,])(\d{1,2}(?:[.,]\d)?)\s?V(?:DC|AC)?\b/i.exec(text);
  return match ? Number(match[1]!.replace(',', '.')) : null;
}

/** Fixed regulators by their type (7805-like: the last two digits are volts; data sheets, from memory). */
function regulatedVolts(line: Line): { readonly ref: string; readonly volts: number }[] {
  const type = `${line.type ?? ''} ${line.label}`;
  const fixed = /\b(?:L|LM|MC|UA|KA)?(7[89])[LM]?(05|06|08|09|10|12|15|18|24)\b/i.exec(type);
  const low = /1117\D{0,3}(1\.8|2\.5|3\.3|5\.0|5)\b/i.exec(type);
  const volts = fixed ? Number(fixed[2]) * (fixed[1] === '79' ? -1 : 1) : low ? Number(low[1]) : null;
  return volts === null ? [] : line.refs.map((ref) => ({ ref, volts }));
}
