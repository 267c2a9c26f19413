import { Segmented } from 'antd';

interface Props {
  readonly label: string;
  /** Null while it was not answered. */
  readonly value: boolean | null;
  readonly answer: (yes: boolean) => void;
}

/** A question with yes and no; an answer can be changed, and taken back only as any entry is. */
export const YesNo = ({ label, value, answer }: Props) => (
  <Segmented<'yes' | 'no' | '?'>
    size="small"
    aria-label={label}
    value={value === null ? '?' : value ? 'yes' : 'no'}
    options={['yes', 'no', { value: '?', label: '?', disabled: value !== null }]}
    onChange={(v) => {
      if (v !== '?') answer(v === 'yes');
    }}
  />
);
