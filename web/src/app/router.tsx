import { createBrowserRouter, Navigate } from 'react-router';
import { Failure } from './failure.tsx';
import { ProjectFrame } from './project-frame.tsx';
import { ProjectsScreen } from '../stage/projects/projects-screen.tsx';

export const router = createBrowserRouter([
  { path: '/', element: <ProjectsScreen />, errorElement: <Failure /> },
  {
    path: '/project/:projectId',
    element: <ProjectFrame />,
    HydrateFallback: () => null,
    errorElement: <Failure />,
    children: [
      { index: true, element: <Navigate to="moves" replace /> },
      {
        path: 'model',
        lazy: async () => ({ Component: (await import('../stage/model/model-screen.tsx')).ModelScreen }),
      },
      {
        path: 'views',
        lazy: async () => ({ Component: (await import('../stage/views/views-screen.tsx')).ViewsScreen }),
      },
      {
        path: 'moves',
        lazy: async () => ({ Component: (await import('../stage/moves/moves-screen.tsx')).MovesScreen }),
      },
      {
        path: 'reel',
        lazy: async () => ({ Component: (await import('../stage/reel/reel-screen.tsx')).ReelScreen }),
      },
      {
        path: 'renders',
        lazy: async () => ({ Component: (await import('../stage/renders/renders-screen.tsx')).RendersScreen }),
      },
      {
        path: 'review',
        lazy: async () => ({ Component: (await import('../stage/review/review-screen.tsx')).ReviewScreen }),
      },
    ],
  },
  { path: '*', element: <Failure missing /> },
]);
