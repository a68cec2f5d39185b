import type { ComponentType } from 'react';
import { Link, type RouteObject, useParams, useRouteError } from 'react-router';
import { HomeView } from './home/home-view.tsx';
import { Trouble } from './ui/caution.tsx';
import { Shell } from './shell.tsx';
import { DEVICE_PAGE } from './trying/instrument-address.ts';

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

/** Another job makes a new view, so that nothing typed or picked for the one before is taken for this one. */
function Fresh(View: ComponentType) {
  return function OfThisJob() {
    const { id } = useParams();
    return <View key={id} />;
  };
}

export const routes: RouteObject[] = [
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { index: true, element: <HomeView /> },
      {
        path: 'devices/:id?',
        lazy: () => import('./devices/devices-view.tsx').then(({ DevicesView }) => ({ Component: DevicesView })),
      },
      {
        path: 'records',
        lazy: () => import('./record/records-view.tsx').then(({ RecordsView }) => ({ Component: RecordsView })),
      },
      {
        path: 'jobs/:id/screws/:what?',
        lazy: () => import('./screws/screws-view.tsx').then(({ ScrewsView }) => ({ Component: Fresh(ScrewsView) })),
      },
      {
        path: 'jobs/:id/way',
        lazy: () => import('./way/way-view.tsx').then(({ WayView }) => ({ Component: Fresh(WayView) })),
      },
      {
        path: 'heat/:map?/:joint?',
        lazy: () => import('./heat/heat-view.tsx').then(({ HeatView }) => ({ Component: HeatView })),
      },
      {
        path: 'pick-card/:map/:joint?',
        lazy: () => import('./pick-card/pick-card-view.tsx').then(({ PickCardView }) => ({ Component: PickCardView })),
      },
      {
        path: 'parts/:part?',
        lazy: () => import('./parts/parts-view.tsx').then(({ PartsView }) => ({ Component: PartsView })),
      },
      { path: 'kit', lazy: () => import('./kit/kit-view.tsx').then(({ KitView }) => ({ Component: KitView })) },
      {
        path: 'schools',
        lazy: () => import('./schools/schools-view.tsx').then(({ SchoolsView }) => ({ Component: SchoolsView })),
      },
      {
        path: 'jobs/:id/record',
        lazy: () => import('./record/record-view.tsx').then(({ RecordView }) => ({ Component: RecordView })),
      },
      { path: '*', element: <Nowhere /> },
    ],
  },
  {
    path: DEVICE_PAGE,
    lazy: () => import('./trying/device-page.tsx').then(({ DevicePage }) => ({ Component: DevicePage })),
    errorElement: <Broken />,
  },
  {
    path: 'unmapped',
    lazy: () => import('./taking-apart/unmapped-view.tsx').then(({ UnmappedView }) => ({ Component: UnmappedView })),
    errorElement: <Broken />,
  },
  {
    path: 'jobs/:id',
    lazy: () => import('./at-bench/bench-view.tsx').then(({ BenchView }) => ({ Component: Fresh(BenchView) })),
    errorElement: <Broken />,
  },
  {
    path: 'jobs/:id/intake',
    lazy: () => import('./intake/intake-view.tsx').then(({ IntakeView }) => ({ Component: Fresh(IntakeView) })),
    errorElement: <Broken />,
  },
  {
    path: 'jobs/:id/prepare',
    lazy: () => import('./prepare/prepare-view.tsx').then(({ PrepareView }) => ({ Component: Fresh(PrepareView) })),
    errorElement: <Broken />,
  },
  {
    path: 'new',
    lazy: () => import('./intake/new-repair.tsx').then(({ NewRepair }) => ({ Component: NewRepair })),
    errorElement: <Broken />,
  },
  {
    path: 'jobs/:id/hand-over',
    lazy: () =>
      import('./hand-over/hand-over-view.tsx').then(({ HandOverView }) => ({ Component: Fresh(HandOverView) })),
    errorElement: <Broken />,
  },
];
