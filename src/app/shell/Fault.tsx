import { Link, useRouteError } from 'react-router';

/** What stands in place of a screen that failed: never a blank page, and a way back. */
export function Fault() {
  const error = useRouteError();
  return (
    <main className="mx-auto mt-[18vh] max-w-[520px] p-6">
      <h1 className="mb-2 text-[22px] font-semibold">This screen stopped working</h1>
      <p className="mb-2">Your project is stored up to the last edit. Open it again from the start page.</p>
      <p className="mb-4 text-quiet">{error instanceof Error ? error.message : String(error)}</p>
      <Link to="/" className="rounded-lg bg-kelp px-4 py-2 text-on-kelp" reloadDocument>
        To the start page
      </Link>
    </main>
  );
}
