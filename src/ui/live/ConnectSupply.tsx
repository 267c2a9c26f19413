import { Alert, Button, Select } from 'antd';
import { useState } from 'react';
import type { KitState } from '@/core/kit';
import { useSupply } from '@/store/instrument';
import { connectSimulatedSupply, connectSupply, disconnectSupply } from '@/store/lines';
import zones from '../shell/zones.module.css';
import { hasSerial, openSerial, SPEEDS } from './serial';

/** A bench supply that is set and read over a line: simulated, or at a serial port. */
export function ConnectSupply({ kit }: { kit: KitState }) {
  const { session, name, said } = useSupply();
  const [speed, setSpeed] = useState(9600);
  const [failed, setFailed] = useState('');
  const told = (what: Promise<string | null>) => {
    what
      .then((wrong) => {
        setFailed(wrong ?? '');
      })
      .catch((e: unknown) => {
        setFailed(`No port was opened: ${(e as Error).message}`);
      });
  };
  return (
    <section aria-label="Connected bench supply">
      <h2 className={`${zones.label} ${zones.section}`}>Connected bench supply</h2>
      {said !== '' && <Alert type="warning" role="status" title={said} />}
      {failed !== '' && <Alert type="error" title={failed} />}
      {session ? (
        <p>
          <b>{name}</b> is connected. It is set, switched and read under Power up.{' '}
          <Button
            size="small"
            onClick={() => {
              disconnectSupply();
            }}
          >
            Disconnect the supply
          </Button>
        </p>
      ) : (
        <>
          <p className="soft">Volts and current limit are then set for each stage, limit first, and its current is read from it. You switch it on.</p>
          <div className={zones.row}>
            {kit.settings.standIn !== null && (
              <Button
                onClick={() => {
                  told(connectSimulatedSupply());
                }}
              >
                Connect the simulated supply
              </Button>
            )}
            {hasSerial() && (
              <>
                <Select<number>
                  aria-label="Speed of the supply, baud"
                  value={speed}
                  onChange={setSpeed}
                  options={SPEEDS.map((s) => ({ value: s, label: `${s} baud` }))}
                />
                <Button
                  onClick={() => {
                    told(openSerial(speed).then((line) => connectSupply(line)));
                  }}
                >
                  Connect the supply at a serial port
                </Button>
              </>
            )}
          </div>
        </>
      )}
    </section>
  );
}
