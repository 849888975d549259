'use client';

import { useState } from 'react';
import type { DialogProps } from './DialogSheet';
import { useLater } from './useLater';

const loadSheet = () => import('./DialogSheet').then((loaded) => loaded.DialogSheet);

/**
 * Something beside the work, over it until it is closed: slid up from the thumb on a phone, in the middle on a desk. Its
 * program is fetched when the first is opened, or once the page has come to rest.
 */
export function Dialog(props: DialogProps) {
  const [asked, setAsked] = useState(false);
  if (props.open && !asked) setAsked(true);
  const Sheet = useLater(loadSheet, props.open);
  return Sheet && asked ? <Sheet {...props} /> : null;
}
