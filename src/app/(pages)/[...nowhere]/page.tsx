import { notFound } from 'next/navigation';

/** Every address that no page has. */
export default function Nowhere() {
  notFound();
}
