import type { Panel } from '#core/format';
import { auditSlot, settledIn, unaccounted } from '#core/panel';

/** What to put right in a box, and what is still owed before it counts as mapped. */
export function AuditList({
  panel,
  nominalVolts,
  onChoose,
}: {
  panel: Panel;
  /** Null while it is not known: then nothing is judged. */
  nominalVolts: number | null;
  onChoose: (slotId: string) => void;
}) {
  const wrong = nominalVolts === null ? [] : panel.slots.flatMap((slot) => auditSlot(slot, nominalVolts));
  const owed = unaccounted(panel);
  const spares = panel.slots.filter((slot) => slot.state === 'spare').length;
  return (
    <div className="mt-8 grid gap-8 lg:grid-cols-2" data-testid="audit">
      <section aria-labelledby="audit-wrong">
        <h3 id="audit-wrong" className="border-b-2 border-line pb-1 text-lg">
          Fitted against specified
        </h3>
        {nominalVolts === null ? (
          <p className="mt-2">
            The nominal voltage of this vehicle is not known: nothing is judged before it is.
          </p>
        ) : wrong.length === 0 ? (
          <p className="mt-2 text-soft">Nothing found in this box differs from what belongs there.</p>
        ) : (
          <ul className="mt-2 space-y-2">
            {wrong.map((item) => (
              <li key={item.words}>
                <button type="button" onClick={() => onChoose(item.slot)} className="min-h-11 text-left">
                  <span className={item.danger ? 'font-semibold text-bad' : ''}>
                    {item.danger ? '▲ ' : ''}
                    {item.words}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        )}
        <p className="mt-3 text-soft">
          {spares === 0 ? 'No spares in the lid.' : `${spares} in the spare store: stock, never tested.`}
        </p>
      </section>
      <section aria-labelledby="audit-owed">
        <h3 id="audit-owed" className="border-b-2 border-line pb-1 text-lg">
          {owed.length === 0 ? 'Nothing owed in this box' : `Still owed: ${owed.length}`}
        </h3>
        <p className="mt-2" data-testid="settled">
          {settledIn(panel).words}.
        </p>
        {owed.some((one) => one.slot !== null) ? (
          <p className="mt-2 text-soft">A slot is proved by effect or by trace, never by its rating.</p>
        ) : null}
        <ul className="mt-2 max-h-96 space-y-1 overflow-auto">
          {owed.map((one) => (
            <li key={one.words}>
              {one.slot === null ? (
                <strong className="flex min-h-11 items-center">{one.words}</strong>
              ) : (
                <button
                  type="button"
                  onClick={() => onChoose(one.slot ?? '')}
                  className="min-h-11 w-full text-left"
                >
                  {one.words}
                </button>
              )}
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
