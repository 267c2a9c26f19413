import { Empty } from 'antd';
import type { ReactNode } from 'react';

/** Nothing here yet: an empty compartment, what to do about it, and the button that does it. */
export function Nothing({ say, children }: { say: string; children?: ReactNode }) {
  return (
    <Empty
      image={
        <svg viewBox="0 0 120 60" width="120" height="60" aria-hidden="true">
          <rect x="2" y="2" width="116" height="56" rx="8" fill="var(--sunk)" stroke="var(--line)" strokeWidth="2" />
          <path d="M20 30h80" stroke="var(--line)" strokeWidth="3" />
          <rect x="38" y="20" width="44" height="20" rx="6" fill="none" stroke="var(--edge)" strokeWidth="2" strokeDasharray="5 4" />
        </svg>
      }
      styles={{ image: { height: 64 } }}
      description={say}
    >
      {children}
    </Empty>
  );
}
