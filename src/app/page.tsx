import { Shelf } from '@/ui/Shelf';

export default function Page() {
  return <Shelf />;
}
