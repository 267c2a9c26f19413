import { Segmented, Switch } from 'antd';
import { memo } from 'react';
import { SearchField } from '../form/SearchField';
import { type Choice, FILTERS } from './rows';
import styles from './Tray.module.css';

/** Which compartments are shown, and in which order. */
export const TrayTools = memo(function TrayTools({
  choice,
  setChoice,
  shown,
  all,
}: {
  choice: Choice;
  setChoice: (choice: Choice) => void;
  shown: number;
  all: number;
}) {
  return (
    <>
      <Segmented
        size="small"
        aria-label="Which compartments"
        options={FILTERS.map((f) => ({ value: f, label: f }))}
        value={choice.filter}
        onChange={(filter) => {
          setChoice({ ...choice, filter });
        }}
      />
      <SearchField
        small
        label="Search the tray"
        className={styles.search}
        value={choice.search}
        change={(search) => {
          setChoice({ ...choice, search });
        }}
      />
      <span>
        <Switch
          size="small"
          id="by-kind"
          checked={choice.byKind}
          onChange={(byKind) => {
            setChoice({ ...choice, byKind });
          }}
        />{' '}
        <label htmlFor="by-kind">by kind</label>
      </span>
      {shown < all && (
        <span className="soft" role="status">
          {shown} of {all} lines
        </span>
      )}
    </>
  );
});
