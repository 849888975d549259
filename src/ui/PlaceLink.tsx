'use client';

import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import type { ComponentProps, MouseEvent } from 'react';
import { wayTo } from '@/http/places';
import { changeAddress } from './address';

type Props = Omit<ComponentProps<'a'>, 'href'> & { readonly href: string };

/** A link that goes the shortest way: within a job nothing is asked of the server. */
export function PlaceLink({ href, onClick, ...rest }: Props) {
  const way = wayTo(usePathname(), href);
  // Every page of the server depends on what is in the shop now: fetched before, it would be fetched again.
  if (way === 'router') return <Link href={href} prefetch={false} onClick={onClick} {...rest} />;
  const click = (event: MouseEvent<HTMLAnchorElement>) => {
    onClick?.(event);
    const elsewhere = event.ctrlKey || event.metaKey || event.shiftKey || event.altKey || event.button !== 0;
    if (way === 'load' || event.defaultPrevented || elsewhere) return;
    event.preventDefault();
    changeAddress(href);
  };
  return <a href={href} onClick={click} {...rest} />;
}

/** Goes to an address as a link to it would. */
export function useGo(): (href: string) => void {
  const here = usePathname();
  const router = useRouter();
  return (href) => {
    const way = wayTo(here, href);
    if (way === 'router') router.push(href);
    else if (way === 'address') changeAddress(href);
    else window.location.assign(href);
  };
}
