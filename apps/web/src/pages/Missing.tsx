import { Link } from 'react-router';

export const Missing = () => (
  <main className="grid h-full place-items-center">
    <div className="text-center">
      <h1>There is no page at this address.</h1>
      <Link to="/" className="text-sky underline">
        Go to your projects
      </Link>
    </div>
  </main>
);
