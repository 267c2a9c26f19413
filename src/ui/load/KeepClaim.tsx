import { AutoComplete, Button, Form, Input } from 'antd';
import { useState } from 'react';
import { type EntryBody, type KitState, put } from '@/core/kit';
import { type ClaimMeans, claimWords, provedBy } from '@/core/load';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { Choose } from '../form/Choose';
import { readPlace } from '../sheet/records/fields';
import { placesOfKit } from '../sheet/records/specs';
import zones from '../shell/zones.module.css';
import styles from './LoadDesk.module.css';

const short = (prefix: string) => `${prefix}-${newId().slice(0, 6)}`;

/** A claim that was reckoned, kept with what it depends on; with a stage and a place it becomes readings that prove it. */
export function KeepClaim({ kit, means }: { kit: KitState; means: ClaimMeans }) {
  const append = useBench((s) => s.append);
  const [text, setText] = useState(claimWords(means));
  const [stage, setStage] = useState<string | null>(
    kit.sheet.stages.findLast((s) => s.kind === 'load' || s.kind === 'run')?.id ?? kit.sheet.stages.at(-1)?.id ?? null,
  );
  const [at, setAt] = useState('');
  // A bridge-tied load hangs between two outputs, not at ground.
  const [from, setFrom] = useState(means.kind === 'power' && means.topology === 'bridge' ? '' : 'ground');
  const [kept, setKept] = useState(false);
  const points = new Set(kit.sheet.testPoints.map((t) => t.id));
  const red = readPlace(at, points);
  const black = readPlace(from, points);
  const checked = stage !== null && red !== null && black !== null;
  const proofs = provedBy(means);
  const keep = () => {
    void append((k): EntryBody[] => {
      const checks =
        stage === null || red === null || black === null
          ? []
          : proofs.map((p) => ({
              stage,
              id: short('claim'),
              what: 'measure' as const,
              title: p.title,
              note: p.note,
              mode: p.mode,
              red,
              black,
              window: { low: p.low, high: p.high },
            }));
      const [first] = checks;
      return [
        ...checks.map((c) => put(k, 'checks', c)),
        put(k, 'claims', { id: short('claim'), text: text.trim() || claimWords(means), means, ...(first ? { check: `${first.stage}/${first.id}` } : {}) }),
      ];
    }).then(() => {
      setKept(true);
    });
  };
  return (
    <section aria-label="Keep the claim" className={zones.section}>
      <h3 className={zones.label}>Check this claim</h3>
      <Form layout="vertical" component="div" className={styles.keep ?? ''}>
        <Form.Item label="The claim, as it is printed" htmlFor="claim-text">
          <Input
            id="claim-text"
            value={text}
            maxLength={200}
            onChange={(e) => {
              setText(e.target.value);
            }}
          />
        </Form.Item>
        <Form.Item label="Read in the stage" htmlFor="claim-stage">
          <Choose<string | null>
            id="claim-stage"
            aria-label="Read in the stage"
            allowClear
            value={stage}
            options={kit.sheet.stages.map((s) => ({ value: s.id, label: s.title }))}
            onChange={(id) => {
              setStage(id ?? null);
            }}
          />
        </Form.Item>
        <Form.Item
          label="Red probe at"
          htmlFor="claim-at"
          {...(at.trim() !== '' && red === null ? { validateStatus: 'error', help: 'A test point, R5.2, or a net.' } : {})}
        >
          <AutoComplete
            id="claim-at"
            value={at}
            options={placesOfKit(kit).map((value) => ({ value }))}
            onChange={setAt}
            placeholder="nowhere: keep the claim alone"
          />
        </Form.Item>
        <Form.Item label="Black probe at" htmlFor="claim-from">
          <AutoComplete id="claim-from" value={from} options={placesOfKit(kit).map((value) => ({ value }))} onChange={setFrom} placeholder="the other output" />
        </Form.Item>
      </Form>
      <p className="soft">
        {checked
          ? `Becomes ${proofs.map((p) => `“${p.title}”`).join(' and ')}: ${proofs[0]!.note}`
          : 'Without a stage and a place it is kept, but no reading will prove it.'}
      </p>
      <Button disabled={kept} onClick={keep}>
        {kept ? 'Saved' : checked ? 'Save and check it' : 'Keep it'}
      </Button>
    </section>
  );
}
