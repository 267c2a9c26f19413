import { NewKit } from '@/ui/newkit/NewKit';

export default function Page() {
  return <NewKit />;
}
