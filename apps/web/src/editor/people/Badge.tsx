import type { Here } from '@kite/api/live';
import { myself } from '../../app/person';
import { colorOf, lettersOf, nameOf } from './looks';

export const Badge = ({ here, small = false }: { here: Here; small?: boolean }) => (
  <span
    title={nameOf(here, myself().id)}
    className={`grid shrink-0 place-items-center rounded-full font-semibold text-paper ${small ? 'size-4 text-[8px]' : 'size-6 text-[11px]'}`}
    style={{ background: colorOf(here) }}
  >
    {lettersOf(here.person.name)}
  </span>
);
