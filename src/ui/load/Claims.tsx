import { Button, List } from 'antd';
import { judgeClaim } from '@/core/load';
import { deriveStages, type KnownWindows } from '@/core/loop';
import type { KitState } from '@/core/kit';
import type { Verdict } from '@/core/verdict';
import { VerdictMark } from '../drawn/VerdictMark';
import { useWindows } from '../results/useWindows';
import zones from '../shell/zones.module.css';

type Claim = KitState['sheet']['claims'][number];

/** Claims of the kit: whether it can be true, and what the check behind it found. */
export function Claims({ kit, choose }: { kit: KitState; choose: (target: string) => void }) {
  const windows = useWindows(kit);
  const { claims } = kit.sheet;
  if (claims.length === 0) return <p className="soft">No claims yet. Calculate one below and keep it, or add it on the Sheet.</p>;
  return (
    <List
      size="small"
      header={<h2 className={zones.label}>Claims of the kit</h2>}
      dataSource={[...claims]}
      renderItem={(c) => {
        const standing = standingOf(kit, windows, c);
        return (
          <List.Item
            key={c.id}
            actions={
              standing.target === null
                ? []
                : [
                    <Button
                      key="check"
                      size="small"
                      onClick={() => {
                        choose(standing.target!);
                      }}
                    >
                      To its check
                    </Button>,
                  ]
            }
          >
            <span className={zones.row}>
              <VerdictMark verdict={standing.verdict} />
              <span>
                <b>{c.text}</b> <span className={standing.tone}>{standing.text}</span>
              </span>
            </span>
          </List.Item>
        );
      }}
    />
  );
}

interface Standing {
  readonly verdict: Verdict;
  readonly text: string;
  readonly tone: string;
  readonly target: string | null;
}

function standingOf(kit: KitState, windows: KnownWindows, claim: Claim): Standing {
  const judged = claim.means ? judgeClaim(claim.means) : null;
  const said = judged === null ? '' : judged.possible ? `possible: ${judged.text}.` : `impossible: ${judged.text}.`;
  const found = deriveStages(kit, windows).flatMap((s) => s.checks.flatMap((c) => (`${s.stage.id}/${c.check.id}` === claim.check ? [{ s, c }] : [])))[0];
  if (!found)
    return {
      verdict: judged?.possible === false ? 'out' : 'none',
      text: said || 'no check behind it',
      tone: judged?.possible === false ? 'v-out' : 'soft',
      target: null,
    };
  const { verdict } = found.c;
  const outcome = { in: 'It was proved.', doubtful: 'The reading leaves it open.', out: 'The reading says no.', none: 'Not read yet.' }[verdict];
  return {
    verdict,
    text: `${said} ${outcome}`.trim(),
    tone: verdict === 'none' ? 'soft' : `v-${verdict}`,
    target: `check:${found.s.stage.id}:${found.c.check.id}`,
  };
}
