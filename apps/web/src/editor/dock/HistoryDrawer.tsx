import { Checkpoints } from '../history/Checkpoints';
import { RemovedScenes } from '../history/RemovedScenes';
import { Steps } from '../history/Steps';
import { DrawerFrame } from './DrawerFrame';

export const HistoryDrawer = () => (
  <DrawerFrame title="History">
    <Checkpoints />
    <div className="mt-2 border-t border-line" />
    <Steps />
    <RemovedScenes />
  </DrawerFrame>
);
