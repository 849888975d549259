/**
 * What every request of this process meets before the framework sees it: methods that nothing answers are refused
 * (`methods.ts`), and those of one sender wait for each other (`requestTurns.ts`).
 */
import http from 'node:http';
import { refuseOddMethod } from './methods';
import { RequestTurns } from './requestTurns';

let stands = false;

/** From now on, for every server of this process. */
export function standBeforeRoutes(): void {
  if (stands) return;
  stands = true;
  const turns = new RequestTurns();
  const { emit } = http.Server.prototype;
  http.Server.prototype.emit = function (this: http.Server, event: string | symbol, ...told: unknown[]) {
    const goOn = () => emit.apply(this, [event, ...told] as unknown as Parameters<typeof emit>);
    if (event !== 'request') return goOn();
    const [request, response] = told as [http.IncomingMessage, http.ServerResponse];
    if (!refuseOddMethod(request, response)) turns.take(request, response, goOn);
    return true;
  };
}
