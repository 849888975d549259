const STAGES: Readonly<Record<string, { word: string; mark: string }>> = {
  complaint: { word: 'Complaint taken', mark: '○' },
  testing: { word: 'Testing', mark: '◔' },
  found: { word: 'Found', mark: '◑' },
  repaired: { word: 'Repaired, not proved', mark: '◕' },
  proved: { word: 'Proved', mark: '●' },
  waiting: { word: 'Waiting', mark: '‖' },
  asked: { word: 'Asks for a word', mark: '?' },
  closed: { word: 'Closed', mark: '✓' },
  working: { word: 'Work begun', mark: '○' },
  done: { word: 'Work done', mark: '●' },
};

export function StageMark({ stage }: { stage: string }) {
  const { word, mark } = STAGES[stage] ?? { word: stage, mark: '·' };
  return (
    <span
      data-testid="stage"
      className="inline-flex items-center gap-1.5 whitespace-nowrap rounded-full border-2 border-line bg-sheet px-2.5 py-0.5 text-sm font-semibold"
    >
      <span aria-hidden="true" className="text-copper">
        {mark}
      </span>
      {word}
    </span>
  );
}
