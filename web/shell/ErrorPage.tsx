import { isRouteErrorResponse, useRouteError } from "react-router";

/** The page shown after a fault: what happened, and ways back. Unsent changes wait in the browser. */
export function ErrorPage() {
  const error = useRouteError();
  const message = isRouteErrorResponse(error)
    ? `${error.status} ${error.statusText}`
    : error instanceof Error
      ? error.message
      : String(error);
  return (
    <main className="grid h-full place-items-center p-8">
      <div className="max-w-lg text-center">
        <h1 className="mb-2 text-xl font-semibold">This page met a fault</h1>
        <p className="mb-1">
          What you did up to now is saved, or kept in this browser and saved when the deck is opened again.
        </p>
        <p className="quiet mb-4 text-sm break-words">{message}</p>
        <div className="flex justify-center gap-2">
          <button type="button" className="btn btn-primary" onClick={() => window.location.reload()}>
            Load the page again
          </button>
          <a className="btn" href="/">
            Go to the Desk
          </a>
        </div>
      </div>
    </main>
  );
}
