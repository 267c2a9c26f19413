'use client';
import { memo, useCallback, useEffect, useMemo, useRef } from 'react';
import { contradicts, lotFindings, lotText, orientationCard, type Phase, systematicErrors } from '@/core/loop';
import { type ConsequenceText } from '@/core/consequence';
import { type Compartment, deriveStrangers, deriveTray, expectationOf, type KitState, type Line, meterOf } from '@/core/kit';
import { cardFor } from '@/core/typecard';
import { parseDisplay, print, printWindow, type Unit } from '@/core/quantity';
import { type Verdict } from '@/core/verdict';
import { LOOSE_FACTS, unitOf } from '@/core/vocabulary';
import { BoardMap } from './BoardMap';
import { Papers } from './Papers';
import { PartBody } from './PartBody';
import { PileView } from './PileView';
import { TypeCardText } from './TypeCards';
import { useConsequences } from './useConsequences';
import { type Loop } from './useLoop';
import { useOwnCards } from './useOwnCards';
import { VerdictMark } from './VerdictMark';

interface Props {
  readonly kit: KitState;
  readonly phase: Extract<Phase, 'unpack' | 'check' | 'fit'>;
  readonly loop: Loop;
  readonly go: (phase: Phase) => void;
}

/** Unpack and Check show the sorting tray; Fit shows the board filling up. */
export function TrayView({ kit, phase, loop, go }: Props) {
  const tray = deriveTray(kit);
  const target = loop.target;
  const lineInHand = target && 'line' in target ? target.line.id : null;
  if (phase === 'unpack' && loop.pileKind) return <PileView kit={kit} loop={loop} />;
  return (
    <div className="zones tray-why">
      {phase === 'fit' ? <FitMap kit={kit} loop={loop} /> : <Tray kit={kit} tray={tray} phase={phase} lineInHand={lineInHand} loop={loop} />}
      <aside className="card why" aria-label="Why">
        {phase === 'unpack' && <CountStory kit={kit} tray={tray} left={loop.states.filter((s) => !s.done).length} go={go} loop={loop} />}
        {phase === 'check' && <CheckStory kit={kit} tray={tray} left={loop.states.filter((s) => !s.done).length} go={go} loop={loop} />}
        {phase === 'fit' && <FitStory kit={kit} loop={loop} go={go} />}
      </aside>
    </div>
  );
}

function Tray({
  kit,
  tray,
  phase,
  lineInHand,
  loop,
}: {
  kit: KitState;
  tray: readonly Compartment[];
  phase: 'unpack' | 'check';
  lineInHand: string | null;
  loop: Loop;
}) {
  // The same function for every drawing: of a large tray only what changed is drawn anew.
  const current = useRef(loop);
  useEffect(() => {
    current.current = loop;
  });
  const choose = useCallback((line: Line) => {
    const states = current.current.states.filter((s) => 'line' in s.target && s.target.line.id === line.id);
    const first = states.find((s) => !s.done) ?? states[0];
    if (first) current.current.choose(first.target.id);
  }, []);
  if (tray.length === 0) return <section className="card">This kit has no parts list yet. Make a new kit with one from the shelf.</section>;
  const short = tray.filter((c) => c.counted !== null && c.counted < c.line.quantity);
  const strangers = deriveStrangers(kit).map(({ entry: e }) =>
    typeof e.reading === 'number' ? print(e.reading, unitOf(LOOSE_FACTS[e.part].mode), 3) : String(e.marking ?? 'over-range'),
  );
  return (
    <section className="card tray" aria-label="Tray">
      {tray.map((c) => (
        <Cell key={c.line.id} c={c} phase={phase} now={c.line.id === lineInHand} choose={choose} />
      ))}
      <Apart title="Missing" note="look for a second packet" names={short.map((c) => `${c.line.quantity - c.counted!} × ${c.line.label}`)} />
      <Apart title="Strangers" note="belong to no line" names={strangers} />
    </section>
  );
}

