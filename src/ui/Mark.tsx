/** The mark: a run with two stops and the step where the volts are lost. */
export function Mark() {
  return (
    <svg viewBox="0 0 40 40" className="size-9" aria-hidden="true">
      <path d="M8 4v12h14v20" fill="none" stroke="var(--copper)" strokeWidth="4" />
      <circle cx="8" cy="10" r="4.5" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2.5" />
      <circle cx="22" cy="28" r="4.5" fill="var(--ink)" />
    </svg>
  );
}
