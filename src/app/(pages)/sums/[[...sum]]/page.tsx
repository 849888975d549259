import { notFound } from 'next/navigation';
import { SUMS } from '#core/sizing';
import { SumsPage } from '@/features/sums';
import { type SearchParams, searchOfPage } from '@/http/searchOfPage';

export async function generateMetadata({ params }: { params: Promise<{ sum?: string[] }> }) {
  const [id] = (await params).sum ?? [];
  return { title: SUMS.find((one) => one.id === id)?.name ?? 'Sums' };
}

/** The sums of the trade; which one, and what was typed in it, stands in the address. */
export default async function Sums({
  params,
  searchParams,
}: {
  params: Promise<{ sum?: string[] }>;
  searchParams: SearchParams;
}) {
  const path = (await params).sum ?? [];
  if (path.length > 1 || (path[0] !== undefined && !SUMS.some(({ id }) => id === path[0]))) notFound();
  return (
    <div className="mx-auto max-w-7xl px-4 py-6 lg:px-6">
      <h1 className="mb-4 text-3xl">Sums</h1>
      <SumsPage search={await searchOfPage(searchParams)} />
    </div>
  );
}
