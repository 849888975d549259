'use client';

import { Search } from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLater } from '@/ui/useLater';
import { earlyKeys } from './earlyKeys';

const loadList = () => import('./CommandList').then((loaded) => loaded.CommandList);

/** Reload, other tabs and the like; not what would paste into a field beneath. */
function isOfBrowser({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean {
  return /^F\d/.test(key) || ((ctrlKey || metaKey || altKey) && !/^([vx]|enter)$/i.test(key));
}

/** Everything by its name: one key, one word, Enter. */
export function CommandPalette() {
  const [open, setOpen] = useState(false);
  /** What was typed, in the field of the list or before it had the focus: it stands here and nowhere else. */
  const [text, setText] = useState('');
  const List = useLater(loadList, open);
  /** As the last event has left it; what is drawn comes after. */
  const isOpen = useRef(false);
  const show = useCallback((next: boolean) => {
    isOpen.current = next;
    setOpen(next);
  }, []);
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setText('');
        show(!isOpen.current);
        return;
      }
      if (!isOpen.current || document.activeElement?.closest('[data-palette]')) return;
      // From the event that opened it all that is pressed is the palette’s, whatever has the focus until its field has:
      // a letter would be a reading there, and so would Enter.
      if (isOfBrowser(event)) return;
      if (event.key === 'Escape') show(false);
      else if (event.key === 'Backspace') setText((before) => before.slice(0, -1));
      else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey)
        setText((before) => before + event.key);
      event.preventDefault();
      event.stopPropagation();
    };
    document.addEventListener('keydown', key, true);
    for (const event of earlyKeys()) key(event);
    return () => document.removeEventListener('keydown', key, true);
  }, [show]);
  return (
    <>
      <button
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        onClick={() => {
          setText('');
          show(true);
        }}
        className="flex min-h-14 min-w-12 flex-col items-center justify-center gap-0.5 px-1 text-xs sm:text-sm lg:min-w-16 lg:px-2"
      >
        <Search aria-hidden="true" className="size-6" strokeWidth={1.8} />
        Find
      </button>
      {List ? <List open={open} onOpen={show} text={text} onText={setText} /> : null}
      {open && !List ? (
        <div
          role="dialog"
          aria-label="Find"
          className="fixed inset-x-3 top-[8dvh] z-50 mx-auto max-w-xl border-2 border-ink bg-sheet p-4"
        >
          {text} <span className="text-soft">The list is being fetched.</span>
        </div>
      ) : null}
    </>
  );
}
