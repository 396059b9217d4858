/** When something was done, as people say it. */

const date = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long' });

const dayOf = (time: Date): number => new Date(time.getFullYear(), time.getMonth(), time.getDate()).getTime();

/** “Today”, “Yesterday”, or the day itself; `now` is in ms. */
export const dayName = (iso: string, now: number): string => {
  const ago = Math.round((dayOf(new Date(now)) - dayOf(new Date(iso))) / 86_400_000);
  return ago === 0 ? 'Today' : ago === 1 ? 'Yesterday' : date.format(new Date(iso));
};

/** What belongs to one day, the days in the order in which they come. */
export const byDay = <T>(things: readonly T[], at: (thing: T) => string, now: number): [day: string, of: T[]][] => {
  const days: [string, T[]][] = [];
  for (const thing of things) {
    const day = dayName(at(thing), now);
    const last = days.at(-1);
    if (last?.[0] === day) last[1].push(thing);
    else days.push([day, [thing]]);
  }
  return days;
};
