import { TraceView } from '@/features/trace';

export default function Page() {
  return <TraceView />;
}
