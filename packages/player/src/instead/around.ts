/** Stands in for `scene/around` where no card asks what other layers show: none is asked of. */
import type { showing as whole } from '@kite/core/scene/around';
import { ALONE } from '@kite/core/recipe/room';

export const showing: typeof whole = () => ({ shownAt: () => null, around: () => ALONE });
