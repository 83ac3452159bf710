import { Link, useRouteError } from 'react-router';
import { sentenceOf } from '../api/client.ts';

/** Stands where an address leads nowhere, or where the interface itself has failed. */
export function LostScreen() {
  const error = useRouteError();
  return (
    <div className="page">
      <h1>{error ? 'Something went wrong on this page' : 'There is nothing at this address'}</h1>
      <p>
        {error
          ? `${sentenceOf(error)} What was saved is safe.`
          : 'It may have been deleted, or the address is incomplete.'}
      </p>
      <Link to="/">Back to the projects</Link>
    </div>
  );
}
