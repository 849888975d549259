'use client';

import { CautionsThatWait } from '@/job/CautionAsk';
import { useJob } from '@/job/JobProvider';
import { Button, ButtonLink } from '@/ui/controls';
import { ApplianceNotice } from './ApplianceNotice';
import { PartsFitted } from './PartsFitted';
import { SafetyQuestions } from './SafetyQuestions';

/** What has to be known or done before any card: the tester, what runs unbidden, the appliance that was plugged in. */
export function TraceNotices({ unbidden }: { unbidden: boolean }) {
  const { data, circuit, job, record } = useJob();
  return (
    <>
      {job.testerProvedAt === null ? (
        <div className="mb-2 flex items-center justify-between gap-2 border-l-4 border-caution bg-caution-wash py-0.5 pl-3 text-[15px] leading-tight">
          <p>
            <strong>Prove the tester</strong> on the battery posts
            <span className="hidden lg:inline">; until then readings are provisional</span>.
          </p>
          <Button
            className="shrink-0"
            onClick={() => record({ kind: 'tester-proved', on: 'battery plus and minus post' })}
          >
            Tester proved
          </Button>
        </div>
      ) : null}
      {unbidden ? (
        <div
          className="mb-3 flex flex-wrap items-center justify-between gap-2 border-l-4 border-caution bg-caution-wash px-3 py-2"
          data-testid="runs-unbidden"
        >
          <p className="max-w-prose">
            <strong>It runs with the switch off.</strong> Isolate it and keep clear before anything else;
            nothing is exchanged or bridged on it.
          </p>
          <ButtonLink href={`/jobs/${data.id}/boxes`}>To isolate it</ButtonLink>
        </div>
      ) : null}
      <CautionsThatWait />
      {circuit ? <SafetyQuestions circuit={circuit} /> : null}
      <PartsFitted />
      <ApplianceNotice />
    </>
  );
}
