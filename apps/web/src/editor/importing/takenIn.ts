/** Files that come into a project: each is there once. */
import type { Edit } from '@kite/core/document/patches';
import type { Asset, Assets } from '@kite/core/document/types';
import { addAsset } from '@kite/core/edits/assets';

const ENDINGS = ['png', 'jpg', 'jpeg', 'webp', 'gif', 'svg', 'ttf', 'otf', 'woff', 'woff2'];
/** What choosers of files offer. */
export const ACCEPTED = ENDINGS.map((ending) => `.${ending}`).join(',');
const ENDING = new RegExp(`\\.(${ENDINGS.join('|')})$`, 'i');

/** What a file is called, without its ending; one of something that is not imported keeps it, so that it is told by it. */
export const nameOfFile = ({ name }: File): string => name.replace(ENDING, '') || name;

const isSameFile = (asset: Asset) => (other: Asset) => other.sha === asset.sha && other.kind === asset.kind;

/** The assets that files are in a project, in their order, and the edits that take in those which are not there yet. */
export const takenIn = (
  there: Assets,
  sent: readonly Asset[],
): { readonly assets: readonly Asset[]; readonly edits: readonly Edit[] } => {
  const known = Object.values(there);
  const assets = sent.map((asset) => known.find(isSameFile(asset)) ?? sent.find(isSameFile(asset)) ?? asset);
  const fresh = [...new Set(assets)].filter((asset) => !known.includes(asset));
  return { assets, edits: fresh.map(addAsset) };
};
