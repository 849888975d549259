import { BoxTest } from '@/features/boxes';

export default function BoxesPage() {
  return <BoxTest />;
}
