import { JobPage } from '@/features/jobs';

export default function Page() {
  return <JobPage />;
}
