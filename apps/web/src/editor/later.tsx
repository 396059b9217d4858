/** What is asked for now and then: the editor does not wait for it, and has it once it is at rest. */
import { type Later, later } from '../ui/later';
import { DrawerPlace } from './dock/DrawerFrame';

export const AsideView = later(async () => (await import('./canvas/aside/AsideView')).AsideView);
export const CurvesView = later(async () => (await import('./timeline/curves/CurvesView')).CurvesView);
export const DeliverPage = later(async () => (await import('./deliver/DeliverPage')).DeliverPage);
export const RenderDialog = later(async () => (await import('./render/RenderDialog')).RenderDialog);
export const SizeForm = later(async () => (await import('../pages/projects/SizeForm')).SizeForm);
export const FormulaCode = later(
  async () => (await import('./formula/FormulaCode')).FormulaCode,
  <div className="h-8" />,
);
export const FormulaPanel = later(async () => (await import('./formula/FormulaPanel')).FormulaPanel);

export const CompareDialog = later(async () => (await import('./history/CompareDialog')).CompareDialog);
export const OrderDialog = later(async () => (await import('./importing/OrderDialog')).OrderDialog);
export const PanesDialog = later(async () => (await import('./commands/PanesDialog')).PanesDialog);
export const RevealDialog = later(async () => (await import('./commands/RevealDialog')).RevealDialog);
export const SearchDialog = later(async () => (await import('./search/SearchDialog')).SearchDialog);
export const SolidDialog = later(async () => (await import('./commands/SolidDialog')).SolidDialog);
export const SvgDialog = later(async () => (await import('./importing/SvgDialog')).SvgDialog);

export const AssetsDrawer = later(async () => (await import('./dock/AssetsDrawer')).AssetsDrawer, <DrawerPlace />);
export const ColorsDrawer = later(async () => (await import('./dock/ColorsDrawer')).ColorsDrawer, <DrawerPlace />);
export const HistoryDrawer = later(async () => (await import('./dock/HistoryDrawer')).HistoryDrawer, <DrawerPlace />);
export const MovesDrawer = later(async () => (await import('./dock/MovesDrawer')).MovesDrawer, <DrawerPlace />);
export const PosesDrawer = later(async () => (await import('./dock/PosesDrawer')).PosesDrawer, <DrawerPlace />);
export const ReplaceDrawer = later(async () => (await import('./dock/ReplaceDrawer')).ReplaceDrawer, <DrawerPlace />);
export const ShapesDrawer = later(async () => (await import('./dock/ShapesDrawer')).ShapesDrawer, <DrawerPlace />);

/** What is typed into at once comes first. */
const PARTS: readonly Pick<Later<never>, 'fetch'>[] = [
  SearchDialog,
  AsideView,
  CurvesView,
  DeliverPage,
  RenderDialog,
  SizeForm,
  FormulaCode,
  FormulaPanel,
  CompareDialog,
  OrderDialog,
  PanesDialog,
  RevealDialog,
  SolidDialog,
  SvgDialog,
  AssetsDrawer,
  ColorsDrawer,
  HistoryDrawer,
  MovesDrawer,
  PosesDrawer,
  ReplaceDrawer,
  ShapesDrawer,
];

/** Fetches all of it, one after another: whoever works goes on without the server. What does not come is fetched when it is shown. */
export const fetchRest = async (): Promise<void> => {
  for (const part of PARTS) await part.fetch().catch(() => undefined);
};
