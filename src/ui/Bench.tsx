'use client';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { countTargets, currentStage, deriveStages, fitTargets, type Phase, pieceTargets } from '@/core/loop';
import { type KitState, meterOf } from '@/core/kit';
import { useBench } from '@/store/bench';
import { CircuitView } from './circuit/CircuitView';
import { FaultView } from './FaultView';
import { KeysHelp } from './KeysHelp';
import { LogView } from './LogView';
import { InstrumentsView } from './InstrumentsView';
import { MarkingReader } from './MarkingReader';
import { Notices } from './Notices';
import { PowerView } from './PowerView';
import { SheetView } from './SheetView';
import { ProbeBar } from './ProbeBar';
import { toggleTheme } from './Theme';
import { TrayView } from './TrayView';
import { type Loop, useLoop } from './useLoop';
import { useBenchKeys } from './useBenchKeys';
import { useWindows } from './useWindows';

const PHASES: readonly { readonly id: Phase; readonly title: string }[] = [
  { id: 'unpack', title: 'Unpack' },
  { id: 'check', title: 'Check' },
  { id: 'fit', title: 'Fit' },
  { id: 'power', title: 'Power up' },
  { id: 'fault', title: 'Find fault' },
  { id: 'log', title: 'Logbook' },
];
/** What stands beside the work. */
const BESIDE: readonly { readonly id: Phase; readonly title: string }[] = [
  { id: 'sheet', title: 'Sheet' },
  { id: 'circuit', title: 'Circuit' },
  { id: 'instruments', title: 'Instruments' },
];
const ALL_VIEWS = [...PHASES, ...BESIDE];

/** Opens the kit named in the address and shows its bench. */
export function BenchPage() {
  const id = useSearchParams().get('kit');
  const { status, kit, alarm, open } = useBench();
  useEffect(() => {
    if (id) void open(id);
  }, [id, open]);
  if (id === null || status === 'missing')
    return (
      <main className="page">
        <h1>This kit is not on the shelf</h1>
        <p style={{ margin: '12px 0' }}>{alarm ?? 'It may have been cleared, or it lives in another browser.'}</p>
        <Link className="zest" href="/">
          To the shelf
        </Link>
      </main>
    );
  if (!kit) return <main className="page soft">Opening the kit…</main>;
  return <Bench kit={kit} />;
}

/** Where to begin: the first phase with something left to do. */
function firstOpenPhase(kit: KitState): Phase {
  if (countTargets(kit).some((s) => !s.done)) return 'unpack';
  if (pieceTargets(kit).some((s) => !s.done)) return 'check';
  if (fitTargets(kit).some((s) => !s.done)) return 'fit';
  return kit.sheet.stages.length > 0 ? 'power' : 'log';
}

function phaseFromHash(): Phase | null {
  const hash = location.hash.slice(1);
  return ALL_VIEWS.find((p) => p.id === hash)?.id ?? null;
}

function Bench({ kit }: { kit: KitState }) {
  const [phase, setPhase] = useState<Phase>(() => phaseFromHash() ?? firstOpenPhase(kit));
  const [help, setHelp] = useState(false);
  const [reader, setReader] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const loop = useLoop(kit, phase);
  const { undo, redo } = useBench();
  const windows = useWindows(kit);

  const go = (next: Phase) => {
    setPhase(next);
    history.replaceState(null, '', `${location.pathname}${location.search}#${next}`);
  };

  const openReader = () => {
    setReader(true);
  };
  useBenchKeys({
    loop,
    field,
    covered: help || reader,
    practice: kit.settings.standIn !== null,
    undo: () => void undo(),
    redo: () => void redo(),
    phase: (index) => {
      go(PHASES[index]!.id);
    },
    help: () => {
      setHelp(true);
    },
    reader: readable(loop) ? openReader : null,
    pile:
      phase === 'unpack'
        ? () => {
            loop.setPileKind(loop.pileKind ? null : 'R');
          }
        : null,
  });
  const stages = deriveStages(kit, windows);
  return (
    <div className="bench">
      <div>
        <Notices kit={kit} />
        <Header
          kit={kit}
          phase={phase}
          go={go}
          showHelp={() => {
            setHelp(true);
          }}
        />
      </div>
      <main style={{ minHeight: 0, display: 'grid' }}>
        <h1 className="sr-only">
          {kit.sheet.title}: {ALL_VIEWS.find((p) => p.id === phase)!.title}
        </h1>
        {(phase === 'unpack' || phase === 'check' || phase === 'fit') && <TrayView kit={kit} phase={phase} loop={loop} go={go} />}
        {phase === 'power' && <PowerView kit={kit} loop={loop} go={go} />}
        {phase === 'fault' && <FaultView kit={kit} go={go} />}
        {phase === 'log' && <LogView kit={kit} />}
        {phase === 'sheet' && <SheetView kit={kit} />}
        {phase === 'circuit' && <CircuitView kit={kit} />}
        {phase === 'instruments' && <InstrumentsView kit={kit} />}
      </main>
      {reader && (
        <MarkingReader
          kit={kit}
          target={loop.target}
          close={() => {
            setReader(false);
          }}
          fill={loop.setText}
        />
      )}
      <ProbeBar
        kit={kit}
        phase={phase}
        loop={loop}
        field={field}
        readMarking={readable(loop) ? openReader : null}
        nothing={nothingLeft(phase, currentStage(stages) === null, kit)}
      />
      <KeysHelp
        open={help}
        close={() => {
          setHelp(false);
        }}
      />
    </div>
  );
}

