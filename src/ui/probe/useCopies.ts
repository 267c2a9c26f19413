import { useEffect, useState } from 'react';
import type { KitState, Ref } from '@/core/kit';

const NONE: readonly Ref[] = [];

/** Places whose part is a copy beyond doubt. What judges that is fetched only where something was examined. */
export function useCopies(kit: KitState): readonly Ref[] {
  const { examined } = kit;
  const [copies, setCopies] = useState(NONE);
  useEffect(() => {
    let over = false;
    if (examined.size === 0) return;
    void import('@/core/genuine').then((m) => {
      if (!over) setCopies(m.copiedPlaces(kit).map((c) => c.ref));
    });
    return () => {
      over = true;
    };
  }, [kit, examined]);
  return examined.size === 0 ? NONE : copies;
}

/** Said before a copy goes in. */
export const copyText = (ref: Ref) => `The part for ${ref} is a copy, by all that was found: use a genuine one.`;
