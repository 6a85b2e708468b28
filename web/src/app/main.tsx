import './early.ts';
import { QueryClientProvider } from '@tanstack/react-query';
import { Tooltip } from 'radix-ui';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { Toaster } from 'sonner';
import { adoptAbandonedEdits, queryClient } from '../data/edits.ts';
import { router } from './router.tsx';
import './theme.css';
import { applyTheme } from './theme.ts';

applyTheme();
await adoptAbandonedEdits();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <Tooltip.Provider>
        <RouterProvider router={router} />
        <Toaster
          position="bottom-center"
          toastOptions={{
            style: { fontFamily: 'var(--font-sans)', background: 'var(--ink)', color: 'var(--paper)', border: 'none' },
          }}
        />
      </Tooltip.Provider>
    </QueryClientProvider>
  </StrictMode>,
);
