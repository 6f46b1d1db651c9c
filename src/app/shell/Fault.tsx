import { Link, useRouteError } from 'react-router';
import { useBench } from '../state/bench';

/** What is true of the project that was open. */
function stored(): string {
  const { save, projectId } = useBench.getState();
  if (projectId === '') return 'Your projects are as they were stored.';
  if (save.kind === 'saved') return 'Your project is stored up to the last edit. Open it again from the start page.';
  if (save.kind === 'saving') return 'The last edit is being stored. Open the project again from the start page.';
  return `${save.waiting === 1 ? 'The last edit is' : `The last ${save.waiting} edits are`} not stored: ${save.sentence} It is tried again while this page stays open.`;
}

/** What stands in place of a screen that failed: never a blank page, and a way back. */
export function Fault() {
  const error = useRouteError();
  return (
    <main className="mx-auto mt-[18vh] max-w-[520px] p-6">
      <h1 className="mb-2 text-[22px] font-semibold">This screen stopped working</h1>
      <p className="mb-2">{stored()}</p>
      <p className="mb-4 text-quiet">{error instanceof Error ? error.message : String(error)}</p>
      <Link to="/" className="rounded-lg bg-kelp px-4 py-2 text-on-kelp" reloadDocument>
        To the start page
      </Link>
    </main>
  );
}
