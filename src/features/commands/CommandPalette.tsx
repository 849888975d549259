'use client';

import { Search } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useLater } from '@/ui/useLater';

const loadList = () => import('./CommandList').then((loaded) => loaded.CommandList);

/** Everything by its name: one key, one word, Enter. */
export function CommandPalette() {
  const [open, setOpen] = useState(false);
  const List = useLater(loadList, open);
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return;
      event.preventDefault();
      setOpen((before) => !before);
    };
    document.addEventListener('keydown', key);
    return () => document.removeEventListener('keydown', key);
  }, []);
  return (
    <>
      <button
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        onClick={() => setOpen(true)}
        className="flex min-h-14 min-w-12 flex-col items-center justify-center gap-0.5 px-1 text-xs sm:text-sm lg:min-w-16 lg:px-2"
      >
        <Search aria-hidden="true" className="size-6" strokeWidth={1.8} />
        Find
      </button>
      {List ? <List open={open} onOpen={setOpen} /> : null}
    </>
  );
}
