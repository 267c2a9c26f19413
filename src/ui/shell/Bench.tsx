'use client';
import { Skeleton } from 'antd';
import { lazy, memo, Suspense, useCallback, useDeferredValue, useMemo } from 'react';
import type { Phase } from '@/core/loop';
import { type KitState, meterOf } from '@/core/kit';
import { useSupply } from '@/store/instrument';
import type { Loop } from '../probe/useLoop';
import { ProbeBar } from '../probe/ProbeBar';
import { TrayView } from '../tray/TrayView';
import styles from './Bench.module.css';
import { type CommandId, titleOf } from './commands';
import { Frame } from './Frame';
import { Notices } from './Notices';
import { type AskedNet, useBenchView } from './useBenchView';
import { useUndoMessages } from './useUndoMessages';
import { ViewBoundary } from './ViewBoundary';

const Waiting = () => (
  <div className={styles.waiting}>
    <Skeleton active paragraph={{ rows: 6 }} />
  </div>
);
// Heavy views are fetched when they are opened; the kit is opened in the browser only, so none is rendered on a server.
const FitView = lazy(() => import('../board/FitView').then((m) => ({ default: m.FitView })));
const SupplyWatch = lazy(() => import('../live/SupplyWatch').then((m) => ({ default: m.SupplyWatch })));
const PowerView = lazy(() => import('../power/PowerView').then((m) => ({ default: m.PowerView })));
const FaultView = lazy(() => import('../fault/FaultView').then((m) => ({ default: m.FaultView })));
const LogView = lazy(() => import('../logbook/LogView').then((m) => ({ default: m.LogView })));
const SheetView = lazy(() => import('../sheet/SheetView').then((m) => ({ default: m.SheetView })));
const CircuitView = lazy(() => import('../circuit/CircuitView').then((m) => ({ default: m.CircuitView })));
const FunctionsView = lazy(() => import('../functions/FunctionsView').then((m) => ({ default: m.FunctionsView })));
const InstrumentsView = lazy(() => import('../instruments/InstrumentsView').then((m) => ({ default: m.InstrumentsView })));
const PracticeView = lazy(() => import('../practice/PracticeView').then((m) => ({ default: m.PracticeView })));
const MarkingReader = lazy(() => import('../tray/MarkingReader').then((m) => ({ default: m.MarkingReader })));
const CommandBox = lazy(() => import('./CommandBox').then((m) => ({ default: m.CommandBox })));
const KeysHelp = lazy(() => import('./KeysHelp').then((m) => ({ default: m.KeysHelp })));
const ChangeBoard = lazy(() => import('../board/ChangeBoard').then((m) => ({ default: m.ChangeBoard })));
const WaitForm = lazy(() => import('./WaitForm').then((m) => ({ default: m.WaitForm })));
const FirstTour = lazy(() => import('./FirstTour').then((m) => ({ default: m.FirstTour })));

/** One kit open: the frame, the view of the phase, the probe bar. */
export function Bench({ kit }: { kit: KitState }) {
  const view = useBenchView(kit);
  useUndoMessages(kit);
  const { phase, loop, dialog, close, actions, go, net } = view;
  const { run } = view;
  const supplied = useSupply((s) => s.session !== null);
  const readMarking = useCallback(() => {
    run('marking');
  }, [run]);
  // What one looks at follows the probe bar by a frame: on a large kit the verdict does not wait for the tray.
  const shown = useDeferredValue(useMemo(() => ({ kit, phase, loop, go, net, run }), [kit, phase, loop, go, net, run]));
  return (
    <div className={styles.bench}>
      <div className="no-print">
        <Notices kit={kit} />
        <Suspense>{supplied && <SupplyWatch phase={phase} />}</Suspense>
        <Frame
          title={kit.sheet.title}
          origin={[kit.sheet.maker, kit.sheet.edition].filter(Boolean).join(' · ') || 'own kit'}
          meter={meterOf(kit).name}
          phase={phase}
          progress={view.progress}
          go={go}
          run={view.run}
        />
      </div>
      <main className={styles.view}>
        <h1 className="sr-only">
          {kit.sheet.title}: {titleOf(phase)}
        </h1>
        <ViewBoundary view={shown.phase}>
          <Suspense fallback={<Waiting />}>
            <PhaseView {...shown} />
          </Suspense>
        </ViewBoundary>
      </main>
      <Suspense fallback={null}>
        {dialog === 'marking' && <MarkingReader kit={kit} target={loop.target} close={close} fill={loop.setText} />}
        {dialog === 'help' && <KeysHelp close={close} />}
        {dialog === 'box' && <CommandBox kit={kit} phase={phase} actions={actions} goTo={view.goTo} close={close} />}
        {dialog === 'modify' && <ChangeBoard kit={kit} at={refOf(loop.target)} close={close} />}
        {dialog === 'wait' && <WaitForm close={close} />}
        {dialog === 'tour' && <FirstTour close={close} />}
      </Suspense>
      <div className="no-print">
        <ProbeBar
          kit={kit}
          phase={phase}
          loop={loop}
          fieldRef={view.fieldRef}
          readMarking={actions.marking ? readMarking : null}
          nothing={view.nothing}
          back={view.back}
        />
      </div>
    </div>
  );
}

/** The part that a target is about, where it is one. */
function refOf(target: Loop['target']): string | null {
  if (target?.kind === 'piece') return target.ref;
  return target?.kind === 'fit' ? (target.refs[0] ?? null) : null;
}

interface PhaseProps {
  readonly kit: KitState;
  readonly phase: Phase;
  readonly loop: Loop;
  readonly go: (phase: Phase) => void;
  readonly net: AskedNet | null;
  readonly run: (id: CommandId) => void;
}

const PhaseView = memo(function PhaseView({ kit, phase, loop, go, net, run }: PhaseProps) {
  switch (phase) {
    case 'unpack':
    case 'check':
      return <TrayView kit={kit} phase={phase} loop={loop} go={go} />;
    case 'fit':
      return <FitView kit={kit} loop={loop} go={go} run={run} />;
    case 'power':
      return <PowerView kit={kit} loop={loop} go={go} run={run} />;
    case 'fault':
      return <FaultView kit={kit} loop={loop} go={go} />;
    case 'log':
      return <LogView kit={kit} />;
    case 'sheet':
      return <SheetView kit={kit} />;
    case 'circuit':
      return <CircuitView kit={kit} around={net} />;
    case 'functions':
      return <FunctionsView kit={kit} />;
    case 'instruments':
      return <InstrumentsView kit={kit} />;
    case 'practice':
      return <PracticeView kit={kit} />;
  }
});
