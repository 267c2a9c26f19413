import { parseQuantity, type Unit } from '../quantity';
import type { Check, ProbePoint, Sheet } from '../kit';
import type { CheckMode } from '../vocabulary';
import { legOf } from '../stage';
import { measure, observe, slug } from './stageParts';

/** What names a sentence may use. */
export type Places = Pick<Sheet, 'testPoints' | 'lines' | 'circuit' | 'typeCards'> & {
  /** Nets of the circuit. */
  readonly nets: readonly string[];
  /** Sources of the circuit. */
  readonly sources: readonly string[];
};

export type SentenceReading = { readonly ok: true; readonly check: Check } | { readonly ok: false; readonly message: string };

const NUMBER = String.raw`[-+−]?(?:\d+(?:[.,]\d+)?|[.,]\d+)\s*[pnuµμmkKMG]?`;
const UNIT = String.raw`(?:V\s*(?:DC|AC|RMS)?|VDC|VAC|mV|Ω|ohms?|A|Hz|%)?`;
const AC = /\b(?:V\s?AC|VAC|AC|RMS|ripple)\b/i;

interface Window {
  readonly low: number | null;
  readonly high: number | null;
  readonly unit: Unit | null;
}

/**
 * A check typed as a sentence: `TP4 to ground 2.4-3.1 V with sensor warm`, `current of V1 below 20 mA`,
 * `R5.1 to gnd > 1k`, `press K1: LED2 lights`. What stands behind the window is kept as the condition.
 */
export function readCheckSentence(sentence: string, places: Places): SentenceReading {
  const text = sentence.trim().replace(/\s+/g, ' ');
  const turn = TURN.exec(text);
  if (turn) return readTurn(turn[1]!, turn[2]!, text, places);
  const wait = WAIT.exec(text);
  if (wait) return { ok: true, check: observe(slug(text), text.slice(0, 200), text, `${wait[1]!} have passed`) };
  if (text === '') return { ok: false, message: 'Write what to measure and what it should read, such as: TP4 to ground 2.4-3.1 V with sensor warm' };
  const [action] = text.split(/:\s+/, 1) as [string];
  // `outputs 1-16 one by one: LED lit`: the figures count channels.
  const found = channelsIn(action).length > 0 ? null : findWindow(text);
  if (!found) return readObservation(text);
  const { window } = found;
  const mode = modeOf(found.before, found.after, text, window.unit);
  // `5 V at TP1`: the place may stand behind.
  const isBehind = mode !== 'dca' && wordsOfPlaces(found.before).length === 0 && /^(?:at|on|between|across|from|over)\s/i.test(found.after);
  const [before, after] = isBehind ? [found.after, ''] : [found.before, found.after];
  const condition = after.replace(/^[\s,;:]+/, '');
  const title = (isBehind ? text : before.trim() || text)
    .replace(/[\s,:;]+$/, '')
    .replace(/\s+(?:should be|must be|is|reads|shows)$/i, '')
    .slice(0, 200);
  const limits = { low: window.low, high: window.high };
  if (limits.low !== null && limits.high !== null && limits.low > limits.high)
    return { ok: false, message: `The limits are the wrong way round: ${limits.low} is above ${limits.high}. Write the lower end first.` };
  const note = condition ? { note: condition } : {};
  if (mode === 'dca') {
    const source = places.sources.find((s) => hasWord(before, s)) ?? places.sources[0];
    return {
      ok: true,
      check: measure(slug(`current ${source ?? ''}`), title, {
        mode,
        red: { net: '0' },
        black: { net: '0' },
        ...(source ? { source } : {}),
        window: limits,
        ...note,
      }),
    };
  }
  const points = pointsIn(before, places);
  if (typeof points === 'string') return { ok: false, message: points };
  const [red, black] = points;
  return { ok: true, check: measure(slug(title), title, { mode, red, black, window: limits, ...note }) };
}

/** `turn RV1 until TP1 2.50 V`, `adjust RV1 so that …`, `turn RV2 for the least at TP3`. */
const TURN = /^(?:turn|adjust|trim|set)\s+(\S+)\s+(?:until|till|so that|so|for)\s+(.+)$/i;
const EXTREME =
  /^(?:the\s+)?(least|lowest|minimum|smallest|most|highest|maximum|largest)(?:\s+(?:volts?|voltage|reading|level))?\s+(?:at|of|on|is at)\s+(.+)$/i;
