import { Alert, Button, Popconfirm } from 'antd';
import { useEffect } from 'react';
import type { SupplyTold } from '@/core/instrument';
import type { KitState, Stage, StageSupply } from '@/core/kit';
import type { Target } from '@/core/loop';
import { print } from '@/core/quantity';
import { useSupply } from '@/store/instrument';
import { supplyBroke } from '@/store/lines';
import { Choose } from '../form/Choose';
import { readSimulated } from '../probe/simulated';
import zones from '../shell/zones.module.css';
import styles from './Live.module.css';

interface Props {
  readonly kit: KitState;
  readonly stage: Stage;
  /** Stages before it have not passed. */
  readonly early: boolean;
  readonly target: Target | null;
  readonly setText: (text: string) => void;
  readonly take: () => void;
}

/** The connected bench supply: set for this stage, switched by hand, read all the time. */
export function SupplyPanel({ kit, stage, early, target, setText, take }: Props) {
  const { session, simulated, name, set, reading, said, feeds: chosen } = useSupply();
  const feeds = stage.supplies.filter((s) => s.feed !== 'winding');
  const supply = feeds.find((s) => s.source === chosen) ?? feeds[0];
  useLoad(kit, stage, supply ?? null);
  if (!session || !supply) return said === '' ? null : <Alert type="warning" role="status" title={said} />;
  const isSet = set !== null && set.volts === supply.volts && set.limit === supply.limit;
  const on = reading?.on ?? false;
  const told = (what: Promise<SupplyTold>, done: () => void) => {
    useSupply.setState({ said: '' });
    what.then((answer) => {
      if (answer.state === 'done') done();
      else useSupply.setState({ said: refusal(answer) });
    }, supplyBroke);
  };
  const adjust = () => {
    told(session.adjust(supply.volts, supply.limit), () => {
      useSupply.setState({ set: { volts: supply.volts, limit: supply.limit } });
    });
  };
  const switchOn = () => {
    told(session.output(true), () => undefined);
  };
  const check = target?.kind === 'check' && target.check.what === 'measure' && target.check.mode === 'dca' ? target.check : null;
  const asked = check !== null && (check.source === undefined || check.source === supply.source);
  return (
    <section aria-label="Bench supply" className={styles.supply}>
      <h2 className={`${zones.label} ${zones.section}`}>{name}</h2>
      {feeds.length > 1 && (
        <div className={zones.row}>
          It feeds
          <Choose<string>
            aria-label="What the supply feeds"
            value={supply.source}
            options={feeds.map((s) => ({ value: s.source, label: s.source }))}
            onChange={(source) => {
              useSupply.setState({ feeds: source });
            }}
          />
        </div>
      )}
      {said !== '' && <Alert type="warning" role="status" title={said} />}
      {reading !== null && (
        <p className="num" aria-live="off">
          {on ? `${print(reading.volts, 'V', 4)}, ${print(reading.amps, 'A', 3)}` : 'output off'}
        </p>
      )}
      {reading?.limiting && (
        <Alert
          type="error"
          role="alert"
          title={`In its limit of ${print(supply.limit, 'A', 2)}: switch off, then look for a short or a part that is turned.`}
        />
      )}
      {on && !isSet && (
        <Alert
          type="warning"
          title={`It is on with other settings: this stage wants ${print(supply.volts, 'V', 3)} and at most ${print(supply.limit, 'A', 2)}.`}
        />
      )}
      <div className={zones.row}>
        {on ? (
          <Button
            danger
            type="primary"
            onClick={() => {
              told(session.output(false), () => undefined);
            }}
          >
            Output off
          </Button>
        ) : isSet ? (
          <Popconfirm
            title="Earlier stages have not passed. Switch on all the same?"
            okText="Switch on"
            cancelText="Leave it off"
            // Where its turn has come nothing is asked.
            disabled={!early}
            onConfirm={switchOn}
          >
            <Button type="primary" {...(early ? {} : { onClick: switchOn })}>
              Output on
            </Button>
          </Popconfirm>
        ) : (
          <Button type="primary" onClick={adjust}>
            Set {print(supply.volts, 'V', 3)}, at most {print(supply.limit, 'A', 2)}
          </Button>
        )}
        {asked && on && reading && (
          <Button
            onClick={() => {
              setText(print(reading.limiting ? supply.limit : reading.amps, 'A', 4));
              take();
            }}
          >
            Take {print(reading.limiting ? supply.limit : reading.amps, 'A', 3)}
          </Button>
        )}
      </div>
      {!on && (
        <p className="soft">
          {isSet ? 'Set, and read back. One hand stays at the switch.' : 'It is set with its output off.'}
          {simulated === null ? '' : ' A simulated supply.'}
        </p>
      )}
    </section>
  );
}

function refusal(answer: SupplyTold): string {
  switch (answer.state) {
    case 'refused':
      return `The supply refused: ${answer.said}.`;
    case 'differs':
      return `The supply is at ${print(answer.volts, 'V', 3)} and ${print(answer.limit, 'A', 2)} instead. Its output stays off: set it by hand, or look at its range.`;
    case 'silent':
      return 'The supply did not answer. Nothing is known of its settings: look at its display.';
    case 'done':
      return '';
  }
}

/** The simulated board hangs on the simulated supply: it draws what its hidden truth says. */
function useLoad(kit: KitState, stage: Stage, supply: StageSupply | null): void {
  const simulated = useSupply((s) => s.simulated);
  useEffect(() => {
    if (!simulated) return;
    let gone = false;
    simulated.connect(null);
    const check = stage.checks.find((c) => c.what === 'measure' && c.mode === 'dca' && (c.source === undefined || c.source === supply?.source));
    if (!check || !supply) return;
    readSimulated(kit, { kind: 'check', id: `${stage.id}/${check.id}`, stage, check, channel: null })
      .then((amps) => {
        if (!gone && typeof amps === 'number') simulated.connect({ amps, at: supply.volts });
      })
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [simulated, kit, stage, supply]);
}
