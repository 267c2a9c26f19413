import { NewKit } from '@/ui/NewKit';

export default function Page() {
  return <NewKit />;
}
