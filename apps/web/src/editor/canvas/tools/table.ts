/** The tools of the canvas. A new one is a line here, and a name in the editor's state. */
import { Brush, type LucideIcon, MousePointer2, PenTool, Type } from 'lucide-react';
import type { ComponentType } from 'react';
import type { ToolName } from '../../store/workspace';
import type { Stage } from '../stage';
import { DrawPath } from './DrawPath';
import { pressForShape } from './drawShape';
import type { Press } from './press';
import { pressToSelect } from './select';
import { pressForText } from './text';

export interface Tool {
  readonly label: string;
  readonly keys?: string;
  /** Of its button in the dock; those without one are in its drawers. */
  readonly icon?: LucideIcon;
  /** What a press on the canvas does. */
  readonly press?: (press: Press) => void;
  /** What lies over the canvas, and takes its presses itself. The brush comes when it is taken up: see ToolsInHand. */
  readonly over?: ComponentType<Stage>;
}

export const TOOLS: Readonly<Record<ToolName, Tool>> = {
  select: { label: 'Select', keys: 'S', icon: MousePointer2, press: pressToSelect },
  path: { label: 'Draw a path', keys: 'D', icon: PenTool, over: DrawPath },
  brush: { label: 'Brush', keys: 'B', icon: Brush },
  text: { label: 'Text', keys: 'T', icon: Type, press: pressForText },
  rectangle: { label: 'Rectangle', keys: 'R', press: pressForShape('rectangle') },
  ellipse: { label: 'Ellipse', keys: 'E', press: pressForShape('ellipse') },
  wedge: { label: 'Wedge', keys: 'W', press: pressForShape('wedge') },
  polygon: { label: 'Polygon', press: pressForShape('polygon') },
  star: { label: 'Star', press: pressForShape('star') },
  line: { label: 'Line', press: pressForShape('line') },
};
export const TOOL_NAMES = Object.keys(TOOLS) as ToolName[];
