import { Link } from 'react-router';

export const Missing = () => (
  <main className="grid h-full place-items-center">
    <p className="text-center">
      There is no page at this address.
      <br />
      <Link to="/" className="text-sky underline">
        Go to your projects
      </Link>
    </p>
  </main>
);
