import { Button } from '../ui/Button';

/** Shown where a page failed: what is saved, and the way back. */
export const Broken = () => (
  <main className="grid h-full place-items-center">
    <div className="max-w-md text-center">
      <h1 className="mb-1 text-lg font-semibold">This page stopped working</h1>
      <p className="mb-4 text-ink-2">
        Your edits up to here are saved, on the server or in this browser. Load the page again to go on.
      </p>
      <Button look="primary" onClick={() => location.reload()}>
        Load the page again
      </Button>
    </div>
  </main>
);
