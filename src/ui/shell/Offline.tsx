'use client';
import { useEffect } from 'react';

/** Registers the service worker of a production build, so that the bench opens without a network. */
export function Offline() {
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
    navigator.serviceWorker.register('/sw.js', { updateViaCache: 'none' }).catch(() => undefined);
  }, []);
  return null;
}
