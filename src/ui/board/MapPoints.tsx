import { Button } from 'antd';
import { memo } from 'react';
import { boxOfChip, boxOfDot, type LaidOut, standsOver } from './BoardMap';
import styles from './BoardMap.module.css';

export interface Pressable {
  /** What pressing it does, in words. */
  readonly title: string;
  readonly press: () => void;
}

/** Points of the map that can be pressed, by their id. */
export const MapPoints = memo(function MapPoints({ map, points }: { map: LaidOut; points: ReadonlyMap<string, Pressable> }) {
  const boxes = [...map.dots.map((p) => ({ id: p.point.id, box: boxOfDot(p) })), ...map.strip.map((p) => ({ id: p.point.id, box: boxOfChip(p) }))];
  return boxes.map(({ id, box }) => {
    const point = points.get(id);
    return (
      point && (
        <Button
          key={id}
          type="text"
          className={styles.press ?? ''}
          style={standsOver(map, box)}
          title={point.title}
          aria-label={point.title}
          onClick={point.press}
        />
      )
    );
  });
});
