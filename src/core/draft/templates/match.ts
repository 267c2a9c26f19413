import { connectionsOf, GROUND, insertBlock, readSpiceNumber } from '../../circuit';
import type { Line, LineKind, Ref } from '../../kit';
import { CHIP_KINDS } from '../../vocabulary';
import type { TemplateLook, TemplateText } from './template';

/** A part that a template wants: one or several cards (a control has two) with one job. */
export interface Role {
  /** Its ref in the template. */
  readonly ref: Ref;
  readonly job: string;
  /** Kinds of line that can fill it, the likeliest first. */
  readonly kinds: readonly LineKind[];
  /** Its value in the template, SI; null where the kind has none. */
  readonly value: number | null;
}

/** Which ref of the list fills each role; `null` leaves it to the template's own part. */
export type Filled = Readonly<Record<Ref, Ref | null>>;

const CHIPS: readonly LineKind[] = [...CHIP_KINDS, 'regulator'];
/** Kinds by the letter of a card; what a role's words say comes first. */
const KINDS: Readonly<Record<string, readonly LineKind[]>> = {
  R: ['resistor', 'relay', 'ldr', 'thermistor', 'lamp', 'fuse', 'link', 'switch', 'other'],
  C: ['electrolytic', 'capacitor'],
  L: ['inductor'],
  D: ['diode'],
  Q: ['npn', 'pnp'],
  M: ['nmos', 'pmos'],
  J: ['njf', 'pjf'],
  X: CHIPS,
};
const BY_JOB: readonly (readonly [RegExp, readonly LineKind[]])[] = [
  [/control/i, ['trimmer']],
  [/loudspeaker|meter/i, ['other', 'resistor']],
  [/^sensor/i, ['ldr', 'thermistor']],
  [/^relay$/i, ['relay']],
  [/^switch$/i, ['switch', 'nmos', 'pmos']],
  [/lamp/i, ['lamp', 'other']],
  [/^regulator$/i, ['regulator', 'ic']],
  [/^zener$/i, ['zener']],
  [/\bchip$/i, ['ic', 'opamp', 'timer', 'microcontroller']],
  [/^(?:LED|LED \d|.* LED|.*light|shows the relay)$/i, ['led']],
];

function kindsOf(letter: string, job: string): readonly LineKind[] {
  const byLetter = KINDS[letter] ?? [];
  const named = BY_JOB.find(([pattern]) => pattern.test(job))?.[1] ?? [];
  // A resistor of an LED is none.
  if (letter === 'R' && !/control|sensor|relay|switch|lamp|loudspeaker|meter/i.test(job)) return ['resistor'];
  return named.length > 0 ? named : byLetter;
}

/** A name without the letter that decks put in front, and without the half of a control. */
const refOfCard = (name: string): Ref => name.replace(/^X(?=U)|^R(?=RV|VR|LD|LS|LA|K\d|S\d)/i, '').replace(/(?<=^RV\d+|^U\d+)[ab]$/i, '');

const deckOf = (text: TemplateText) => `t\n${text.cards.map((c) => c.card).join('\n')}`;

/** The parts that a template wants, in its order. */
export function rolesOf(text: TemplateText): Role[] {
  const jobs = new Map(text.cards.flatMap((c) => (c.role === null ? [] : [[c.card.split(/\s+/)[0]!, c.role] as const])));
  const roles = new Map<Ref, Role>();
  for (const { name, rest } of connectionsOf(deckOf(text))) {
    const job = jobs.get(name);
    if (job === undefined) continue;
    const ref = refOfCard(name);
    const known = roles.get(ref);
    const value = /^[RCL]/i.test(name) ? readSpiceNumber(rest) : null;
    roles.set(ref, known ? { ...known, value: (known.value ?? 0) + (value ?? 0) } : { ref, job, kinds: kindsOf(name[0]!.toUpperCase(), job), value });
  }
  return [...roles.values()];
}

/** How ill a line fits a role: 0 the same value; infinite for another kind. */
function misfit(role: Role, line: Line): number {
  const rank = role.kinds.indexOf(line.kind);
  if (rank < 0) return Infinity;
  const far = role.value !== null && line.value !== null && role.value > 0 && line.value > 0 ? Math.abs(Math.log(line.value / role.value)) : 0;
  return far + 0.2 * rank;
}

/** Proposes a ref of the list for each role: the best fit first, every ref once. Refs in `taken` stand in the circuit already. */
export function matchRoles(roles: readonly Role[], lines: readonly Line[], taken: ReadonlySet<Ref>): Filled {
  const pairs = roles.flatMap((role, i) =>
    lines
      .filter((l) => !l.notFitted && misfit(role, l) < Infinity)
      .flatMap((l) => l.refs.filter((ref) => !taken.has(ref)).map((ref) => ({ role: role.ref, i, ref, by: misfit(role, l) + (ref === role.ref ? -1e-3 : 0) }))),
  );
  pairs.sort((a, b) => a.by - b.by || a.i - b.i);
  const filled: Record<Ref, Ref | null> = Object.fromEntries(roles.map((r) => [r.ref, null]));
  const used = new Set<Ref>();
  for (const { role, ref } of pairs) {
    if (filled[role] !== null || used.has(ref)) continue;
    filled[role] = ref;
    used.add(ref);
  }
  return filled;
}

