/**
 * Job files, version 1 to 2. Version 2 says the nominal voltage and the odometer of the vehicle, without which a job cannot
 * come in on a vehicle that is new, and the version of every entry.
 */
import type { Step } from './step';

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

export const jobFrom1: Step = (file) => {
  const [circuit] = Array.isArray(file.circuits) ? file.circuits : [];
  const nominalVolts = isObject(circuit) ? (circuit.nominalVolts ?? null) : null;
  const events = Array.isArray(file.events)
    ? file.events.map((event: unknown) => (isObject(event) ? { ...event, version: 1 } : event))
    : file.events;
  const vehicle = isObject(file.vehicle) ? { ...file.vehicle, nominalVolts, odometerKm: null } : file.vehicle;
  return { ...file, vehicle, events };
};
