'use client';

import { HelperSwitch } from '@/job/Helper';
import { useJob } from '@/job/JobProvider';
import { Setting } from '@/ui/Check';
import { Button, ButtonLink } from '@/ui/controls';
import { Dialog } from '@/ui/Dialog';
import { useLeftHand } from './memory';

/** What can be done besides the card: somebody at the key, what is known of the part, other views, the end. */
export function Besides({
  open,
  onClose,
  helper,
  onHelper,
  conclude,
  onLearn,
}: {
  open: boolean;
  onClose: () => void;
  helper: string | null;
  onHelper: (name: string | null) => void;
  /** Enough is known to conclude with. */
  conclude: boolean;
  /** Null where the card is about no part. */
  onLearn: (() => void) | null;
}) {
  const { data, record } = useJob();
  const [left, setLeft] = useLeftHand();
  return (
    <Dialog title="Besides this card" open={open} onClose={onClose}>
      <div className="grid gap-2">
        <HelperSwitch
          helper={helper}
          onHelper={(name) => {
            onHelper(name);
            onClose();
          }}
          onCaution={(caution) => record({ kind: 'caution-read', caution })}
        />
        {onLearn ? (
          <Button
            onClick={() => {
              onClose();
              onLearn();
            }}
          >
            I know more of this part
          </Button>
        ) : null}
        <ButtonLink href={`/jobs/${data.id}/boxes`}>Boxes</ButtonLink>
        <ButtonLink href={`/jobs/${data.id}/wires`}>Wires</ButtonLink>
        <ButtonLink href={`/jobs/${data.id}/combinations`}>Every combination</ButtonLink>
        <div className="lg:hidden">
          <Setting on={left} onChange={setLeft}>
            Answers for the left hand
          </Setting>
        </div>
        {conclude ? (
          <ButtonLink look="primary" href={`/jobs/${data.id}#conclude`}>
            Conclude with what is known
          </ButtonLink>
        ) : null}
      </div>
    </Dialog>
  );
}
