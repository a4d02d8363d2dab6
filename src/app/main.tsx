import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { BuildView } from './editor/build-view';
import { comeBack, keepEverything, keepPicture } from './data/keeper';
import { runCommandNamed } from './commands/registry';
import { keepInputs } from './inputs/keep-inputs';
import { engine } from './engine/client';
import { listenToEngine } from './engine/live';
import { performOn } from './engine/perform';
import { setRouter } from './actions/navigation';
import { keepAddresses } from './actions/pixel-network';
import { keepTextSize } from './data/text-size';
import { Fault } from './parts/fault';
import { Notices } from './parts/notices';
import { Shell } from './shell';
import { welcomeStages } from './stage/windows';
import './styles.css';

const queries = new QueryClient({
  defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false } },
});

const router = createBrowserRouter([
  {
    path: '/',
    element: <Shell />,
    errorElement: <Fault />,
    children: [
      { index: true, element: <Navigate to="/build" replace /> },
      { path: 'shows', lazy: async () => ({ Component: (await import('./shows/shows-view')).ShowsView }) },
      { path: 'build', element: <BuildView /> },
      {
        path: 'record',
        lazy: async () => ({ Component: (await import('./record/record-view')).RecordView }),
      },
      { path: 'play', lazy: async () => ({ Component: (await import('./play/play-view')).PlayView }) },
      {
        path: 'preflight',
        lazy: async () => ({ Component: (await import('./preflight/preflight-view')).PreflightView }),
      },
      {
        path: 'machines',
        lazy: async () => ({ Component: (await import('./machines/machines-view')).MachinesView }),
      },
      { path: 'wall', lazy: async () => ({ Component: (await import('./wall/wall-view')).WallView }) },
      {
        path: 'inputs',
        lazy: async () => ({ Component: (await import('./inputs/inputs-view')).InputsView }),
      },
      ...(import.meta.env.DEV
        ? [
            {
              path: 'gallery',
              lazy: async () => ({ Component: (await import('./gallery/gallery-view')).GalleryView }),
            },
          ]
        : []),
      { path: '*', element: <Navigate to="/build" replace /> },
    ],
  },
]);

setRouter(router);
listenToEngine();
performOn((command) => engine().perform(command));
keepInputs();
// What is bound and recorded is not needed for the first picture.
void import('./keep-playing').then(({ keepPlaying }) => keepPlaying(runCommandNamed));
// Exports that were under way go on once the desk has its first picture.
setTimeout(() => void import('./exports/job-queue').then(({ goOn }) => goOn()), 4000);
// Other machines are looked for once the desk has its first picture.
setTimeout(() => void import('./machines/main-machine').then(({ keepMachines }) => keepMachines()), 2500);
// The app is kept for the next start once the desk has its first picture.
if (import.meta.env.PROD)
  setTimeout(
    () =>
      void import('./data/offline').then(({ keepOffline }) =>
        keepOffline((listener) => router.subscribe(listener)),
      ),
    4000,
  );
window.addEventListener('vite:preloadError', () => {
  void import('./data/offline').then(({ offerReload }) => offerReload());
});
keepEverything();
void import('./data/storage').then(({ keepStorage }) => keepStorage());
void import('./data/versions').then(({ keepVersions }) => keepVersions());
welcomeStages();
keepTextSize();
keepAddresses();
// The gallery opens a show of its own.
const isGallery = import.meta.env.DEV && location.pathname === '/gallery';
if (!isGallery) void comeBack().then(() => setTimeout(() => void keepPicture(), 3000));

createRoot(document.getElementById('root')!).render(
  <QueryClientProvider client={queries}>
    <RouterProvider router={router} />
    <Notices />
  </QueryClientProvider>,
);
