import { Suspense } from 'react';
import { BenchPage } from '@/ui/Bench';

export default function Page() {
  return (
    <Suspense fallback={<main className="page soft">Opening the kit…</main>}>
      <BenchPage />
    </Suspense>
  );
}
