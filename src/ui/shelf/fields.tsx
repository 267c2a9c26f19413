import { Alert, Input } from 'antd';
import { useState } from 'react';
import { SearchField } from '../form/SearchField';
import styles from './Shelf.module.css';

/** Nothing can be kept here, and why. */
export const Blocked = ({ why }: { why: string }) => <Alert type="error" title={why} className={styles.alarm ?? ''} />;

/** Looks for a kit by its name. */
export const ShelfSearch = ({ search, setSearch }: { search: string; setSearch: (text: string) => void }) => (
  <SearchField label="Search the shelf" className={styles.search} value={search} change={setSearch} />
);

/** A kit's new name; null when it keeps the old one. */
export function Rename({ title, done }: { title: string; done: (title: string | null) => void }) {
  const [text, setText] = useState(title);
  return (
    <Input
      autoFocus
      aria-label={`New name of ${title}`}
      value={text}
      maxLength={200}
      onChange={(e) => {
        setText(e.target.value);
      }}
      onPressEnter={() => {
        done(text);
      }}
      onBlur={() => {
        done(text);
      }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') done(null);
      }}
    />
  );
}
