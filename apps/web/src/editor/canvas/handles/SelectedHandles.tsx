import type { Stage } from '../stage';
import { BoxHandles } from './BoxHandles';
import { GradientHandles } from './GradientHandles';
import { GroupHandles } from './GroupHandles';
import { GrowthHandles } from './GrowthHandles';
import { Handles } from './Handles';
import { HeldOutlines } from './HeldOutlines';
import { MeshHandles } from './MeshHandles';
import { MotionPaths } from './MotionPath';
import { PathEditing } from './PathEditing';
import { PinHandles } from './PinHandles';

/** What the selected layers, and the card of them that is open, are changed by on the canvas. */
export const SelectedHandles = (stage: Stage) => (
  <>
    <HeldOutlines {...stage} />
    <Handles {...stage} />
    <MotionPaths {...stage} />
    <PathEditing {...stage} />
    <GroupHandles {...stage} />
    <GradientHandles {...stage} />
    <BoxHandles {...stage} />
    <PinHandles {...stage} />
    <MeshHandles {...stage} />
    <GrowthHandles {...stage} />
  </>
);
