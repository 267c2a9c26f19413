import type { Feed } from '../bringup';
import { type Check, type Line, type Need, type ProbePoint, type Stage, socketedChips } from '../kit';
import { CAUTIONS } from '../power';
import { supplyPins } from '../vocabulary';
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
export const listLadder = (known: Known): Stage[] => stagesOf(known).map((s) => ({ ...s, checks: s.checks.map(asUsual) }));

/** Limits by the rules of the trade stand in nobody's instructions, and are not called so. */
const asUsual = (c: Check): Check => (c.what === 'measure' && c.window && c.window.from === undefined ? { ...c, window: { ...c.window, from: 'usual' } } : c);

function stagesOf({ lines, needs, title, feeds: told, built = false }: Known): Stage[] {
  const feeds = told ?? windingsWanted(needs);
  const fitted = lines.filter((l) => !l.notFitted);
  const all = fitted.flatMap((l) => l.refs);
  if (all.length === 0) return [];
  const socketed = built ? [] : socketedChips(fitted);
  const supply = needs.find((n) => n.kind === 'supply' || n.kind === 'battery');
  const cell = supply ? null : cellVolts(fitted);
  const input = supply?.volts ?? cell ?? namedVolts([title, ...needs.map((n) => n.text)].join(' '));
  const inputLimits =
    input === null ? null : cell !== null || BATTERY.test(`${supply?.kind ?? ''} ${supply?.text ?? ''}`) ? battery(input) : about(input, SUPPLY);
  const regulated = fitted.flatMap(regulatedVolts);
  const winding = feeds.find((f) => f.kind === 'winding');
  const volts = new Set(regulated.map((r) => r.volts));
  // Of several regulators nobody knows which one feeds a chip; volts of a winding are none of a rail.
  const rail = volts.size === 1 ? about([...volts][0]!, SUPPLY) : volts.size > 1 || winding ? null : inputLimits;
  const rails: Check[] = [
    ...feeds.flatMap((f, k) => (f.kind === 'winding' ? [windingVolts(f, k)] : [])),
    ...(winding && rectified(fitted) ? [behindRectifier(winding)] : []),
    ...(winding ? [...zeners(fitted), ...(isSupplyKit(fitted) ? behindZener(fitted) : [])] : []),
    ...(input === null || inputLimits === null || winding
      ? []
      : [
          measure('v-in', `supply at the board, ${input} V`, {
            mode: 'dcv',
            red: { net: 'supply +' },
            black: ground,
            window: inputLimits,
            note: 'Behind a guard diode 0.7 V less, behind a bridge 1.4 V less.',
          }),
        ]),
    ...regulated.map(({ ref, volts }) =>
      measure(`v-${slug(ref)}`, `output of ${ref}, ${volts} V`, { mode: 'dcv', red: { ref, pin: 'output' }, black: ground, window: about(volts, FIXED) }),
    ),
  ];
  const cold: Check[] = [
    ...(winding
      ? []
      : [measure('r-in', 'supply input, plus to minus', { mode: 'ohms', red: { net: 'supply +' }, black: ground, window: { low: LEAST_OHMS, high: null } })]),
    ...reservoirs(fitted),
    ...(winding && rectified(fitted) ? [backwards] : []),
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
    note: winding ? windingNote(winding) : powerNote(supply, input),
    fits: [],
    supplies: [],
    cautions: [CAUTIONS.power, CAUTIONS.mains],
    checks: [cool, ...rails, ...(socketed.length > 0 ? sockets(fitted, socketed, rail) : lit)],
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
      note: 'No power. Capacitors charge through the meter: wait until the reading holds.',
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

/** Windings that the list asks for: AC volts are no DC supply. Their ends are where the lead is soldered. */
const windingsWanted = (needs: readonly Need[]): Feed[] =>
  needs.flatMap((n): Feed[] =>
    (n.kind === 'supply' || n.kind === 'other') && n.volts !== undefined && /\bAC\b|~|transform|trafo|winding|wechsel/i.test(n.text)
      ? [{ net: 'AC input 1', back: 'AC input 2', kind: 'winding', volts: n.volts }]
      : [],
  );

const isElectrolytic = (l: Line) => l.kind === 'electrolytic' || l.kind === 'tantalum';

/** Across every electrolytic: more than a wire, whatever hangs on it. */
const reservoirs = (lines: readonly Line[]): Check[] =>
  lines
    .filter(isElectrolytic)
    .flatMap((l) => l.refs)
    .map((ref) =>
      measure(`r-${slug(ref)}`, `across ${ref}`, {
        mode: 'ohms',
        red: { ref, pin: '1' },
        black: { ref, pin: '2' },
        window: { low: ACROSS_RESERVOIR, high: null },
        note: 'It charges through the meter: wait until the reading holds. A few ohms mean a short or a bridge.',
      }),
    );
const ACROSS_RESERVOIR = 40;

const rectified = (lines: readonly Line[]) =>
  lines.some((l) => l.kind === 'bridge') || lines.filter((l) => l.kind === 'diode').flatMap((l) => l.refs).length >= 4;

/** AC volts of a winding that hardly carries anything: 10 to 30 % above its print, mains 6 % either way (common practice, no source). */
export const windingVolts = ({ net, back, volts }: Feed, k: number): Check =>
  measure(`ac-${k}`, `AC volts of the winding, ${volts} V under its full load`, {
    mode: 'acv',
    red: { net },
    black: { net: back },
    window: { low: round(0.91 * volts - 0.5), high: round(1.42 * volts + 1.5) },
  });

/** The peak of the winding less two diodes, on a reservoir. */
const behindRectifier = ({ volts }: Feed): Check =>
  measure('v-rectified', 'volts behind the rectifier', {
    mode: 'dcv',
    red: { net: 'supply +' },
    black: ground,
    window: { low: round(0.9 * Math.SQRT2 * volts - 2.2), high: round(1.4 * Math.SQRT2 * volts - 1) },
  });

/** A zener that sets a voltage hangs with its plain end on ground, nearly always (common practice, no source). */
const zeners = (lines: readonly Line[]): Check[] =>
  lines
    .filter((l) => l.kind === 'zener' && l.value !== null && l.value > 2)
    .flatMap((l) =>
      l.refs.map((ref) =>
        measure(`z-${slug(ref)}`, `at the stripe of ${ref}, ${l.value!} V`, {
          mode: 'dcv',
          red: { ref, pin: '2' },
          black: ground,
          window: about(l.value!, 0.11),
        }),
      ),
    );

/** Nothing but what a small supply is made of: rectifier, reservoirs, reference, one transistor or regulator, an LED that shows it is on. */
const isSupplyKit = (lines: readonly Line[]): boolean =>
  lines.every((l) => SUPPLY_PARTS.has(l.kind) || l.refs.length === 0) && lines.filter((l) => l.kind === 'npn').flatMap((l) => l.refs).length <= 1;
const SUPPLY_PARTS: ReadonlySet<Line['kind']> = new Set<Line['kind']>([
  ...(['resistor', 'capacitor', 'electrolytic', 'diode', 'bridge', 'zener', 'led', 'npn', 'regulator'] as const),
  ...(['connector', 'heatsink', 'fuse', 'switch', 'board', 'mechanical', 'transformer'] as const),
]);

/** The one transistor follows the one zener, a junction lower; the LED shows the output (textbook circuit). */
const behindZener = (lines: readonly Line[]): Check[] => {
  const zener = lines.filter((l) => l.kind === 'zener');
  const [first] = zener;
  const volts = zener.flatMap((l) => l.refs).length === 1 && first ? first.value : null;
  const follower = volts === null ? [] : lines.filter((l) => l.kind === 'npn').flatMap((l) => l.refs);
  return [
    ...follower.map((ref) =>
      measure(`e-${slug(ref)}`, `emitter of ${ref}, a junction below the zener`, {
        mode: 'dcv',
        red: { ref, pin: '3' },
        black: ground,
        window: { low: round(volts! * 0.9 - 1), high: round(volts! * 1.1 - 0.4) },
      }),
    ),
    ...lines
      .filter((l) => l.kind === 'led')
      .flatMap((l) => l.refs)
      .map((ref) => measure(`a-${slug(ref)}`, `anode of ${ref}`, { mode: 'dcv', red: { ref, pin: '1' }, black: ground, window: { low: 1.5, high: 3.7 } })),
  ];
};

/** Backwards through a bridge: two diodes, or what an electrolytic lets through before them. */
const backwards = measure('d-in', 'diode test, red on ground, black behind the rectifier', {
  mode: 'diode',
  red: ground,
  black: { net: 'supply +' },
  window: { low: 0.55, high: 1.5 },
});

/** A new battery gives up to an eighth more than it says, a used one less (common practice, no source). */
const battery = (volts: number) => ({ low: round(0.85 * volts), high: round(1.13 * volts) });
const about = (volts: number, share: number) => ({ low: round(volts - Math.abs(volts) * share), high: round(volts + Math.abs(volts) * share) });
const round = (v: number) => Number(v.toPrecision(4));

/** Supply volts at each empty socket, at the pins that the chip's type has them at. */
const sockets = (lines: readonly Line[], refs: readonly string[], window: { readonly low: number; readonly high: number } | null): Check[] =>
  refs.map((ref) => {
    const line = lines.find((l) => l.refs.includes(ref));
    const known = supplyPins(line?.type ?? line?.label ?? '');
    return measure(`socket-${slug(ref)}`, known ? `empty socket ${ref}: pin ${known.plus} against pin ${known.minus}` : `empty socket ${ref}: its supply pin`, {
      mode: 'dcv',
      red: { ref, pin: known?.plus ?? 'supply' },
      black: { ref, pin: known?.minus ?? 'ground' },
      ...(window === null ? {} : { window }),
    });
  });

/** Volts of the battery whose clip or holder the list names. */
function cellVolts(lines: readonly Line[]): number | null {
  // A coin cell keeps a clock going; it is no supply.
  const cell = lines.find((l) => (l.kind === 'battery' || (l.kind === 'holder' && BATTERY.test(l.label))) && !COIN.test(`${l.label} ${l.type ?? ''}`));
  return cell ? (cell.rating?.volts ?? namedVolts(cell.label)) : null;
}
const COIN = /\bcr\s?\d{4}|coin|button cell|backup|knopf/i;
const BATTERY = /batter|batt\.|cell|accu|akku|pile\b|pila\b|bater|батаре|电池|電池/i;

const windingNote = ({ volts }: Feed) =>
  `It runs from ${volts} V AC. Without load a small transformer gives up to a third more. A lamp in series with its primary, fitted by somebody licensed, shows a short before anything burns.`;

function powerNote(need: Need | undefined, volts: number | null): string {
  const from = need
    ? `It needs: ${need.text}.`
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
