/** What is asked for now and then: none of it comes with the editor. */
import { later } from '../ui/later';

export const AsideView = later(async () => (await import('./canvas/aside/AsideView')).AsideView);
export const CurvesView = later(async () => (await import('./timeline/curves/CurvesView')).CurvesView);
export const DeliverPage = later(async () => (await import('./deliver/DeliverPage')).DeliverPage);
export const RenderDialog = later(async () => (await import('./render/RenderDialog')).RenderDialog);
export const SizeForm = later(async () => (await import('../pages/projects/SizeForm')).SizeForm);
export const FormulaPanel = later(async () => (await import('./formula/FormulaPanel')).FormulaPanel);

export const CompareDialog = later(async () => (await import('./history/CompareDialog')).CompareDialog);
export const OrderDialog = later(async () => (await import('./importing/OrderDialog')).OrderDialog);
export const PanesDialog = later(async () => (await import('./commands/PanesDialog')).PanesDialog);
export const RevealDialog = later(async () => (await import('./commands/RevealDialog')).RevealDialog);
const search = () => import('./search/SearchDialog');
export const SearchDialog = later(async () => (await search()).SearchDialog);
/** Who searches types at once: it is there before it is opened. */
export const fetchSearch = (): void => void search();
export const SolidDialog = later(async () => (await import('./commands/SolidDialog')).SolidDialog);
export const SvgDialog = later(async () => (await import('./importing/SvgDialog')).SvgDialog);

export const AssetsDrawer = later(async () => (await import('./dock/AssetsDrawer')).AssetsDrawer);
export const ColorsDrawer = later(async () => (await import('./dock/ColorsDrawer')).ColorsDrawer);
export const HistoryDrawer = later(async () => (await import('./dock/HistoryDrawer')).HistoryDrawer);
export const MovesDrawer = later(async () => (await import('./dock/MovesDrawer')).MovesDrawer);
export const PosesDrawer = later(async () => (await import('./dock/PosesDrawer')).PosesDrawer);
export const ReplaceDrawer = later(async () => (await import('./dock/ReplaceDrawer')).ReplaceDrawer);
export const ShapesDrawer = later(async () => (await import('./dock/ShapesDrawer')).ShapesDrawer);
