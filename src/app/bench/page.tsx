import { Suspense } from 'react';
import { BenchPage, BenchShell } from '@/ui/shell/BenchPage';

export default function Page() {
  return (
    <Suspense fallback={<BenchShell />}>
      <BenchPage />
    </Suspense>
  );
}
