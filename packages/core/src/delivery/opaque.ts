import type { Scene } from '../document/types';

/** Whether nothing shows through a scene: it has a background, and that has no alpha. */
export const isOpaque = ({ background }: Pick<Scene, 'background'>): boolean => background?.length === 7;