/** A compartment for what has no place of its own. */
function Apart({ title, note, names }: { title: string; note: string; names: readonly string[] }) {
  if (names.length === 0) return null;
  return (
    <div className="cell out">
      <span className="top">
        <b>{title}</b>
        <small className="num">{names.length}</small>
      </span>
      <small>{note}</small>
      <span className="body">{names.slice(0, 3).join(', ')}</span>
      <span className="foot">
        <VerdictMark verdict="out" size={15} />
        <span>{names.length > 3 ? `and ${names.length - 3} more` : 'kept apart'}</span>
      </span>
    </div>
  );
}

interface CellProps {
  readonly c: Compartment;
  readonly phase: 'unpack' | 'check';
  readonly now: boolean;
  readonly choose: (line: Line) => void;
}

const Cell = memo(function Cell({ c, phase, now, choose }: CellProps) {
  const short = c.counted !== null && c.counted < c.line.quantity;
  const verdict: Verdict = phase === 'unpack' ? (c.counted === null ? 'none' : short ? 'out' : 'in') : c.verdict === 'none' && short ? 'out' : c.verdict;
  const tone = verdict === 'out' || verdict === 'doubtful' ? verdict : '';
  return (
    <button
      type="button"
      className={`cell ${tone} ${now ? 'now' : ''} ${c.counted === 0 ? 'empty' : ''}`}
      aria-current={now ? 'true' : undefined}
      onClick={() => {
        choose(c.line);
      }}
    >
      <span className="top">
        <b>{c.line.label}</b>
        <small className="num">
          {c.counted ?? '–'}/{c.line.quantity}
        </small>
      </span>
      <small className="num">{c.line.refs.join(' ') || 'no place on the board'}</small>
      <span className="body">
        <PartBody line={c.line} />
      </span>
      <span className="foot">
        <VerdictMark verdict={verdict} size={15} />
        <span className="num">{footText(c, phase)}</span>
      </span>
    </button>
  );
});

function footText(c: Compartment, phase: 'unpack' | 'check'): string {
  if (phase === 'unpack' || !expectationOf(c.line)) {
    if (c.counted === null) return phase === 'unpack' ? 'not counted' : 'count only';
    const off = c.counted - c.line.quantity;
    return off === 0 ? 'all here' : off < 0 ? `${-off} missing` : `${off} spare`;
  }
  const unit = expectationOf(c.line)!.unit;
  const values = c.pieces.flatMap((p) => (p.reckoning ? [p.reckoning.corrected] : []));
  if (values.length === 0) return c.pieces.some((p) => p.entry) ? 'over-range' : c.counted === 0 ? 'none here' : 'not measured';
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const shown = print(least, unit, 3) === print(most, unit, 3) ? print(least, unit, 3) : printWindow(least, most, unit, 3);
  return values.length < c.pieces.length ? `${shown.replace(' – ', '–')} ${values.length}/${c.pieces.length}` : shown;
}

function CountStory({ kit, tray, left, go, loop }: { kit: KitState; tray: readonly Compartment[]; left: number; go: Props['go']; loop: Loop }) {
  const short = tray.filter((c) => c.counted !== null && c.counted < c.line.quantity);
  const spare = tray.filter((c) => c.counted !== null && c.counted > c.line.quantity);
  return (
    <>
      <h2 className="label">What the bag says</h2>
      {left > 0 && (
        <p>
          Lay everything out and sort it by kind. <b>{left} lines</b> to count. Enter takes the number of the list; type another if it differs.
        </p>
      )}
      {left > 0 && (
        <button
          type="button"
          className="plain"
          style={{ marginBottom: 10 }}
          onClick={() => {
            loop.setPileKind('R');
          }}
        >
          All in one heap? Loose pile <kbd>L</kbd>
        </button>
      )}
      {short.map((c) => (
        <p key={c.line.id}>
          <b>
            {c.line.quantity - c.counted!} × {c.line.label} missing
          </b>{' '}
          for {c.line.refs.slice(c.counted!).join(', ') || 'this line'}. Look for a second small packet first. Everything that does not need it can go on
          meanwhile.
        </p>
      ))}
      <Offers kit={kit} />
      {spare.map((c) => (
        <p key={c.line.id}>
          {c.counted! - c.line.quantity} × {c.line.label} spare. Label it and keep it.
        </p>
      ))}
      <NeedsReminder kit={kit} />
      {left === 0 && (
        <>
          <p>{short.length === 0 ? 'Nothing is missing.' : 'Everything else is here.'} Counting cannot tell a wrong value: measuring can.</p>
          <button
            type="button"
            className="zest"
            onClick={() => {
              go('check');
            }}
          >
            Check the parts
          </button>
        </>
      )}
      <Papers kit={kit} />
    </>
  );
}

