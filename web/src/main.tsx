import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { setNonce } from 'get-nonce';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { followChanges, sessionQuery } from './app/queries.ts';
import { LeadConfirms } from './lead/lead-confirms.tsx';
import { SignInFirst } from './sign-in.tsx';
import { outbox, resumeLetters } from './outbox/index.ts';
import { routes } from './routes.tsx';
import { DEVICE_PAGE } from './trying/instrument-address.ts';
import { followTheme } from './app/settings.ts';
import './app/styles.css';

// the one style that a dialog adds by itself, to hold the page still, carries the nonce of this page
setNonce(document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? '');
followTheme();
const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: 1, staleTime: 2000, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});

const root = createRoot(document.getElementById('root')!);
const router = () => <RouterProvider router={createBrowserRouter(routes)} />;

// a device under test signs nobody in: its page asks the server for nothing
if (location.pathname === DEVICE_PAGE) root.render(router());
else {
  followChanges(queries);
  // whoever is signed out is asked to sign in; what waits is sent then
  outbox.state.subscribe(({ signedOut }, before) => {
    if (signedOut && !before.signedOut) void queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
  });
  void resumeLetters();
  root.render(
    <QueryClientProvider client={queries}>
      <SignInFirst>{router()}</SignInFirst>
      <LeadConfirms />
    </QueryClientProvider>,
  );
}
