import { randomUUID } from 'node:crypto';
import { NOMINAL_VOLTS } from '#core/circuit/defaults';
import { readJson } from '#core/format/problem';
import { isUuid } from '#core/format/uuid';
import { LOAD_WORDS, PATTERNS } from '#core/notation';
import { appendEvents, loadJob, openJob } from '@/features/jobs/server';
import { currentActor } from '@/features/shop/server';
import { addPattern, addVehicle, setNominalVolts } from '@/features/vehicles/server';

const NOMINAL: readonly unknown[] = NOMINAL_VOLTS;
const COMPLAINT_STATES: readonly unknown[] = ['dead', 'weak', 'comes-and-goes', 'on-when-off'];

const refuse = (message: string, status = 400) => Response.json({ message }, { status });

function words(value: unknown, most: number): string | null {
  return typeof value === 'string' && value.trim() !== '' && value.length <= most ? value.trim() : null;
}

/** What fails, without how: "Warming jacket dead" is about the warming jacket. */
function loadOf(title: string): string {
  const [first = title] = title.split(/[,;:]/);
  const name = first.replace(
    /\s+(is |are |was |were |stays |remains )?(dead|weak|dim|off|out|on|not working|works? not|fails?|flickers?|comes and goes)$/i,
    '',
  );
  return (name.trim() || title).slice(0, 60);
}

/**
 * Opens a job under the id that the client made. With a pattern the circuit is made first, on a vehicle that may be new
 * itself, and the complaint is entered, so that the trace can begin at once.
 */
export async function POST(request: Request) {
  const json = readJson(await request.text());
  if (!json.ok) return refuse(json.problems[0]!.message);
  const input = (json.value ?? {}) as Record<string, unknown>;
  const { id, vehicleId } = input;
  if (!isUuid(id) || !isUuid(vehicleId)) {
    return refuse('The vehicle must be chosen from the list.');
  }
  const title = words(input.title, 160);
  if (!title) return refuse('Say in a few words what fails (at most 160 characters).');
  const actor = await currentActor();
  if (input.nominalVolts !== undefined && !NOMINAL.includes(input.nominalVolts)) {
    return refuse(`The nominal voltage must be one of ${NOMINAL_VOLTS.join(', ')} V.`);
  }
  const pattern = PATTERNS.find((one) => one.id === input.pattern);
  // The answer to the first request was lost: the job is there, and nothing is made a second time.
  if (await loadJob(actor, id)) return Response.json({ id, traced: pattern !== undefined });
  const nominalVolts = input.nominalVolts as number | undefined;
  const name = words(input.vehicleName, 80);
  if (name) {
    if (nominalVolts === undefined) {
      return refuse('Say the nominal voltage: no verdict is given without it.');
    }
    const plate = words(input.plate, 20) ?? '';
    const added = await addVehicle(actor, { id: vehicleId, name, plate, nominalVolts });
    if (!added.ok) return refuse(added.message, 409);
  } else if (nominalVolts !== undefined) await setNominalVolts(actor, vehicleId, nominalVolts);
  if (!pattern) {
    const result = await openJob(actor, { id, vehicleId, title });
    return result.ok ? Response.json({ id }) : refuse(result.message, 404);
  }
  const kind = LOAD_WORDS.find(([one]) => one === input.kind)?.[0] ?? 'module';
  const state = (COMPLAINT_STATES.includes(input.state) ? input.state : 'dead') as 'dead';
  const made = await addPattern(actor, vehicleId, pattern, {
    load: words(input.load, 60) ?? loadOf(title),
    kind,
    unbidden: input.state === 'on-when-off',
  });
  if (!made.ok) return refuse(made.message);
  const result = await openJob(actor, { id, vehicleId, title, circuitFileIds: [made.fileId] });
  if (!result.ok) return refuse(result.message, 404);
  await appendEvents(actor, [
    {
      id: randomUUID(),
      jobId: id,
      madeAt: new Date().toISOString(),
      clientOrder: 0,
      body: {
        kind: 'complaint',
        words: title,
        function: made.function,
        condition: made.condition,
        state,
      },
    },
  ]);
  return Response.json({ id, traced: true });
}