/** What the kit is dead without and the bag does not hold. */
function NeedsReminder({ kit }: { kit: KitState }) {
  const open = kit.sheet.needs.filter((n) => !kit.owned.has(n.id));
  if (open.length === 0) return null;
  return (
    <p className="soft">
      Not in the bag: {open.map((n) => n.text).join('; ')}. Under <b>Sheet</b> you can hold what you own against it.
    </p>
  );
}

/** A stranger in place of something missing: what it would do. */
function Offers({ kit }: { kit: KitState }) {
  const consequences = useConsequences(kit);
  return deriveStrangers(kit).flatMap(({ entry: piece }) =>
    kit.sheet.lines.flatMap((line) => {
      const found = consequences[`offer:${piece.id}:${line.id}`];
      if (!found || typeof piece.reading !== 'number') return [];
      return [
        <p key={`${piece.id}${line.id}`}>
          The stranger of {print(piece.reading, 'ohm', 3)} in place of the missing {line.label}? <b>{found.title}.</b> {found.detail}
        </p>,
      ];
    }),
  );
}

function CheckStory({ kit, tray, left, go, loop }: { kit: KitState; tray: readonly Compartment[]; left: number; go: Props['go']; loop: Loop }) {
  const consequences = useConsequences(kit);
  const off = tray.flatMap((c) => c.pieces.filter((p) => p.verdict === 'out' || p.verdict === 'doubtful').map((p) => ({ c, p })));
  const lots = useMemo(() => lotFindings(kit, tray), [kit, tray]);
  const why =
    kit.settings.measure === 'matters'
      ? 'those first that move a check most: a wrong part there does most harm'
      : kit.settings.measure === 'all'
        ? 'down the list'
        : kit.settings.measure === 'unreadable'
          ? 'only what the eye cannot read; a wrong value with a right print is missed'
          : 'one of each packet; a single stray is missed';
  return (
    <>
      <h2 className="label">What the meter says</h2>
      {off.length === 0 && <p>No part has stood out so far.</p>}
      {off.map(({ c, p }) => {
        const does = consequences[`piece:${c.line.id}:${p.index}`];
        return (
          <p key={`${c.line.id}${p.index}`}>
            <b>
              {p.ref ?? 'a spare'} reads {p.reckoning ? print(p.reckoning.corrected, expectationOf(c.line)!.unit) : 'over-range'}
            </b>
            , listed as {c.line.label}.{' '}
            {does ? (
              <>
                {p.verdict === 'doubtful' && 'The meter cannot settle it; a better range or another meter may. '}
                <DoesText does={does} />
              </>
            ) : p.verdict === 'out' ? (
              'Do not fit it: keep it apart and take a right one.'
            ) : (
              'The meter cannot settle it. Try a better range, or compare it with its neighbours of the line.'
            )}
          </p>
        );
      })}
      {tray.flatMap((c) =>
        [...c.markings].flatMap(([piece, text]) =>
          contradicts(kit, c.line, text)
            ? [
                <p key={`${c.line.id}m${piece}`}>
                  <b>
                    {c.line.refs[piece] ?? 'A spare'} is marked {text}
                  </b>
                  , and lies with {c.line.label}. Measure it: the reading decides, not the print.
                </p>,
              ]
            : [],
        ),
      )}
      {lots.map((l) => (
        <p key={l.compartment.line.id}>
          <b>The {l.compartment.line.label} lot.</b> {lotText(l)}
        </p>
      ))}
      <InHand kit={kit} loop={loop} />
      {left > 0 ? (
        <p className="soft">
          {left} pieces to measure, {why}.
        </p>
      ) : (
        <button
          type="button"
          className="zest"
          onClick={() => {
            go('fit');
          }}
        >
          Fit the parts
        </button>
      )}
      <Papers kit={kit} />
    </>
  );
}

