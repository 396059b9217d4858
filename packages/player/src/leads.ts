/** Opens what the ad server, or the banner itself, says: `clickTag`, `clickTag1` and so on. */
export const leadsTo = (element: HTMLElement, tag: string): void =>
  element.addEventListener('click', (event) => {
    event.preventDefault();
    event.stopPropagation();
    const address = (window as unknown as Record<string, string | undefined>)[tag];
    if (address) window.open(address, '_blank', 'noopener');
  });
