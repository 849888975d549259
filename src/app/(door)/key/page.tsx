import { AtTheKeyView } from '@/features/helper';

export const metadata = { title: 'At the key' };

/** The phone of the person at the key. */
export default async function KeyPage({
  searchParams,
}: {
  searchParams: Promise<{ code?: string | string[] }>;
}) {
  const { code } = await searchParams;
  return <AtTheKeyView code={typeof code === 'string' && /^\d{9}$/.test(code) ? code : ''} />;
}
