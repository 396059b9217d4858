import { Toaster as Sonner } from 'sonner';

export { toast } from 'sonner';

/** Where what is said appears, also what was said before it was here. */
export const Toaster = () => (
  <Sonner
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
);
