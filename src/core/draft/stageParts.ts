import type { Feed } from '../bringup';
import { CHIP_KINDS } from '../vocabulary';
import type { Check, Line, MeasureCheck, ObserveCheck, Owned, Ref, Sheet, Stage } from '../kit';

/** What a ladder is proposed from. */
export type Known = Pick<Sheet, 'lines' | 'needs' | 'circuit' | 'testPoints' | 'title'> & {
  /** The supplies that the builder has for it, where they are known by their ends. */
  readonly feeds?: readonly Feed[];
  /** What the builder owns to feed it with. */
  readonly owned?: readonly Owned[];
  /** It stands there finished, chips and all, and nobody measured anything. */
  readonly built?: boolean;
};

export const measure = (id: string, title: string, fields: Omit<MeasureCheck, 'id' | 'what' | 'title'>): MeasureCheck => ({
  id,
  what: 'measure',
  title,
  ...fields,
});
export const observe = (id: string, title: string, action: string, expect: string, more: Partial<ObserveCheck> = {}): ObserveCheck => ({
  id,
  what: 'observe',
  title,
  action,
  expect,
  ...more,
});

/** A name as an id. */
export const slug = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'x';

const POLARISED: readonly Line['kind'][] = [
  'electrolytic',
  'tantalum',
  'bridge',
  'diode',
  'zener',
  'led',
  'npn',
  'pnp',
  'nmos',
  'pmos',
  'njf',
  'pjf',
  'regulator',
  ...CHIP_KINDS,
];

/** Look before anything is switched on. */
export function lookStage(lines: readonly Line[], fits: readonly Ref[]): Stage {
  const polarised = lines.filter((l) => POLARISED.includes(l.kind)).flatMap((l) => l.refs.filter((r) => fits.includes(r)));
  const tabs = lines.filter((l) => /TO-?(?:220|126|3|247)/i.test(l.package ?? '')).flatMap((l) => l.refs);
  return {
    id: 'p-look',
    title: 'Look',
    kind: 'look',
    fits: [...fits],
    supplies: [],
    checks: [
      observe(
        'joints',
        'joints and bridges',
        'Look along every row of joints with a lens, against the light',
        'Every joint is filled and shines, no bridge between two nets, no splash',
      ),
      ...(polarised.length > 0
        ? [
            observe(
              'turned',
              'the right way round',
              `Compare with the print or a photo: ${polarised.slice(0, MOST_NAMED).join(', ')}${polarised.length > MOST_NAMED ? '…' : ''}`,
              'Stripes, flats and notches match the print',
            ),
          ]
        : []),
      ...(tabs.length > 0
        ? [
            observe(
              'tabs',
              'tabs and sinks',
              `Look at ${tabs.join(', ')}: does a tab touch copper, a sink or its neighbour?`,
              'Nothing touches that is not meant to',
              { note: 'The tab of many regulators is not ground.' },
            ),
          ]
        : []),
    ],
  };
}
const MOST_NAMED = 24;

/** Every switch, key and relay once. */
export function functionChecks(lines: readonly Line[]): Check[] {
  const refs = lines.filter((l) => l.kind === 'switch' || l.kind === 'relay').flatMap((l) => l.refs);
  return refs.length === 0
    ? []
    : [observe('functions', 'every switch and relay', 'Work each of them in turn', 'Each does what the instructions say', { channels: refs })];
}

/** What is looked at first on a board that was built without a note and does nothing (common practice, no source). */
export const builtLooks = (): ObserveCheck[] => [
  observe(
    'fed',
    'it is fed',
    'Look at supply, plug polarity, battery contacts, fuse and switch',
    'Supply on, plus at the board’s plus, fuse intact, switch closed',
  ),
  observe('burnt', 'nothing is burnt or bulged', 'Look and smell along the board, at the backs of parts too', 'No dark spot, no bulged can, no smell'),
];

/** What is said above the first stage of a board that was built without notes. */
export const BUILT_NOTE =
  'Built already, and nothing on it is known to be good. Look first, then follow the supply from its plug inwards: each good reading clears everything before it. Find fault has a guide by symptoms.';

/** Whether a ladder was proposed for a board that was built already. */
export const isBuiltLadder = (stages: readonly Pick<Stage, 'note'>[]): boolean => stages.some((s) => s.note === BUILT_NOTE);

/** A long run, touched and looked at after a minute, five and ten: what gets hot does so in this time (common practice, no source). */
export const soak = (action: string): ObserveCheck =>
  observe('soak', 'long run', action, 'It works all the time and nothing gets too hot to touch', { channels: ['after 1 min', 'after 5 min', 'after 10 min'] });
