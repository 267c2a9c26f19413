import { type Fault, faultKey } from '../fault';
import { symptomFactors } from './symptoms';
import { pairOf, type PieceFact, type WorkEvidence } from './work';

/** How far a piece of the log moves the odds of a fault, and why. */
export interface WorkReason {
  readonly factor: number;
  readonly why: string;
}

/**
 * Factors on the odds of a fault (own figures, after common practice): a look with a lens misses one bridge or turned part in
 * seven, and is seldom wrong when it finds one; a tester that stays silent leaves only a contact that comes and goes; who looks
 * for one fault and does not find it is mistaken one time in twenty.
 */
export const WORK_FACTORS = {
  lookedGood: 0.15,
  lookedBad: 10,
  jointsGood: 0.5,
  jointsBad: 3,
  silent: 0.02,
  beeped: 20,
  unticked: 5,
  ruledOut: 0.05,
  /** Wrong value: its piece was measured and found right; it was not, while others were; and nobody can read it. */
  measured: 0.1,
  unmeasured: 2,
  unreadable: 1.5,
  /** Wrong value: another piece of its packet was out; a piece of this value came that is on no line. */
  lotOut: 4,
  stranger: 3,
  /** Exchanged: each was measured as the other. */
  exchanged: 20,
  /** Bridges between pins and open pins of a body with close legs. */
  finePitch: 2,
  /** Open joints and touching legs where legs were bent by hand to reach their holes. */
  bent: 1.5,
  /** Any fault of what went in with the stage in hand, where a stage under power was read before it. */
  fittedLast: 2,
} as const;

/** Why a fault of the value at a place is more or less likely, from what is known of its piece. */
const OF_VALUE: Readonly<Partial<Record<PieceFact, WorkReason>>> = {
  measured: { factor: WORK_FACTORS.measured, why: 'its piece was measured and found right' },
  unmeasured: { factor: WORK_FACTORS.unmeasured, why: 'its piece was never measured, others were' },
  unreadable: { factor: WORK_FACTORS.unreadable, why: 'nothing on it can be read' },
  'lot-out': { factor: WORK_FACTORS.lotOut, why: 'another piece of its packet was out' },
};
/** A value is a stranger's when it lies within this share of it. */
const STRANGER_NEAR = 0.1;

function ofPieces(fault: Fault, { pieces, exchanged, strangers }: WorkEvidence): WorkReason[] {
  const reasons: WorkReason[] = [];
  const [ref, other] = fault.parts;
  if (ref === undefined) return reasons;
  const facts = pieces[ref] ?? [];
  if (fault.kind === 'wrong-value') {
    reasons.push(...facts.flatMap((f) => OF_VALUE[f] ?? []));
    if (strangers.some((v) => Math.abs(v / fault.detail.value - 1) <= STRANGER_NEAR))
      reasons.push({ factor: WORK_FACTORS.stranger, why: 'a piece of this value came that is on no line' });
  }
  if (fault.kind === 'swapped' && exchanged.some((pair) => pair.includes(ref) && pair.includes(other ?? '')))
    reasons.push({ factor: WORK_FACTORS.exchanged, why: 'each was measured as the other' });
  if ((fault.kind === 'open-pin' || fault.kind === 'short-pins') && facts.includes('fine'))
    reasons.push({ factor: WORK_FACTORS.finePitch, why: `the legs of ${ref} are close together` });
  if ((fault.kind === 'open' || fault.kind === 'open-pin' || fault.kind === 'short-pins') && facts.includes('bent'))
    reasons.push({ factor: WORK_FACTORS.bent, why: `the legs of ${ref} were bent to reach their holes` });
  if (facts.includes('late')) reasons.push({ factor: WORK_FACTORS.fittedLast, why: `${ref} went in last` });
  return reasons;
}

/** What in the log speaks for or against a fault. */
export function workReasons(fault: Fault, work: WorkEvidence): WorkReason[] {
  const reasons: WorkReason[] = ofPieces(fault, work);
  const look = (item: string, good: number, bad: number, what: string) => {
    const seen = work.looked[item];
    if (seen !== undefined) reasons.push({ factor: seen ? good : bad, why: `${what} was looked at and ${seen ? 'good' : 'not good'}` });
  };
  const [ref] = fault.parts;
  if (fault.kind === 'bridge') {
    const pair = pairOf(fault.detail.nets);
    look(`bridge/${fault.detail.nets[0]}~${fault.detail.nets[1]}`, WORK_FACTORS.lookedGood, WORK_FACTORS.lookedBad, 'the gap');
    look(`bridge/${fault.detail.nets[1]}~${fault.detail.nets[0]}`, WORK_FACTORS.lookedGood, WORK_FACTORS.lookedBad, 'the gap');
    if (work.silent.includes(pair)) reasons.push({ factor: WORK_FACTORS.silent, why: 'the tester was silent between the two' });
    if (work.joined.includes(pair)) reasons.push({ factor: WORK_FACTORS.beeped, why: 'the tester beeped between the two' });
  }
  if ((fault.kind === 'reversed' || fault.kind === 'turned') && ref !== undefined)
    look(`way/${ref}`, WORK_FACTORS.lookedGood, WORK_FACTORS.lookedBad, `which way round ${ref} sits`);
  if (fault.kind === 'open' || fault.kind === 'open-pin') {
    look('look/joints', WORK_FACTORS.jointsGood, WORK_FACTORS.jointsBad, 'every joint');
    if (fault.kind === 'open' && ref !== undefined && work.unticked.includes(ref))
      reasons.push({ factor: WORK_FACTORS.unticked, why: `${ref} was never ticked as fitted` });
  }
  for (const { factor, title, seen } of symptomFactors(fault, work.symptoms))
    reasons.push({ factor, why: `${seen ? 'it was seen' : 'it was not seen'}: ${title.toLowerCase()}` });
  if (work.ruledOut.includes(faultKey(fault))) reasons.push({ factor: WORK_FACTORS.ruledOut, why: 'you looked for it and did not find it' });
  return reasons;
}

/** The product of all that speaks for or against a fault. */
export const workFactor = (fault: Fault, work: WorkEvidence): number => workReasons(fault, work).reduce((product, r) => product * r.factor, 1);
