import { Alert, Button } from 'antd';
import { useEffect } from 'react';
import type { Phase } from '@/core/loop';
import { useSupply } from '@/store/instrument';
import { disconnectSupply, supplyBroke } from '@/store/lines';

/** Between two readings of the supply, milliseconds. */
const PAUSE = 500;
/** So often in a row nothing may come before the line counts as lost. */
const PATIENCE = 4;
const LOST = 'The supply no longer answers. Switch it off at its own switch, check its cable, then connect it again.';

/** Phases in which parts are touched. */
const HANDS_ON: readonly Phase[] = ['unpack', 'check', 'fit'];

const wait = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));

/** Reads the connected supply all the time, and warns where hands go to the board while it is on. */
export function SupplyWatch({ phase }: { phase: Phase }) {
  const { session, reading } = useSupply();
  useEffect(() => {
    if (!session) return;
    let gone = false;
    let silent = 0;
    const listen = async () => {
      for (;;) {
        const read = await session.read();
        if (gone) return;
        silent = read === null ? silent + 1 : 0;
        if (silent >= PATIENCE) {
          disconnectSupply(LOST);
          return;
        }
        if (read !== null) useSupply.setState({ reading: read });
        await wait(PAUSE);
      }
    };
    listen().catch((e: unknown) => {
      if (!gone) supplyBroke(e);
    });
    return () => {
      gone = true;
    };
  }, [session]);
  if (!session || !reading?.on || !HANDS_ON.includes(phase)) return null;
  return (
    <Alert
      type="error"
      role="alert"
      banner
      title="The connected supply is on. Switch it off before you touch the board."
      action={
        <Button
          size="small"
          danger
          onClick={() => {
            session.output(false).catch(supplyBroke);
          }}
        >
          Output off
        </Button>
      }
    />
  );
}
