import { Button, Collapse } from 'antd';
import { lazy, Suspense } from 'react';
import { type Compartment, deriveStrangers, type KitState } from '@/core/kit';
import { lineTitle, type Phase } from '@/core/loop';
import { print } from '@/core/quantity';
import type { Loop } from '../probe/useLoop';
import { useConsequences } from '../results/useConsequences';
import zones from '../shell/zones.module.css';
import { isShort } from './rows';

const Unlisted = lazy(() => import('./Unlisted').then((m) => ({ default: m.Unlisted })));
const Papers = lazy(() => import('./Papers').then((m) => ({ default: m.Papers })));

interface Props {
  readonly kit: KitState;
  readonly tray: readonly Compartment[];
  readonly left: number;
  readonly go: (phase: Phase) => void;
  readonly loop: Loop;
}

/** What the count tells: what is short, what is spare, what could do instead. */
export function CountStory({ kit, tray, left, go, loop }: Props) {
  const short = tray.filter(isShort);
  const spare = tray.filter((c) => c.counted !== null && c.counted > c.line.quantity);
  return (
    <>
      <h2 className={zones.label}>What the bag says</h2>
      {left > 0 && (
        <p>
          Lay everything out and sort it by kind. <b>{left} lines</b> to count. Enter takes the number of the list; type another if it differs.
        </p>
      )}
      {left > 0 && (
        <p>
          <Button
            onClick={() => {
              loop.setPileKind('R');
            }}
          >
            All in one heap? Loose pile <kbd>L</kbd>
          </Button>
        </p>
      )}
      {tray.length > 0 && (
        <Collapse
          ghost
          size="small"
          items={[
            {
              key: 'unlisted',
              label: <b>Something else came: a wrong value, or not on the list</b>,
              children: (
                <Suspense fallback={null}>
                  <Unlisted kit={kit} tray={tray} />
                </Suspense>
              ),
            },
          ]}
        />
      )}
      {short.map((c) => (
        <p key={c.line.id}>
          <b>
            {c.line.quantity - c.counted!} × {lineTitle(c.line)} missing
          </b>{' '}
          for {c.line.refs.slice(c.counted!).join(', ') || 'this line'}. Look for a second small packet first. Everything that does not need it can go on
          meanwhile.
        </p>
      ))}
      <Offers kit={kit} />
      {spare.map((c) => (
        <p key={c.line.id}>
          {c.counted! - c.line.quantity} × {lineTitle(c.line)} spare. Label it and keep it.
        </p>
      ))}
      <NeedsReminder kit={kit} />
      {left === 0 && tray.length > 0 && (
        <>
          <p>{short.length === 0 ? 'Nothing is missing.' : 'Everything else is here.'} Counting cannot tell a wrong value: measuring can.</p>
          <Button
            type="primary"
            onClick={() => {
              go('check');
            }}
          >
            Check the parts
          </Button>
        </>
      )}
      <Suspense fallback={null}>
        <Papers kit={kit} />
      </Suspense>
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
          The unlisted piece of {print(piece.reading, 'ohm', 3)} in place of the missing {lineTitle(line)}? <b>{found.title}.</b> {found.detail}
        </p>,
      ];
    }),
  );
}
