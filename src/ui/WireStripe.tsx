/** A wire as it looks: its base colour along it and the tracer across it, where the letters are known. */
const DRAWN: Readonly<Record<string, string>> = {
  BK: '#191512',
  BN: '#6b431f',
  RD: '#bf2a20',
  OG: '#e07a1c',
  YE: '#e9c62a',
  GN: '#2c7d40',
  BU: '#2a5cab',
  VT: '#6d4097',
  GY: '#8c8a86',
  WH: '#f6f3ec',
  PK: '#e59db1',
  TQ: '#2ba5a3',
  SR: '#b9bcc0',
  TN: '#c8a87a',
};

export function WireStripe({ colour }: { colour: string }) {
  const [base = '', tracer] = colour.toUpperCase().split('/');
  const fill = DRAWN[base.trim()];
  const line = tracer === undefined ? undefined : DRAWN[tracer.trim()];
  return (
    <svg viewBox="0 0 36 14" className="h-3.5 w-9 shrink-0" aria-hidden="true">
      <rect
        x="1"
        y="1"
        width="34"
        height="12"
        rx="6"
        fill={fill ?? 'none'}
        stroke="var(--soft)"
        strokeWidth="1.5"
        strokeDasharray={fill ? undefined : '3 3'}
      />
      {line ? <rect x="3" y="5" width="30" height="4" fill={line} /> : null}
    </svg>
  );
}
