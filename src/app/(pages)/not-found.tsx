import { ButtonLink } from '@/ui/controls';

export default function NotFound() {
  return (
    <div className="mx-auto max-w-xl px-4 py-16">
      <h1 className="text-2xl">There is nothing at this address</h1>
      <p className="mt-3">
        The job, vehicle or box may have been opened in another shop, or the address was typed with a slip.
        Nothing that you entered is lost.
      </p>
      <p className="mt-6 flex gap-3">
        <ButtonLink look="primary" href="/">
          To Today
        </ButtonLink>
        <ButtonLink href="/vehicles">To the vehicles</ButtonLink>
      </p>
    </div>
  );
}
