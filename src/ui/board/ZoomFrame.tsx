import { CompressOutlined, ZoomInOutlined, ZoomOutOutlined } from '@ant-design/icons';
import { Button, Space } from 'antd';
import type { ReactNode } from 'react';
import { TransformComponent, TransformWrapper, useControls } from 'react-zoom-pan-pinch';
import styles from './BoardMap.module.css';

/** What carries this class is dragged by itself. */
export const GRIP = 'grip';

/** A drawing that is zoomed by wheel, pinch or button, and dragged about. */
export function ZoomFrame({ className, children }: { className: string; children: ReactNode }) {
  return (
    <div className={`${styles.zoom} ${className}`}>
      <TransformWrapper maxScale={12} doubleClick={{ mode: 'toggle' }} panning={{ excluded: [GRIP] }}>
        <Controls />
        <TransformComponent wrapperClass={styles.zoomed ?? ''} contentClass={styles.zoomed ?? ''}>
          {children}
        </TransformComponent>
      </TransformWrapper>
    </div>
  );
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
