import { type Bench, type Chosen, type Place, type Proposal, stageSupply } from '../bringup';
import { GROUND, type Source } from '../circuit';
import type { Check, ProbePoint, Stage, StageSupply, TestPoint } from '../kit';
import { CAUTIONS } from '../power';
import { windingVolts } from './listLadder';
import { functionChecks, lookStage, measure, observe, slug } from './stageParts';

/** Faults named beside a check; more are told as a number. */
const MOST_TOLD = 4;

/** The stages of a proposal: look, cold, power without chips, chips, settings, in use (order: common practice, no source). */
export function stagesOf(proposal: Proposal, bench: Bench, testPoints: readonly TestPoint[]): Stage[] {
  const { lines, sockets, feeds, circuit } = bench;
  const all = lines.filter((l) => !l.notFitted).flatMap((l) => l.refs);
  const sources = circuit.parts.filter((p): p is Source => p.kind === 'V' && !p.name.includes('.'));
  const supplies = feeds.flatMap((f): StageSupply[] => {
    const supply = stageSupply(f, sources);
    return supply ? [supply] : [];
  });
  const supplyName = (k: number) => (feeds[k] ? stageSupply(feeds[k], sources)?.source : undefined);
  const made = proposal.stages.map((s, i): Stage => {
    const base = { checks: checksOf(s.checks, i, testPoints, supplyName), ...(s.settings.length > 0 ? { settings: [...s.settings] } : {}) };
    switch (s.kind) {
      case 'cold':
        return {
          ...base,
          id: 'p-cold',
          title: 'Cold: ohms and diode tests',
          kind: 'cold',
          note: `Power off${sockets.length > 0 ? `, ${sockets.join(', ')} out of the socket` : ''}. Capacitors charge through the meter: wait until the reading holds.`,
          fits: [],
          supplies: [],
          power: 'unplugged',
          cautions: [CAUTIONS.cold],
        };
      case 'empty':
      case 'fed':
        return {
          ...base,
          id: s.kind === 'empty' || sockets.length === 0 ? 'p-power' : 'p-chips',
          title: s.kind === 'empty' ? 'First power, sockets empty' : sockets.length > 0 ? 'Chips in' : 'First power, limited',
          kind: 'power',
          note:
            s.kind === 'fed' && sockets.length > 0
              ? 'Power off and reservoirs discharged before the chips go in; notch to notch.'
              : 'Use a supply with a current limit, or a weak battery first.',
          fits: s.kind === 'fed' ? [...sockets] : [],
          supplies,
          cautions: [CAUTIONS.power],
          checks: [...(s.kind === 'empty' || sockets.length === 0 ? [cool] : []), ...windingChecks(bench), ...base.checks],
        };
      case 'coldTurned':
      case 'turned':
        return { ...base, id: `p-set-${i}`, title: 'Other settings', kind: 'adjust', fits: [], supplies };
    }
  });
  const rest = sockets.filter((ref) => !made.some((s) => s.fits.includes(ref)));
  const chips: Stage[] =
    rest.length === 0
      ? []
      : [
          {
            id: 'p-chips',
            title: 'Chips in',
            kind: 'power',
            note: 'Power off and reservoirs discharged before the chips go in; notch to notch.',
            fits: rest,
            supplies,
            checks: [],
          },
        ];
  const cold = proposal.stages.flatMap((s, i) => (s.kind === 'coldTurned' ? made[i]!.checks : []));
  const turned = made.filter((s, i) => s.id.startsWith('p-set-') && proposal.stages[i]!.kind === 'turned');
  const merged: Stage[] = turned.length === 0 ? [] : [{ ...turned[0]!, id: 'p-set', checks: turned.flatMap((s) => s.checks) }];
  const use: Stage = { id: 'p-use', title: 'In use', kind: 'load', fits: [], supplies, cautions: [CAUTIONS.hot], checks: functionChecks(lines) };
  return [
    lookStage(
      lines,
      all.filter((r) => !sockets.includes(r)),
    ),
    ...made.filter((s) => !s.id.startsWith('p-set-')).map((s) => (s.id === 'p-cold' ? { ...s, checks: [...s.checks, ...cold] } : s)),
    ...chips,
    ...merged,
    use,
  ].filter((s) => s.checks.length > 0 || s.fits.length > 0);
}

const cool = observe(
  'cool',
  'nothing gets warm',
  'Switch on for half a minute. Hold the back of a finger near regulators, chips and resistors',
  'Nothing gets hot, no smell, no sound',
);

/** AC volts of the windings, where the meter has the mode. */
const windingChecks = ({ feeds, modes }: Bench): Check[] =>
  modes !== null && !modes.includes('acv') ? [] : feeds.flatMap((f, k) => (f.kind === 'winding' ? [windingVolts(f, k)] : []));

function checksOf(chosen: readonly Chosen[], stage: number, testPoints: readonly TestPoint[], supplyName: (k: number) => string | undefined): Check[] {
  const at = (net: string): ProbePoint => {
    const point = testPoints.find((t) => t.net.toLowerCase() === net.toLowerCase());
    return net !== GROUND && point ? { testPoint: point.id } : { net };
  };
  return chosen.map(({ place, window, settings, catches }) => {
    const set = settings.length > 0 ? { settings: [...settings] } : {};
    const told = catches.slice(0, MOST_TOLD).map((f) => f.text);
    const note = `Tells ${told.join(', ')}${catches.length > told.length ? ` and ${catches.length - told.length} more` : ''}.`;
    const source = place.mode === 'dca' ? supplyName(place.feed ?? 0) : undefined;
    return measure(
      `c${stage}-${place.mode}-${slug(place.red === GROUND ? `0-${place.black}` : place.red)}${settings.length > 0 ? `-${slug(settings.map((s) => s.text).join(' '))}` : ''}`,
      titleOf(place),
      {
        mode: place.mode === 'sign' ? 'dca' : place.mode,
        red: at(place.red),
        black: at(place.black),
        ...(source === undefined ? {} : { source }),
        window: { low: window.low === null ? null : rounded(window.low), high: window.high === null ? null : rounded(window.high) },
        note,
        ...set,
      },
    );
  });
}

function titleOf({ mode, red, black }: Place): string {
  const to = black === GROUND ? `${red} to ground` : red === GROUND ? `ground to ${black}, probes swapped` : `${red} to ${black}`;
  switch (mode) {
    case 'dca':
      return 'supply current';
    case 'diode':
      return `diode test, ${to}`;
    case 'ohms':
      return to;
    default:
      return red;
  }
}

/** Four figures: more than any window deserves. */
const rounded = (v: number) => Number(v.toPrecision(4));
