import { QueryClientProvider } from '@tanstack/react-query';
import { Tooltip } from 'radix-ui';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { Pages } from './app/Pages';
import { queries } from './app/queries';
import { fetchToasts } from './ui/toast';
import { whenIdle } from './ui/whenIdle';
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
      </Tooltip.Provider>
    </QueryClientProvider>
  </StrictMode>,
);
whenIdle(fetchToasts);
