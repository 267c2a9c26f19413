import { Input } from 'antd';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly change: (text: string) => void;
  readonly className?: string | undefined;
  readonly small?: boolean;
}

/** Looks for something by some of its words. */
export const SearchField = ({ label, value, change, className, small = false }: Props) => (
  <Input
    {...(small ? { size: 'small' } : {})}
    {...(className ? { className } : {})}
    allowClear
    aria-label={label}
    placeholder={label.toLowerCase()}
    value={value}
    onChange={(e) => {
      change(e.target.value);
    }}
  />
);
