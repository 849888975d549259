'use client';

import { Search } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useLater } from '@/ui/useLater';
import { earlyKeys } from './earlyKeys';

const loadList = () => import('./CommandList').then((loaded) => loaded.CommandList);

/** Everything by its name: one key, one word, Enter. */
export function CommandPalette() {
  const [open, setOpen] = useState(false);
  /** What was typed, in the field of the list or before it had the focus: it stands here and nowhere else. */
  const [text, setText] = useState('');
  const List = useLater(loadList, open);
  const isOpen = useRef(false);
  isOpen.current = open;
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setText('');
        // At once: the next letter may come before anything is drawn.
        isOpen.current = !isOpen.current;
        setOpen(isOpen.current);
        return;
      }
      // Whoever types at once loses no letter to a list that is on its way, or whose field is not in focus yet.
      if (!isOpen.current || event.ctrlKey || event.metaKey || event.altKey) return;
      if (document.activeElement?.matches('[role=dialog] input, [role=dialog] button')) return;
      if (event.key === 'Escape') setOpen(false);
      else if (event.key === 'Backspace') setText((before) => before.slice(0, -1));
      else if (event.key.length === 1) setText((before) => before + event.key);
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    document.addEventListener('keydown', key, true);
    for (const event of earlyKeys()) key(event);
    return () => document.removeEventListener('keydown', key, true);
  }, []);
  return (
    <>
      <button
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        onClick={() => {
          setText('');
          setOpen(true);
        }}
        className="flex min-h-14 min-w-12 flex-col items-center justify-center gap-0.5 px-1 text-xs sm:text-sm lg:min-w-16 lg:px-2"
      >
        <Search aria-hidden="true" className="size-6" strokeWidth={1.8} />
        Find
      </button>
      {List ? <List open={open} onOpen={setOpen} text={text} onText={setText} /> : null}
    </>
  );
}
