import { Button } from 'antd';
import type { ConsequenceText } from '@/core/consequence';
import { type Compartment, expectationOf, type KitState, type MeasuringSchool, type Piece } from '@/core/kit';
import { contradicts, lineTitle, lotFindings, lotText, outAdvice, type Phase } from '@/core/loop';
import { print } from '@/core/quantity';
import type { Loop } from '../probe/useLoop';
import { useConsequences } from '../results/useConsequences';
import zones from '../shell/zones.module.css';
import { Figures } from './Figures';
import { InHand } from './InHand';
import { Papers } from './Papers';

interface Props {
  readonly kit: KitState;
  readonly tray: readonly Compartment[];
  readonly left: number;
  readonly go: (phase: Phase) => void;
  readonly loop: Loop;
}

const WHY: Readonly<Record<MeasuringSchool, string>> = {
  matters: 'first the parts that affect a check most: a wrong part there does most harm',
  all: 'down the list',
  unreadable: 'only what the eye cannot read; a wrong value with a right print is missed',
  'one-per-packet': 'one of each packet; a single stray is missed',
};

/** What the measured pieces tell, and what a deviation does. */
export function CheckStory({ kit, tray, left, go, loop }: Props) {
  const off = tray.flatMap((c) => c.pieces.filter((p) => p.verdict === 'out' || p.verdict === 'doubtful').map((p) => ({ c, p })));
  const lots = lotFindings(kit, tray);
  const consequences = useConsequences(kit);
  return (
    <>
      <h2 className={zones.label}>What the meter says</h2>
      {off.length === 0 && <p>No part is out of range so far.</p>}
      {off.map(({ c, p }) => (
        <Deviation key={`${c.line.id}${p.index}`} kit={kit} c={c} p={p} does={consequences[`piece:${c.line.id}:${p.index}`]} />
      ))}
      {tray.flatMap((c) =>
        [...c.markings].flatMap(([piece, text]) =>
          contradicts(kit, c.line, text)
            ? [
                <p key={`${c.line.id}m${piece}`}>
                  <b>
                    {c.line.refs[piece] ?? 'A spare'} is marked {text}
                  </b>
                  , and is kept with {lineTitle(c.line)}. Measure it: the reading decides, not the print.
                </p>,
              ]
            : [],
        ),
      )}
      {lots.map((l) => (
        <p key={l.compartment.line.id}>
          <b>The {lineTitle(l.compartment.line)} lot.</b> {lotText(l)}
        </p>
      ))}
      <InHand kit={kit} loop={loop} />
      <Figures kit={kit} loop={loop} />
      {left > 0 ? (
        <p className="soft">
          {left} pieces to measure, {WHY[kit.settings.measure]}.
        </p>
      ) : (
        <Button
          type="primary"
          onClick={() => {
            go('fit');
          }}
        >
          Fit the parts
        </Button>
      )}
      <Papers kit={kit} />
    </>
  );
}

function Deviation({ kit, c, p, does }: { kit: KitState; c: Compartment; p: Piece; does: ConsequenceText | undefined }) {
  const bad = p.figures.filter((f) => f.verdict === 'out');
  if (bad.length > 0)
    return (
      <p>
        <b>
          {p.ref ?? 'a spare'}: {bad.map((f) => f.figure.id).join(' and ')} not good
        </b>
        , a piece of {lineTitle(c.line)}. Do not fit it: keep it apart and take another.
      </p>
    );
  return (
    <p>
      <b>
        {p.ref ?? 'a spare'} reads {p.reckoning ? print(p.reckoning.corrected, expectationOf(c.line)!.unit) : 'over-range'}
      </b>
      , listed as {lineTitle(c.line)}.{' '}
      {does ? (
        <>
          {p.verdict === 'doubtful' && 'The meter cannot decide; a better range or another meter may. '}
          <DoesText does={does} />
        </>
      ) : p.verdict === 'out' ? (
        p.reckoning ? (
          outAdvice(kit, c.line, p.reckoning.corrected)
        ) : (
          'Open or dead, or the probes did not touch. Try once more, then take another.'
        )
      ) : (
        'The meter cannot decide. Try a better range, or compare it with the others on its line.'
      )}
    </p>
  );
}

const DoesText = ({ does }: { does: ConsequenceText }) => (
  <>
    <b className={does.usable === null ? 'v-doubtful' : does.usable ? 'v-in' : 'v-out'}>{does.title}.</b> {does.detail}
  </>
);
