'use client';

import ElkApi from 'elkjs/lib/elk-api.js';
import { useEffect, useState } from 'react';
import { type Diagram, type LayoutAnswer, laidDiagram, planDiagram } from '#core/diagram';
import type { CircuitFile } from '#core/format';

type Layout = { layout: (graph: unknown) => Promise<LayoutAnswer>; terminateWorker: () => void };

/** The circuit drawn; the drawing before stays until the new one is there. */
export function useDiagram(circuit: CircuitFile | null): { diagram: Diagram | null; problem: string | null } {
  const [layout, setLayout] = useState<Layout | null>(null);
  const [state, setState] = useState<{ diagram: Diagram | null; problem: string | null }>({
    diagram: null,
    problem: null,
  });
  useEffect(() => {
    const made = new ElkApi({
      workerFactory: () => new Worker(new URL('../../workers/layout.worker.ts', import.meta.url)),
    }) as unknown as Layout;
    setLayout(made);
    return () => made.terminateWorker();
  }, []);
  useEffect(() => {
    if (!layout || !circuit) return;
    let old = false;
    const plan = planDiagram(circuit);
    layout.layout(plan.graph).then(
      (answer) => {
        if (!old) setState({ diagram: laidDiagram(plan, answer), problem: null });
      },
      (error: unknown) => {
        if (!old) setState({ diagram: null, problem: `The circuit cannot be drawn: ${String(error)}` });
      },
    );
    return () => {
      old = true;
    };
  }, [layout, circuit]);
  return state;
}
