import type { Depth, Side } from "@unitext/core/edit";
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceAround,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceAround,
  ArrowDown,
  ArrowUp,
  BringToFront,
  CopyPlus,
  Group,
  type LucideIcon,
  SendToBack,
  Trash2,
  Ungroup,
} from "lucide-react";
import { Tool } from "../keys";
import { ToolButton } from "../richtext/ToolButton";
import type { Acts } from "./selection";

const SIDES: readonly [side: Side, label: string, icon: LucideIcon][] = [
  ["left", "Left edges", AlignStartVertical],
  ["centre", "Centres, left to right", AlignCenterVertical],
  ["right", "Right edges", AlignEndVertical],
  ["top", "Top edges", AlignStartHorizontal],
  ["middle", "Middles, top to bottom", AlignCenterHorizontal],
  ["bottom", "Bottom edges", AlignEndHorizontal],
];
const STEPS: readonly [depth: Depth, label: string, icon: LucideIcon][] = [
  ["forward", "One step forward", ArrowUp],
  ["backward", "One step back", ArrowDown],
];

/** What can be done with any selected element: copies, order, groups, and lining up. */
export function SelectionTools({ acts }: { acts: Acts }) {
  const { elements } = acts;
  const grouped = elements.some(({ groups }) => groups?.length);
  const what = elements.length > 1 ? "of the selected elements" : "with those of the page";
  return (
    <div className="mb-3">
      <div className="flex flex-wrap" role="toolbar" aria-label="Selection">
        <Tool command="duplicateElement" label="Duplicate" icon={CopyPlus} bare onPress={acts.duplicate} />
        <Tool command="removeElement" label="Delete" icon={Trash2} bare onPress={acts.remove} />
        <Tool command="front" label="To the front" icon={BringToFront} bare onPress={() => acts.order("front")} />
        <Tool command="back" label="To the back" icon={SendToBack} bare onPress={() => acts.order("back")} />
        {elements.length > 1 && <Tool command="group" label="Group" icon={Group} bare onPress={acts.group} />}
        {grouped && <Tool command="ungroup" label="Take the group apart" icon={Ungroup} bare onPress={acts.ungroup} />}
      </div>
      <div className="flex flex-wrap" role="toolbar" aria-label="Line up and order">
        {SIDES.map(([side, label, icon]) => (
          <ToolButton key={side} label={`Line up: ${label} ${what}`} icon={icon} onPress={() => acts.align(side)} />
        ))}
        {elements.length > 2 && (
          <>
            <ToolButton label="Space evenly across" icon={AlignHorizontalSpaceAround} onPress={() => acts.space("x")} />
            <ToolButton label="Space evenly down" icon={AlignVerticalSpaceAround} onPress={() => acts.space("y")} />
          </>
        )}
        {STEPS.map(([depth, label, icon]) => (
          <ToolButton key={depth} label={label} icon={icon} onPress={() => acts.order(depth)} />
        ))}
      </div>
    </div>
  );
}
