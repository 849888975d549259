/** A file of the job to take along, as a button. */
export function FileLink({ href, children }: { href: string; children: string }) {
  return (
    <a
      href={href}
      download
      className="inline-flex min-h-11 items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold hover:border-ink"
    >
      {children}
    </a>
  );
}