/** `wait 20 min`, `let it warm up for 10 minutes`. */
const WAIT = /^(?:wait|warm up|let it (?:warm up|run|settle|rest))(?:\s+for)?\s+(\d+(?:[.,]\d+)?\s*(?:s|sec(?:ond)?s?|min(?:ute)?s?|h|hours?))\.?$/i;

function readTurn(control: string, rest: string, text: string, places: Places): SentenceReading {
  const adjust = places.lines.flatMap((l) => l.refs).find((r) => r.toLowerCase() === control.toLowerCase());
  if (adjust === undefined) return { ok: false, message: `No control is called ${control}. Write it as the list does.` };
  const extreme = EXTREME.exec(rest);
  if (extreme) {
    const points = pointsIn(extreme[2]!, places);
    if (typeof points === 'string') return { ok: false, message: points };
    const [red, black] = points;
    const aim = /^(?:least|lowest|minimum|smallest)$/i.test(extreme[1]!) ? 'least' : 'most';
    return { ok: true, check: measure(slug(text), text.slice(0, 200), { mode: AC.test(rest) ? 'acv' : 'dcv', red, black, adjust, aim }) };
  }
  const read = readCheckSentence(rest, places);
  return read.ok ? { ok: true, check: { ...read.check, id: slug(text), title: text.slice(0, 200), adjust } } : read;
}

/** `each of SW1-SW8`, `outputs 1-16 one by one`: every one of them; none where the text does not say so. */
function channelsIn(text: string): readonly string[] {
  if (!/\b(?:each|every|one by one|one after another|in turn)\b/i.test(text)) return [];
  const range = /(?:\b(\p{L}+)\s+)?(?<![\p{L}\d])([A-Za-z]*)(\d{1,3})\s*(?:-|–|…|\.\.\.?|to)\s*([A-Za-z]*)(\d{1,3})(?![\p{L}\d])/u.exec(text);
  if (!range) return [];
  const [, noun, letters, from, again, to] = range as unknown as [string, string | undefined, string, string, string, string];
  const count = Number(to) - Number(from) + 1;
  if (count < 2 || count > MOST_CHANNELS || (again !== '' && again.toLowerCase() !== letters.toLowerCase())) return [];
  const head = letters !== '' ? letters : noun !== undefined && !/^(?:of|each|every)$/i.test(noun) ? `${noun.replace(/s$/, '')} ` : '';
  return Array.from({ length: count }, (_, i) => `${head}${Number(from) + i}`);
}
const MOST_CHANNELS = 200;

/** `do this: expect that`, or a lamp that is lit. */
function readObservation(text: string): SentenceReading {
  const [action, expect] = text.split(/:\s+|\s+(?:→|->|=>)\s+/, 2) as [string, string | undefined];
  if (expect) {
    const channels = channelsIn(action);
    return { ok: true, check: observe(slug(action), action.slice(0, 200), action, expect, channels.length > 0 ? { channels } : {}) };
  }
  const state = /\b(?:lit|lights?(?: up)?|glows?|on|off|dark|blinks?|flashes|sounds?|silent|moves|cold|warm)\b/i.exec(text);
  if (state) return { ok: true, check: observe(slug(text), text.slice(0, 200), `Look: ${text}`, text) };
  return {
    ok: false,
    message:
      'No limits were found. Write them behind the place (2.4-3.1 V, about 5 V, > 1k), or what to do and what happens with a colon between: press K1: LED2 lights.',
  };
}

interface Found {
  readonly window: Window;
  readonly before: string;
  readonly after: string;
}

