import { WiresView } from '@/features/wires';

export default function WiresPage() {
  return <WiresView />;
}
