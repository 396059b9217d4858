import { useSlice } from '../../store/context';
import { toolOf } from '../../store/workspace';
import type { Stage } from '../stage';
import { BrushBar } from './BrushBar';
import { CutOutTool } from './CutOut';
import { DrawAs } from './DrawAs';
import { DrawBrush } from './DrawBrush';
import { Lasso } from './Lasso';
import { SowTool } from './Sow';

/** What goes with a tool in hand, or lies over the canvas while a card is worked on there. */
export const ToolsInHand = (stage: Stage) => {
  const hasBrush = useSlice((s) => toolOf(s.mode) === 'brush');
  return (
    <>
      {hasBrush && <DrawBrush {...stage} />}
      <CutOutTool {...stage} />
      <SowTool {...stage} />
      <Lasso {...stage} />
      {hasBrush && <BrushBar />}
      <DrawAs />
    </>
  );
};
