import { PartsSheet } from '@/ui/drawn/PartsSheet';

export default function Page() {
  return <PartsSheet />;
}
