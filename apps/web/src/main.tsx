import { QueryClientProvider } from '@tanstack/react-query';
import { Tooltip } from 'radix-ui';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { Toaster } from 'sonner';
import { Pages } from './app/Pages';
import { queries } from './app/queries';
import './app/theme.css';
import './app/theme';

const root = document.getElementById('root');
if (!root) throw new Error('the page has no root');
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <Tooltip.Provider delayDuration={350}>
        <BrowserRouter>
          <Pages />
        </BrowserRouter>
        <Toaster
          position="bottom-left"
          className="pointer-events-auto"
          style={{ font: 'inherit' }}
          toastOptions={{
            style: {
              background: 'var(--ink)',
              color: 'var(--paper)',
              border: 'none',
              borderRadius: 6,
              font: 'inherit',
            },
            actionButtonStyle: { background: 'var(--paper)', color: 'var(--ink)', font: 'inherit', fontWeight: 500 },
          }}
        />
      </Tooltip.Provider>
    </QueryClientProvider>
  </StrictMode>,
);
