/** The parts of the editor, gone to one after another by F6 as in other windows with several parts. */

const AREAS = ['header', 'canvas', 'timeline', 'inspector'] as const;
export type Area = (typeof AREAS)[number];

const within = (area: Area): HTMLElement | null => document.querySelector<HTMLElement>(`[data-area="${area}"]`);

const FIRST = 'button:not(:disabled), a[href], input:not(:disabled), select, textarea, [tabindex]:not([tabindex="-1"])';

/** Puts the focus on an area: on what is marked as its first, on its first control, or on itself. */
export const goToArea = (area: Area): void => {
  const element = within(area);
  if (!element) return;
  const target =
    element.querySelector<HTMLElement>('[data-first]') ??
    (element.tabIndex >= 0 ? element : element.querySelector<HTMLElement>(FIRST));
  (target ?? element).focus();
};

/** Goes on to the next area, or back. */
export const stepArea = (by: 1 | -1): void => {
  const here = document.activeElement?.closest<HTMLElement>('[data-area]')?.dataset.area as Area | undefined;
  // What is folded away is passed over.
  const there = AREAS.filter((area) => within(area) !== null);
  const at = here === undefined ? (by === 1 ? -1 : 0) : there.indexOf(here);
  goToArea(there[(at + by + there.length) % there.length] as Area);
};

/** Frames of the screen within which a row that is asked for is there, on a slow day too. */
const SOON = 200;

/** Puts the focus on the row of a layer, once it is on the page and in view; whoever has gone elsewhere meanwhile stays there. */
export const focusLayer = (id: string): void => {
  const from = document.activeElement;
  const look = (within: number): void => {
    requestAnimationFrame(() => {
      if (document.activeElement !== from) return;
      const row = document.querySelector<HTMLElement>(`[data-layer="${id}"]`);
      if (row) row.focus();
      else if (within > 0) look(within - 1);
    });
  };
  look(SOON);
};
