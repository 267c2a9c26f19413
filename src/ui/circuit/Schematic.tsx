import { Button, Flex, Form, Segmented } from 'antd';
import { useMemo, useRef, useState } from 'react';
import type { KitState } from '@/core/kit';
import { Nothing } from '../drawn/Nothing';
import { Choose } from '../form/Choose';
import { useResult } from '../results/useResult';
import { saveFile } from '../shell/saveFile';
import { NOT_LIVE } from './live';
import { MoveSymbols, MoveSymbolTools, NONE_IN_HAND } from './MoveSymbols';
import { PrintSchematic } from './PrintSchematic';
import styles from './Schematic.module.css';
import { SchematicOf } from './SchematicOf';
import { svgFile } from './svgFile';
import type { School } from './symbols';

/** The whole circuit in the trade's symbols, with a choice of stage and of symbols. */
export function Schematic({ kit, suppose }: { kit: KitState; suppose: (ref: string) => void }) {
  const powered = kit.sheet.stages.filter((s) => s.supplies.length > 0);
  const [stage, setStage] = useState<string | null>(kit.lastStage ?? powered[powered.length - 1]?.id ?? null);
  const [school, setSchool] = useState<School>('box');
  const [moving, setMoving] = useState(false);
  const [hand, setHand] = useState(NONE_IN_HAND);
  const { value: drawing } = useResult('schematic', kit, undefined);
  const [printing, setPrinting] = useState(false);
  const drawn = useRef<HTMLDivElement>(null);
  const live = useMemo(() => ({ ...NOT_LIVE, pressPart: suppose }), [suppose]);
  if (!kit.sheet.circuit) return <Nothing say="No circuit yet. Walk the printed drawing, take a circuit like this one, or paste a deck under Connections." />;
  return (
    <>
      <Flex gap="small" wrap align="end" className={styles.tools ?? ''}>
        {powered.length > 0 && (
          <Form layout="vertical" component="div">
            <Form.Item label="Volts in stage" htmlFor="schematic-stage" className={styles.pick ?? ''}>
              <Choose id="schematic-stage" value={stage} options={powered.map((s) => ({ value: s.id, label: s.title }))} onChange={setStage} />
            </Form.Item>
          </Form>
        )}
        <Segmented
          aria-label="Symbols of resistors"
          value={school}
          onChange={setSchool}
          options={[
            { value: 'box', label: 'Box resistors' },
            { value: 'zigzag', label: 'Zigzag resistors' },
          ]}
        />
        <Button
          onClick={() => {
            const svg = drawn.current?.querySelector<SVGSVGElement>(`svg.${styles.sheet!}`);
            if (svg) saveFile('schematic.svg', svgFile(svg), 'image/svg+xml');
          }}
        >
          Save as SVG
        </Button>
        <Button
          onClick={() => {
            setPrinting(true);
          }}
        >
          Print
        </Button>
        <Button
          type={moving ? 'primary' : 'default'}
          aria-pressed={moving}
          onClick={() => {
            setMoving(!moving);
            setHand(NONE_IN_HAND);
          }}
        >
          {moving ? 'Done moving' : 'Move symbols'}
        </Button>
      </Flex>
      {moving && <MoveSymbolTools kit={kit} drawing={drawing} hand={hand} />}
      <div ref={drawn}>
        <SchematicOf
          kit={kit}
          stage={stage}
          school={school}
          live={moving ? NOT_LIVE : live}
          {...(moving ? { over: (drawing) => <MoveSymbols drawing={drawing} hand={hand} take={setHand} /> } : {})}
        />
      </div>
      {printing && (
        <PrintSchematic
          kit={kit}
          stage={stage}
          school={school}
          close={() => {
            setPrinting(false);
          }}
        />
      )}
      <p className="soft">Upper figures: volts of a healthy board. Lower figures: what was read in that stage.</p>
    </>
  );
}
