'use client';

import { Search } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useLater } from '@/ui/useLater';

const loadList = () => import('./CommandList').then((loaded) => loaded.CommandList);

/** Everything by its name: one key, one word, Enter. */
export function CommandPalette() {
  const [open, setOpen] = useState(false);
  /** What was typed before the list was there. */
  const [early, setEarly] = useState('');
  const List = useLater(loadList, open);
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return;
      event.preventDefault();
      setEarly('');
      setOpen((before) => !before);
    };
    document.addEventListener('keydown', key);
    return () => document.removeEventListener('keydown', key);
  }, []);
  const waiting = open && List === null;
  useEffect(() => {
    if (!waiting) return;
    // Whoever types at once loses no letter to a list that is still on its way.
    const key = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === 'Escape') setOpen(false);
      else if (event.key === 'Backspace') setEarly((text) => text.slice(0, -1));
      else if (event.key.length === 1) setEarly((text) => text + event.key);
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    document.addEventListener('keydown', key, true);
    return () => document.removeEventListener('keydown', key, true);
  }, [waiting]);
  return (
    <>
      <button
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        onClick={() => {
          setEarly('');
          setOpen(true);
        }}
        className="flex min-h-14 min-w-12 flex-col items-center justify-center gap-0.5 px-1 text-xs sm:text-sm lg:min-w-16 lg:px-2"
      >
        <Search aria-hidden="true" className="size-6" strokeWidth={1.8} />
        Find
      </button>
      {List ? <List open={open} onOpen={setOpen} early={early} /> : null}
    </>
  );
}
