'use client';

import { useEffect, useState } from 'react';

const KEY = 'every-trace stock place';

/** The place that this phone takes parts from, remembered here; the first van where nobody has said. */
export function useStockPlace(
  places: readonly { readonly id: string; readonly sort: string }[],
): readonly [string | null, (id: string) => void] {
  const [chosen, setChosen] = useState<string | null>(null);
  useEffect(() => {
    try {
      setChosen(window.localStorage.getItem(KEY));
    } catch {
      // A browser that keeps nothing: asked again the next time.
    }
  }, []);
  const usual = places.find(({ sort }) => sort === 'van') ?? places[0];
  const place = places.find(({ id }) => id === chosen) ?? usual;
  const choose = (id: string) => {
    setChosen(id);
    try {
      window.localStorage.setItem(KEY, id);
    } catch {
      // As above.
    }
  };
  return [place?.id ?? null, choose];
}