/** Targets that are a part in the hand, with something printed on it. */
const readable = (loop: Loop) => ['piece', 'count', 'loose'].includes(loop.target?.kind ?? '');

function nothingLeft(phase: Phase, allPassed: boolean, kit: KitState): string {
  switch (phase) {
    case 'unpack':
      return 'Every line is counted. Check comes next.';
    case 'check':
      return 'Every piece that can be measured has been. Fit comes next.';
    case 'fit':
      return kit.sheet.stages.length === 0 ? 'No stages are planned.' : 'Everything is fitted. Power up comes next.';
    case 'power':
      return allPassed ? 'All stages have passed.' : 'Nothing left to read in this stage.';
    case 'fault':
      return 'No reading is asked for at the moment.';
    case 'log':
    case 'sheet':
    case 'circuit':
    case 'instruments':
      return 'Nothing is asked for here. The phases above go on where you were.';
  }
}

interface HeaderProps {
  readonly kit: KitState;
  readonly phase: Phase;
  readonly go: (phase: Phase) => void;
  readonly showHelp: () => void;
}

function Header({ kit, phase, go, showHelp }: HeaderProps) {
  const windows = useWindows(kit);
  const stages = deriveStages(kit, windows);
  const done: Readonly<Record<Phase, boolean>> = {
    unpack: countTargets(kit).every((s) => s.done),
    check: pieceTargets(kit).every((s) => s.done),
    fit: fitTargets(kit).every((s) => s.done),
    power: stages.length > 0 && currentStage(stages) === null,
    fault: false,
    log: false,
    sheet: false,
    circuit: false,
    instruments: false,
  };
  return (
    <header>
      <Link href="/" className="kit-name" title="Back to the shelf">
        {kit.sheet.title}
        <small>{[kit.sheet.maker, kit.sheet.edition].filter(Boolean).join(' · ') || 'own kit'}</small>
      </Link>
      <nav className="route" aria-label="Phases">
        {PHASES.map((p) => (
          <button
            key={p.id}
            type="button"
            className={p.id === phase ? 'here' : done[p.id] ? 'done' : ''}
            aria-current={p.id === phase ? 'step' : undefined}
            onClick={() => {
              go(p.id);
            }}
          >
            <i aria-hidden="true" />
            {p.title}
            {done[p.id] && <span className="sr-only"> (done)</span>}
          </button>
        ))}
      </nav>
      {BESIDE.map((p) => (
        <button
          key={p.id}
          type="button"
          className={`chip ${p.id === phase ? 'here' : ''}`}
          aria-current={p.id === phase ? 'page' : undefined}
          title={p.id === 'instruments' ? `In use: ${meterOf(kit).name}` : undefined}
          onClick={() => {
            go(p.id);
          }}
        >
          {p.title}
        </button>
      ))}
      <button type="button" className="chip" onClick={toggleTheme}>
        Dim
      </button>
      <button type="button" className="chip" onClick={showHelp}>
        <kbd>?</kbd> keys
      </button>
    </header>
  );
}
