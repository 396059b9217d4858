import type { ComponentType } from 'react';
import { useSlice } from '../../store/context';
import { toolOf, type ToolName } from '../../store/workspace';
import type { Stage } from '../stage';
import { BrushBar } from './BrushBar';
import { CutOutTool } from './CutOut';
import { DrawAs } from './DrawAs';
import { DrawBrush } from './DrawBrush';
import { DrawPath } from './DrawPath';
import { Lasso } from './Lasso';
import { SowTool } from './Sow';
import { TextEditing } from './TextEditing';

/** Tools that lie over the canvas, and take its presses themselves. */
const OVER: { readonly [T in ToolName]?: ComponentType<Stage> } = { path: DrawPath, brush: DrawBrush };

/** What lies over the canvas while something else is done there than selecting. */
export const ToolsInHand = (stage: Stage) => {
  const Over = OVER[useSlice((s) => toolOf(s.mode))];
  return (
    <>
      <TextEditing {...stage} />
      <CutOutTool {...stage} />
      <SowTool {...stage} />
      <Lasso {...stage} />
      {Over && <Over {...stage} />}
      <BrushBar />
      <DrawAs />
    </>
  );
};
