import { CompressOutlined, ZoomInOutlined, ZoomOutOutlined } from '@ant-design/icons';
import { Button, Space } from 'antd';
import { createContext, memo, type ReactNode, useContext, useState } from 'react';
import { TransformComponent, TransformWrapper, useControls, useTransformEffect } from 'react-zoom-pan-pinch';
import styles from './BoardMap.module.css';
import { Near } from './Crowd';

/** What carries this class is dragged by itself. */
export const GRIP = 'grip';

const Drawn = createContext<ReactNode>(null);

/** A drawing that is zoomed by wheel, pinch or button, and dragged about. */
export function ZoomFrame({ className, children }: { className: string; children: ReactNode }) {
  return (
    <div className={`${styles.zoom} ${className}`}>
      <Drawn value={children}>
        <Zoomed />
      </Drawn>
    </div>
  );
}

const PANNING = { excluded: [GRIP] };
const TOGGLE = { mode: 'toggle' } as const;

/** Rendered once: the wrapper measures the whole page whenever it is rendered, which costs more than the drawing. */
const Zoomed = memo(function Zoomed() {
  return (
    <TransformWrapper maxScale={12} doubleClick={TOGGLE} panning={PANNING}>
      <Controls />
      <TransformComponent wrapperClass={styles.zoomed ?? ''} contentClass={styles.zoomed ?? ''}>
        <Drawing />
      </TransformComponent>
    </TransformWrapper>
  );
});

/** From this scale on bodies are worth drawing one by one. */
const NEAR = 1.8;

function Drawing() {
  const [near, setNear] = useState(false);
  useTransformEffect(({ state }) => {
    setNear(state.scale > NEAR);
  });
  return <Near value={near}>{useContext(Drawn)}</Near>;
}

function Controls() {
  const { zoomIn, zoomOut, resetTransform } = useControls();
  const act = (run: () => unknown) => () => {
    void run();
  };
  return (
    <Space.Compact className={styles.controls ?? ''}>
      <Button icon={<ZoomInOutlined />} aria-label="Zoom in" onClick={act(() => zoomIn())} />
      <Button icon={<ZoomOutOutlined />} aria-label="Zoom out" onClick={act(() => zoomOut())} />
      <Button icon={<CompressOutlined />} aria-label="The whole board" onClick={act(() => resetTransform())} />
    </Space.Compact>
  );
}
