'use client';

import ElkApi from 'elkjs/lib/elk-api.js';
import { useEffect, useRef, useState } from 'react';
import { type Diagram, type LayoutAnswer, laidDiagram, planDiagram } from '#core/diagram';
import type { CircuitFile } from '#core/format';
import { STOPPED } from '@/workers/restarted';

/** The layout package in a worker of its own. It knows no errors of the worker, and would wait for a dead one. */
class Layout {
  private readonly elk: {
    layout: (graph: unknown) => Promise<LayoutAnswer>;
    terminateWorker: () => void;
  };
  private readonly broken: Promise<never>;

  constructor() {
    let say: (error: Error) => void = () => undefined;
    this.broken = new Promise((_, reject) => {
      say = reject;
    });
    // Nobody may be waiting when it breaks.
    this.broken.catch(() => undefined);
    this.elk = new ElkApi({
      workerFactory: () => {
        const made = new Worker(new URL('../../workers/layout.worker.ts', import.meta.url));
        made.addEventListener('error', () => say(new Error(STOPPED)));
        return made;
      },
    }) as unknown as typeof this.elk;
  }

  lay(graph: unknown): Promise<LayoutAnswer> {
    return Promise.race([this.elk.layout(graph), this.broken]);
  }

  end(): void {
    this.elk.terminateWorker();
  }
}

/** The circuit drawn; the drawing before stays until the new one is there. */
export function useDiagram(circuit: CircuitFile | null): { diagram: Diagram | null; problem: string | null } {
  const layout = useRef<Layout | null>(null);
  const [state, setState] = useState<{ diagram: Diagram | null; problem: string | null }>({
    diagram: null,
    problem: null,
  });
  useEffect(
    () => () => {
      layout.current?.end();
      layout.current = null;
    },
    [],
  );
  useEffect(() => {
    if (!circuit) return;
    let old = false;
    const plan = planDiagram(circuit);
    const draw = async (again: boolean): Promise<void> => {
      layout.current ??= new Layout();
      const asked = layout.current;
      try {
        const answer = await asked.lay(plan.graph);
        if (!old) setState({ diagram: laidDiagram(plan, answer), problem: null });
      } catch (error) {
        if (layout.current === asked) {
          asked.end();
          layout.current = null;
        }
        if (old) return;
        if (again) await draw(false);
        else
          setState({
            diagram: null,
            problem: `The circuit cannot be drawn: ${error instanceof Error ? error.message : String(error)}`,
          });
      }
    };
    void draw(true);
    return () => {
      old = true;
    };
  }, [circuit]);
  return state;
}