const FORMS: readonly { readonly form: RegExp; readonly read: (m: RegExpExecArray) => Window | null }[] = [
  {
    form: new RegExp(String.raw`(${NUMBER})(${UNIT})\s*(?:±|\+\/-|\+-)\s*(\d+(?:[.,]\d+)?)\s*%`, 'i'),
    read: (m) => {
      const value = quantity(m[1]!, m[2]!);
      const share = Number(m[3]!.replace(',', '.')) / 100;
      return value && { low: tidy(value.value - Math.abs(value.value) * share), high: tidy(value.value + Math.abs(value.value) * share), unit: value.unit };
    },
  },
  {
    form: new RegExp(String.raw`(${NUMBER})\s*(${UNIT})\s*(?:±|\+\/-|\+-)\s*(${NUMBER})\s*(${UNIT})(?![\w.%])`, 'i'),
    read: (m) => {
      const value = quantity(m[1]!, m[2]! === '' ? m[4]! : m[2]!);
      const by = quantity(m[3]!, m[4]! === '' ? m[2]! : m[4]!);
      return value && by && { low: tidy(value.value - Math.abs(by.value)), high: tidy(value.value + Math.abs(by.value)), unit: value.unit };
    },
  },
  {
    form: new RegExp(String.raw`(${NUMBER})\s*(${UNIT})\s*(?:-|–|—|\.\.\.?|…|\bto\b|\bbis\b)\s*(${NUMBER})\s*(${UNIT})(?![\w.])`, 'i'),
    read: (m) => {
      const high = quantity(m[3]!, m[4]!);
      if (!high) return null;
      // `2.4-3.1 k`: the prefix at the end counts for both.
      const prefix = /[pnuµμmkKMG]\s*$/.exec(m[3]!.trim())?.[0] ?? '';
      const low = quantity(/[pnuµμmkKMG]\s*$/.test(m[1]!.trim()) ? m[1]! : `${m[1]!.trim()}${prefix}`, m[2]! || m[4]!);
      return low && { low: low.value, high: high.value, unit: high.unit };
    },
  },
  {
    form: new RegExp(String.raw`(?:>=?|≥|\bat least\b|\babove\b|\bover\b|\bmore than\b)\s*(${NUMBER})\s*(${UNIT})(?![\w.])`, 'i'),
    read: (m) => {
      const value = quantity(m[1]!, m[2]!);
      return value && { low: value.value, high: null, unit: value.unit };
    },
  },
  {
    form: new RegExp(String.raw`(?:<=?|≤|\bat most\b|\bbelow\b|\bunder\b|\bless than\b)\s*(${NUMBER})\s*(${UNIT})(?![\w.])`, 'i'),
    read: (m) => {
      const value = quantity(m[1]!, m[2]!);
      return value && { low: null, high: value.value, unit: value.unit };
    },
  },
  { form: /\b(?:open|over-?range|OL)\b(?:\s+(?:both ways))?/i, read: () => ({ low: OPEN_OHMS, high: null, unit: 'ohm' }) },
  {
    form: new RegExp(String.raw`(?:\babout\b|~|≈|\bca\.?|=)?\s*(${NUMBER})\s*(V\s*(?:DC|AC|RMS)?|VDC|VAC|Ω|ohms?|A|Hz|%)(?![\w.])`, 'i'),
    read: (m) => {
      const value = quantity(m[1]!, m[2]!);
      return value && { low: tidy(value.value - Math.abs(value.value) * ABOUT), high: tidy(value.value + Math.abs(value.value) * ABOUT), unit: value.unit };
    },
  },
];
/** What "about" leaves either way, and what counts as open, ohms (common practice, no source). */
const ABOUT = 0.05;
const OPEN_OHMS = 1e6;
const tidy = (v: number) => Number(v.toPrecision(6));

function findWindow(text: string): Found | null {
  for (const { form, read } of FORMS) {
    for (let from = 0; from < text.length;) {
      const rest = text.slice(from);
      const match = form.exec(rest);
      if (!match) break;
      const at = from + match.index;
      // A digit inside a name (`TP4 to`, `R5.2`) is no quantity.
      const insideName = /[A-Za-z_]$/.test(text.slice(0, at)) || /[A-Za-z_]\d*[.]?$/.test(text.slice(0, at));
      const window = insideName ? null : read(match);
      if (window) return { window, before: text.slice(0, at).trim(), after: text.slice(at + match[0].length).trim() };
      from = at + 1;
    }
  }
  return null;
}

function quantity(number: string, unit: string): { value: number; unit: Unit | null } | null {
  const plain = unit.replace(/\s*(?:DC|AC|RMS)$/i, '').trim();
  const parsed = parseQuantity(`${number.trim()}${plain}`.replace('−', '-'), null);
  return parsed.ok ? { value: parsed.value, unit: parsed.unit } : null;
}

