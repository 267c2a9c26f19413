'use client';
import { useEffect, useState } from 'react';
import type { TypeCard } from '@/core/kit';
import { listCards } from '@/store/storage';

/** One's own collection of type cards; empty until it is read, or when the browser refuses. */
export function useOwnCards(): readonly TypeCard[] {
  const [own, setOwn] = useState<readonly TypeCard[]>([]);
  useEffect(() => {
    listCards().then(setOwn, () => undefined);
  }, []);
  return own;
}
