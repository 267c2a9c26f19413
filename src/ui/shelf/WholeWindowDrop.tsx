import { useEffect, useState } from 'react';
import styles from './Shelf.module.css';

/** The whole window takes a dropped file. */
export function WholeWindowDrop({ take }: { take: (file: File) => void }) {
  const [over, setOver] = useState(false);
  useEffect(() => {
    const holdsFile = (e: DragEvent) => e.dataTransfer?.types.includes('Files') === true;
    const onOver = (e: DragEvent) => {
      if (!holdsFile(e)) return;
      e.preventDefault();
      setOver(true);
    };
    const onLeave = (e: DragEvent) => {
      if (e.relatedTarget === null) setOver(false);
    };
    const onDrop = (e: DragEvent) => {
      setOver(false);
      const file = e.dataTransfer?.files[0];
      if (!file || e.defaultPrevented) return;
      e.preventDefault();
      take(file);
    };
    addEventListener('dragover', onOver);
    addEventListener('dragleave', onLeave);
    addEventListener('drop', onDrop);
    return () => {
      removeEventListener('dragover', onOver);
      removeEventListener('dragleave', onLeave);
      removeEventListener('drop', onDrop);
    };
  }, [take]);
  return over ? (
    <div className={styles.drop} role="status">
      Drop the file anywhere
    </div>
  ) : null;
}
