import { CopyField } from '@/ui/CopyField';
import type { ShareInfo } from './shareInfo';

/** How a phone comes in: the code for the first time, the address that stays the same. */
export function ShareSection({ share }: { share: ShareInfo | null }) {
  return (
    <section aria-labelledby="share" className="mt-8" data-testid="share">
      <h2 id="share" className="border-b-2 border-line pb-2 text-xl">
        On a phone
      </h2>
      {share === null ? (
        <p className="mt-3 max-w-prose">
          The program is open on this machine alone. To have it on phones in the workshop’s network, stop it
          and start it with <span className="reading">npm start -- --share</span>.
        </p>
      ) : (
        <div className="mt-3 grid gap-4 sm:grid-cols-[12rem_1fr]">
          {share.code ? (
            // biome-ignore lint/performance/noImgElement: made here, and nothing that could be made smaller
            <img
              src={`data:image/svg+xml;base64,${Buffer.from(share.code).toString('base64')}`}
              alt={`QR code for ${share.trust}`}
              className="w-48 border-2 border-line bg-white"
            />
          ) : null}
          <div className="grid content-start gap-2">
            {share.trust ? (
              <p>
                A new phone first: scan the code, or open <span className="reading">{share.trust}</span>
              </p>
            ) : null}
            <CopyField label="The address, which stays the same" value={`${share.address}/`} what="address" />
            <p className="text-sm text-soft">
              Where a phone does not find the name: {share.others.join(' or ')}. That changes with the address
              of the machine.
            </p>
          </div>
        </div>
      )}
    </section>
  );
}
