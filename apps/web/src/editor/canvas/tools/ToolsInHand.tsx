import type { Stage } from '../stage';
import { BrushBar } from './BrushBar';
import { CutOutTool } from './CutOut';
import { DrawAs } from './DrawAs';
import { Lasso } from './Lasso';
import { SowTool } from './Sow';

/** What goes with a tool in hand, or lies over the canvas while a card is worked on there. */
export const ToolsInHand = (stage: Stage) => (
  <>
    <CutOutTool {...stage} />
    <SowTool {...stage} />
    <Lasso {...stage} />
    <BrushBar />
    <DrawAs />
  </>
);