const DoesText = ({ does }: { does: ConsequenceText }) => (
  <>
    <b className={does.usable === null ? 'v-doubtful' : does.usable ? 'v-in' : 'v-out'}>{does.title}.</b> {does.detail}
  </>
);

/** What stands in the entry field, where it is a reading already. */
function typedReading(text: string, unit: Unit): number | null {
  const parsed = text.trim() === '' ? null : parseDisplay(text, unit);
  return parsed?.ok && parsed.kind === 'value' ? parsed.value : null;
}

/** How the part in hand is turned, what its card says, and what may falsify its reading. */
function InHand({ kit, loop }: { kit: KitState; loop: Loop }) {
  const own = useOwnCards();
  const { target } = loop;
  if (target?.kind !== 'piece' && target?.kind !== 'fit') return null;
  const { line } = target;
  const turned = orientationCard(line.kind);
  // Where both ways are right there is nothing to tell.
  const orientation = turned.exceptions.length > 0 ? turned : null;
  const card = cardFor(line, kit.sheet.typeCards, own);
  const traps = target.kind === 'piece' ? systematicErrors(line.kind, target.expected, meterOf(kit), typedReading(loop.text, target.expected.unit)) : [];
  if (!orientation && !card && traps.length === 0) return null;
  return (
    <details className="in-hand" open={traps.length > 0 || orientation !== null}>
      <summary>{target.kind === 'piece' ? (target.ref ?? 'This piece') : line.label} in the hand</summary>
      {traps.map((t) => (
        <p key={t}>{t}</p>
      ))}
      {orientation && (
        <>
          <p>{orientation.rule}</p>
          <p className="soft">But: {orientation.exceptions.join(' ')}</p>
          <p className="soft">To be sure: {orientation.check}</p>
        </>
      )}
      {card && <TypeCardText card={card} />}
    </details>
  );
}

function FitMap({ kit, loop }: { kit: KitState; loop: Loop }) {
  const { fitted } = kit.board;
  const refs = loop.target?.kind === 'fit' ? loop.target.refs : [];
  return (
    <section className="card map" aria-label="Board">
      <BoardMap sheet={kit.sheet} present={fitted} marked={new Set(refs)} points={[]} red={null} black={null} />
    </section>
  );
}

function FitStory({ kit, loop, go }: { kit: KitState; loop: Loop; go: Props['go'] }) {
  const target = loop.target?.kind === 'fit' ? loop.target : null;
  const left = loop.states.filter((s) => !s.done).length;
  return (
    <>
      <h2 className="label">Fitting</h2>
      {target ? (
        <>
          <p>
            <b>{target.line.label}</b> goes to {target.refs.join(', ')}. {loop.card?.why}
          </p>
          <InHand kit={kit} loop={loop} />
          <p className="soft">{left} lines to go. Tick every part off as it goes in: the classic failure is a small packet that was overlooked.</p>
          {target.stage && target.stage.id !== kit.sheet.stages[0]?.id && (
            <p className="note-box">This belongs to the stage “{target.stage.title}”. Fit it only when the stages before it have passed.</p>
          )}
          <p className="soft">Extract the fumes, wash your hands after leaded solder, wear eye protection when you clip leads.</p>
        </>
      ) : (
        <button
          type="button"
          className="zest"
          onClick={() => {
            go('power');
          }}
        >
          Power up
        </button>
      )}
      {target && (
        <button
          type="button"
          className="plain"
          onClick={() => {
            go('power');
          }}
        >
          Go to Power up
        </button>
      )}
    </>
  );
}
