/** What is asked for now and then: the editor does not wait for it, and has most of it once it is at rest. */
import type { ComponentType } from 'react';
import { ColorPanel } from '../ui/ColorField';
import { type Later, later } from '../ui/later';
import { sayUnchanged } from '../ui/says';
import { DrawerPlace } from './dock/DrawerFrame';
import { ShapesDrawer } from './dock/ShapesDrawer';
import type { importFiles as importThem } from './importing/importFiles';
import { PlainSearch } from './search/PlainSearch';
import type { Drawer } from './store/workspace';

const parts: Pick<Later<never>, 'fetch'>[] = [ColorPanel];

const part = <P extends object>(...[load, meanwhile]: Parameters<typeof later<P>>): Later<P> => {
  const own = later(load, meanwhile);
  parts.push(own);
  return own;
};
const drawer = (load: () => Promise<ComponentType>) => part(load, <DrawerPlace />);

/** Brings files in: the server is needed for it in any case. */
export const importFiles: typeof importThem = (...given) =>
  import('./importing/importFiles').then((own) => own.importFiles(...given)).catch(sayUnchanged);
parts.push({ fetch: async () => void (await import('./importing/importFiles')) });

// While nothing is selected there is none of it.
export const SelectedCards = part(async () => (await import('./inspector/SelectedCards')).SelectedCards);
export const SelectedHandles = part(async () => (await import('./canvas/handles/SelectedHandles')).SelectedHandles);
export const ToolsInHand = part(async () => (await import('./canvas/tools/ToolsInHand')).ToolsInHand);
export const ParamField = part(async () => (await import('./inspector/fields/ParamField')).ParamField);
export const AdaptSize = part(async () => (await import('./inspector/cards/AdaptSize')).AdaptSize);
export const EyeFields = part(async () => (await import('./inspector/cards/EyeFields')).EyeFields);
export const KnobsCard = part(async () => (await import('./inspector/cards/KnobsCard')).KnobsCard);

// Nor of this while nobody else is there.
export const People = part(async () => (await import('./people/People')).People);
export const Others = part(async () => (await import('./canvas/looks/Others')).Others);

export const SearchField = part(
  async () => (await import('./search/SearchField')).SearchField,
  (props) => <PlainSearch {...props} />,
);
export const Rulers = part(async () => (await import('./canvas/looks/Rulers')).Rulers);
export const FullScreenBar = part(async () => (await import('./canvas/looks/FullScreenBar')).FullScreenBar);
export const CanvasSettings = part(async () => (await import('./canvas/looks/CanvasSettings')).CanvasSettings);
export const CompareLine = part(async () => (await import('./canvas/looks/CompareLine')).CompareLine);
export const InPlaceBar = part(async () => (await import('./canvas/looks/InPlaceBar')).InPlaceBar);
export const AsideView = part(async () => (await import('./canvas/aside/AsideView')).AsideView);
export const StretchFrame = part(async () => (await import('./timeline/StretchFrame')).StretchFrame);
export const RibbonRow = part(async () => (await import('./timeline/row/RibbonRow')).RibbonRow);
export const CelsRow = part(async () => (await import('./timeline/row/CelsRow')).CelsRow);
export const PosesRow = part(async () => (await import('./timeline/row/PosesRow')).PosesRow);
export const CurvesView = part(async () => (await import('./timeline/curves/CurvesView')).CurvesView);
const page = (load: () => Promise<ComponentType>) =>
  part(load, <main className="grid min-h-0 flex-1 place-items-center text-ink-2">One moment …</main>);

/** What stands under a project's address instead of a scene, by its name there. */
export const PAGES: { readonly [name: string]: ComponentType } = {
  deliveries: page(async () => (await import('./deliver/DeliverPage')).DeliverPage),
  versions: page(async () => (await import('./versions/VersionsPage')).VersionsPage),
};
export const RenderDialog = part(async () => (await import('./render/RenderDialog')).RenderDialog);
export const SizeForm = part(async () => (await import('../pages/projects/SizeForm')).SizeForm);
export const FormulaPanel = part(async () => (await import('./formula/FormulaPanel')).FormulaPanel);

export const LinkPopover = part(async () => (await import('./formula/LinkPopover')).LinkPopover);
export const RemovingDialog = part(async () => (await import('./formula/RemovingDialog')).RemovingDialog);
export const CheckList = part(async () => (await import('./checks/CheckList')).CheckList);
export const CompareDialog = part(async () => (await import('./history/CompareDialog')).CompareDialog);
export const OrderDialog = part(async () => (await import('./importing/OrderDialog')).OrderDialog);
export const PanesDialog = part(async () => (await import('./commands/PanesDialog')).PanesDialog);
export const RevealDialog = part(async () => (await import('./commands/RevealDialog')).RevealDialog);
export const SolidDialog = part(async () => (await import('./commands/SolidDialog')).SolidDialog);

// Large, and many never need it: it comes when it is shown.
export const SvgDialog = later(async () => (await import('./importing/SvgDialog')).SvgDialog);

export const DRAWERS: { readonly [D in NonNullable<Drawer>]: ComponentType } = {
  // What everybody opens first comes with the editor.
  shapes: ShapesDrawer,
  moves: drawer(async () => (await import('./dock/MovesDrawer')).MovesDrawer),
  poses: drawer(async () => (await import('./dock/PosesDrawer')).PosesDrawer),
  replace: drawer(async () => (await import('./dock/ReplaceDrawer')).ReplaceDrawer),
  assets: drawer(async () => (await import('./dock/AssetsDrawer')).AssetsDrawer),
  colours: drawer(async () => (await import('./dock/ColorsDrawer')).ColorsDrawer),
  history: drawer(async () => (await import('./dock/HistoryDrawer')).HistoryDrawer),
};

/** Fetches the small ones: whoever works goes on without the server. What does not come is fetched when it is shown. */
export const fetchRest = (): void => {
  for (const own of parts) void own.fetch().catch(() => undefined);
};
