import { Link, type RouteObject, useParams, useRouteError } from 'react-router';
import { BenchView } from '../at-bench/bench-view.tsx';
import { HomeView } from '../home/home-view.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Shell } from './shell.tsx';

function Broken() {
  const error = useRouteError() as Error;
  return (
    <main className="p-8">
      <Trouble title="This view broke">
        <p>{error?.message ?? 'Unknown reason.'} What was recorded is on the server’s disk.</p>
        <p className="mt-2">
          <Link to="/" reloadDocument className="underline">
            Back to the bench
          </Link>
        </p>
      </Trouble>
    </main>
  );
}

function Nowhere() {
  return (
    <main className="p-8 text-lead">
      There is nothing at this address.{' '}
      <Link to="/" className="underline">
        Back to the bench
      </Link>
    </main>
  );
}

/** A new job is a new bench: nothing of the one before stays. */
function AtBench() {
  const { id } = useParams();
  return <BenchView key={id} />;
}

export const routes: RouteObject[] = [
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { index: true, element: <HomeView /> },
      {
        path: 'devices/:id?',
        lazy: () => import('../devices/devices-view.tsx').then(({ DevicesView }) => ({ Component: DevicesView })),
      },
      {
        path: 'new',
        lazy: () => import('../intake/new-repair.tsx').then(({ NewRepair }) => ({ Component: NewRepair })),
      },
      {
        path: 'records',
        lazy: () => import('../record/records-view.tsx').then(({ RecordsView }) => ({ Component: RecordsView })),
      },
      {
        path: 'jobs/:id/record',
        lazy: () => import('../record/record-view.tsx').then(({ RecordView }) => ({ Component: RecordView })),
      },
      { path: '*', element: <Nowhere /> },
    ],
  },
  { path: 'jobs/:id', element: <AtBench />, errorElement: <Broken /> },
];