function modeOf(before: string, after: string, text: string, unit: Unit | null): CheckMode {
  if (unit === 'Hz') return 'frequency';
  if (unit === 'percent') return 'duty';
  if (unit === 'A') return 'dca';
  if (unit === 'ohm') return 'ohms';
  if (AC.test(text.slice(before.length, text.length - after.length)) || /\bripple\b|\bAC volts\b/i.test(text)) return 'acv';
  if (/\bdiode\b/i.test(text)) return 'diode';
  if (unit === 'V' || (unit === null && /\bV(?=\s)|\bvolts?\b|\bvoltage\b/.test(before))) return 'dcv';
  if (/\b(?:current|amps?|draws)\b/i.test(before)) return 'dca';
  // A bare number such as `> 1k` between two places without power is ohms.
  return 'ohms';
}

const hasWord = (text: string, word: string) => new RegExp(String.raw`(?:^|[^\w])${word.replace(/[^\w]/g, '\\$&')}(?:[^\w]|$)`, 'i').test(text);

/** Red and black as a sentence names them; ground where only one is named. Otherwise what is wrong, in words. */
function pointsIn(text: string, places: Places): [ProbePoint, ProbePoint] | string {
  const across = /\bacross\s+(\S+)/i.exec(text);
  if (across) {
    const ref = places.lines.flatMap((l) => l.refs).find((r) => r.toLowerCase() === across[1]!.replace(/[,;]$/, '').toLowerCase());
    return ref
      ? [
          { ref, pin: '1' },
          { ref, pin: '2' },
        ]
      : `No part is called ${across[1]!}. Write it as the list does.`;
  }
  const words = wordsOfPlaces(text);
  const [first, second] = words;
  if (!first) return 'Write where the red probe goes: a test point, a net, or a pin such as R5.2.';
  const red = pointOf(first, places);
  if (typeof red === 'string') return red;
  if (!red) return `“${first}” is no test point, net or pin here. Write it as the sheet does, or a pin such as R5.2.`;
  const black = second ? pointOf(second, places) : ({ net: '0' } as ProbePoint);
  if (typeof black === 'string') return black;
  if (!black) return `“${second!}” is no test point, net or pin here. Write it as the sheet does, or ground.`;
  if (JSON.stringify(red) === JSON.stringify(black)) return `Both probes are at ${first}: a check is between two places.`;
  return [red, black];
}

/** What a text names as places, in its order: all other words taken out. */
const wordsOfPlaces = (text: string): string[] =>
  text
    .replace(/\bpin\s+([\w+-]+)\s+of\s+(\S+)/gi, '$2.$1')
    .replace(/\bV(?=\s+(?:at|between|across|on)\b)/g, ' ')
    .replace(/\b(?:should be|must be|diode test|duty(?: cycle)?)\b/gi, ' ')
    .replace(/\b(?:between|from|at|on|over|measure|reads?|shows?|is|voltage|volts|resistance|ohms|the|AC|DC|ripple|frequency|of|pin)\b/gi, ' ')
    .replace(/\b(?:and|against|to|versus|vs)\b/gi, '→')
    .replace(/\s-\s/g, '→')
    .split('→')
    .map((w) => w.trim().replace(/[,:;]+$/, ''))
    .filter(Boolean);

/** A test point, ground, a pin (`R5.2`, `R5 2`) or a net by its name; words where the circuit does not tell which pin is meant. */
function pointOf(name: string, { testPoints, lines, nets, circuit, typeCards }: Places): ProbePoint | string | null {
  const same = (a: string) => a.toLowerCase() === name.toLowerCase();
  const point = testPoints.find((t) => same(t.id));
  if (point) return { testPoint: point.id };
  if (/^(?:0|gnd|ground|minus|earth|masse)$/i.test(name)) return { net: '0' };
  const net = nets.find(same);
  if (net !== undefined) return { net };
  const pin = /^(.+?)[.\s]([\w+-]+)$/.exec(name);
  const ref = pin && lines.flatMap((l) => l.refs).find((r) => r.toLowerCase() === pin[1]!.toLowerCase());
  if (!ref) return null;
  const line = lines.find((l) => l.refs.includes(ref))!;
  const leg = legOf({ circuit, typeCards }, line, ref, pin[2]!);
  if (leg && 'called' in leg)
    return `The circuit does not tell which pin of ${ref} is ${pin[2]!}: it calls them ${leg.called.join(', ')}. Write ${ref}.${leg.called[0]!} or another of these.`;
  return { ref, pin: leg?.pin ?? pin[2]! };
}