/** How a template meets a deck and a list. */
export interface Placing {
  readonly filled: Filled;
  /** Roles whose part is not on this board. */
  readonly absent: ReadonlySet<Ref>;
  /** Nets, lower case, on which it meets what is there. */
  readonly shared: ReadonlySet<string>;
}

export interface PlacedTemplate {
  readonly deck: string;
  readonly points: Readonly<Record<string, string>>;
  readonly looks: readonly TemplateLook[];
  /** Refs of the list that the circuit has no place for. */
  readonly beyond: readonly Ref[];
}

/** Puts a template into a deck: its parts under the list's refs and with the list's values, its inner nets apart from those there. */
export function placeTemplate(deck: string, text: TemplateText, lines: readonly Line[], { filled, absent, shared }: Placing): PlacedTemplate {
  const roles = rolesOf(text);
  const there = connectionsOf(deck);
  const names = new Set(there.map((c) => c.name.toLowerCase()));
  const nets = new Set(there.flatMap((c) => c.pins.map((p) => p.net.toLowerCase())));
  const netName = (net: string) => (net === GROUND || shared.has(net.toLowerCase()) || !nets.has(net.toLowerCase()) ? net : free(`${net}_`, nets));
  const lineOf = (ref: Ref) => lines.find((l) => l.refs.includes(ref));
  const jobs = new Map(text.cards.map((c) => [c.card.split(/\s+/)[0]!, c.role]));
  const renamed = new Map<Ref, Ref>();
  // A part as in the template takes no ref that the list, or the circuit, gives to another one; a control keeps one ref for its halves.
  const taken = new Set([...lines.flatMap((l) => l.refs), ...there.map((c) => refOfCard(c.name))].map((r) => r.toLowerCase()));
  const refFor = ({ ref }: Role): Ref => {
    const found = renamed.get(ref) ?? filled[ref] ?? (taken.has(ref.toLowerCase()) ? free(ref.replace(/\d+$/, ''), taken) : ref);
    renamed.set(ref, found);
    taken.add(found.toLowerCase());
    return found;
  };
  const cards = connectionsOf(deckOf(text)).flatMap(({ name, pins, rest }) => {
    const role = jobs.get(name) ? roles.find((r) => r.ref === refOfCard(name)) : undefined;
    if (role && absent.has(role.ref)) return [];
    const ref = role && refFor(role);
    const own = ref
      ? cardName(name[0]!, ref, name.slice(name.indexOf(role.ref) + role.ref.length))
      : names.has(name.toLowerCase())
        ? free(name.replace(/\d+\w*$/, ''), names)
        : name;
    names.add(own.toLowerCase());
    const line = role && filled[role.ref] ? lineOf(filled[role.ref]!) : undefined;
    return [`${own} ${pins.map((p) => netName(p.net)).join(' ')} ${valueText(rest, role, line)}`];
  });
  const initial = text.initial === null ? [] : [`.ic ${text.initial.replace(/V\(([^)]+)\)/g, (_, net: string) => `V(${netName(net)})`)}`];
  const placed = insertBlock(deck, { lines: [...cards, ...initial], needs: text.needs });
  const inCircuit = new Set([...renamed.values()].map((r) => r.toLowerCase()));
  const before = new Set(there.map((c) => refOfCard(c.name).toLowerCase()));
  return {
    deck: placed,
    points: Object.fromEntries(Object.entries(text.points).map(([net, where]) => [netName(net), where])),
    looks: text.looks.map((l) => (l.shows ? { ...l, shows: { ...l.shows, ref: renamed.get(l.shows.ref) ?? l.shows.ref } } : l)),
    beyond: lines.filter((l) => !l.notFitted).flatMap((l) => l.refs.filter((r) => !inCircuit.has(r.toLowerCase()) && !before.has(r.toLowerCase()))),
  };
}

const cardName = (letter: string, ref: Ref, suffix: string) =>
  suffix !== '' && /^[ab]$/i.test(suffix) && letter === 'R'
    ? `R${ref}${suffix}`
    : `${ref[0]?.toUpperCase() === letter.toUpperCase() ? '' : letter}${ref}${letter === 'R' ? '' : suffix}`;

/** What stands behind a card's nets: the list's own value where a line fills the role. */
function valueText(rest: string, role: Role | undefined, line: Line | undefined): string {
  const own = readSpiceNumber(rest);
  if (!role || line?.value == null || role.value === null || own === null || role.value === 0) return rest;
  return String(Number(((line.value * own) / role.value).toPrecision(6)));
}

function free(base: string, taken: ReadonlySet<string>): string {
  let k = 2;
  while (taken.has(`${base}${k}`.toLowerCase())) k++;
  return `${base}${k}`;
}
