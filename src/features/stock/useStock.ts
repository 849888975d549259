'use client';

import { useRef, useState } from 'react';
import type { StockItem, StockRequest } from '#core/format';
import type { Stock } from '#core/stock';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import type { Taken } from '@/sync/useKeptForm';

type Without<T> = T extends { id: string } ? Omit<T, 'id'> : never;
export type StockAsk = Without<StockRequest>;

export type StockTaken = Taken & { readonly allTheSame?: boolean; readonly seen?: StockItem };

/** The stock as the page shows it, and the one way to change it: each request is made once, however often it is sent. */
export function useStock(first: Stock): {
  readonly stock: Stock;
  readonly ask: (request: StockAsk) => Promise<StockTaken>;
} {
  const [stock, setStock] = useState(first);
  const tried = useRef<Tried | null>(null);
  const ask = async (request: StockAsk): Promise<StockTaken> => {
    tried.current = requestFor(tried.current, JSON.stringify(request));
    const posted = await postJson<{
      message?: string;
      allTheSame?: boolean;
      seen?: StockItem;
      stock?: Stock;
    }>('/api/stock', {
      ...request,
      id: tried.current.id,
    });
    if (posted.kind === 'away') return { ok: false, message: posted.message };
    if (!posted.ok) {
      const { message = 'It was not taken.', allTheSame = false, seen } = posted.answer;
      return { ok: false, message, allTheSame, ...(seen ? { seen } : {}) };
    }
    tried.current = null;
    if (posted.answer.stock) setStock(posted.answer.stock);
    return { ok: true };
  };
  return { stock, ask };
}
