import { HandOverSheet } from '@/features/jobs';

export default function Page() {
  return <HandOverSheet />;
}
