import './early.ts';
import { QueryClientProvider } from '@tanstack/react-query';
import { Tooltip } from 'radix-ui';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { Toaster } from 'sonner';
import { queryClient } from '../data/edits.ts';
import { startLive } from '../data/live.ts';
import { watchNeighbours } from '../data/neighbours.ts';
import { beginEdit } from '../data/undo.ts';
import { FieldGesturesProvider } from '../kit/index.ts';
import { applyTheme } from '../kit/theme.ts';
import { watchLeaving } from './leaving.ts';
import { router } from './router.tsx';
import '../kit/theme.css';

applyTheme();
watchLeaving();
startLive();
// What a closed page left is taken over before anything is shown without it.
await watchNeighbours();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <Tooltip.Provider>
        <FieldGesturesProvider value={beginEdit}>
          <RouterProvider router={router} />
        </FieldGesturesProvider>
        <Toaster
          // Below the top bar: at the lower edge are the strips, and hands in them. What a word lies on is pressed through
          // it; its own buttons are not (theme.css).
          position="top-center"
          offset={54}
          toastOptions={{
            style: {
              fontFamily: 'var(--font-sans)',
              background: 'var(--ink)',
              color: 'var(--paper)',
              border: 'none',
              pointerEvents: 'none',
            },
          }}
        />
      </Tooltip.Provider>
    </QueryClientProvider>
  </StrictMode>,
);
