import { createRoot } from 'react-dom/client';
import { Toaster, toast } from 'sonner';

/** Puts on the page where what is said appears, also what was said before; gives what says it. */
export const beginToasts = (): typeof toast => {
  createRoot(document.body.appendChild(document.createElement('div'))).render(
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
    />,
  );
  return toast;
};
