import { Button } from 'antd';
import type { KitState } from '@/core/kit';
import { badPieces, lineTitle, mountingRemarks, type Phase } from '@/core/loop';
import { PartBody } from '../drawn/Body';
import { copyText, useCopies } from '../probe/useCopies';
import type { Loop } from '../probe/useLoop';
import { useConsequences } from '../results/useConsequences';
import zones from '../shell/zones.module.css';
import { InHand } from '../tray/InHand';
import { FitOtherwise } from './FitOtherwise';

interface Props {
  readonly kit: KitState;
  readonly loop: Loop;
  readonly go: (phase: Phase) => void;
}

/** The part that goes in next: where, which way round, and which piece. */
export function FitStory({ kit, loop, go }: Props) {
  const target = loop.target?.kind === 'fit' ? loop.target : null;
  const consequences = useConsequences(kit);
  const copies = useCopies(kit);
  const left = loop.states.filter((s) => !s.done).length;
  const at = loop.states.findIndex((s) => s.target.id === loop.target?.id);
  const later = loop.states.slice(at + 1).find((s) => !s.done)?.target;
  const after = later?.kind === 'fit' ? later : null;
  const beside = loop.target?.kind === 'inspect' ? loop.target.item : null;
  return (
    <>
      {beside && (
        <>
          <p>
            <b>{beside.title}</b>
          </p>
          <p>{beside.good}</p>
          <p className={zones.note}>{beside.remedy}</p>
          <p className="soft">{left} lines to go. This one has no position on the list, so it has a step of its own.</p>
        </>
      )}
      {target && (
        <>
          <PartBody line={target.line} />
          <p>
            <b>{lineTitle(target.line)}</b> goes to {target.refs.join(', ')}. {loop.card?.why}
          </p>
          {copies
            .filter((r) => target.refs.includes(r))
            .map((r) => (
              <p key={r} className={zones.caution}>
                {copyText(r)}
              </p>
            ))}
          {badPieces(kit, target.refs).map((b) => {
            const does = consequences[b.key];
            return (
              <p key={b.ref} className={zones.caution}>
                {b.text} {does ? `${does.title}. ${does.detail}` : 'Keep it apart and take another piece.'}
              </p>
            );
          })}
          <ul className={zones.plainList} aria-label="How it is mounted">
            {mountingRemarks(kit, target.line, target.refs).map((r) => (
              <li key={r}>{r}</li>
            ))}
          </ul>
          <InHand kit={kit} loop={loop} />
          <FitOtherwise key={target.id} kit={kit} target={target} letGo={loop.letGo} />
          {after && (
            <p className="soft">
              Next: {lineTitle(after.line)} {after.refs.join(' ')}
            </p>
          )}
          <p className="soft">{left} lines to go. Tick every part off as it goes in: the classic failure is a small packet that was overlooked.</p>
          {loop.card?.note && <p className={zones.note}>{loop.card.note}</p>}
          <p className="soft">Extract the fumes, wash your hands after leaded solder, wear eye protection when you clip leads.</p>
        </>
      )}
      <Button
        type={target ? 'default' : 'primary'}
        onClick={() => {
          go('power');
        }}
      >
        {target ? 'Go to Power up' : 'Power up'}
      </Button>
    </>
  );
}
