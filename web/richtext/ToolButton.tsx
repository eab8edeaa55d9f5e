import type { LucideIcon } from "lucide-react";
import { Tooltip } from "../ui/Tooltip";

/** A small button of the text tools: an icon with a tooltip that names it and its key. It leaves the focus in the text. */
export function ToolButton({
  label,
  icon: Icon,
  keys,
  pressed,
  disabled = false,
  onPress,
}: {
  label: string;
  icon: LucideIcon;
  keys?: string;
  /** Whether it is on, for a button that can be. */
  pressed?: boolean;
  disabled?: boolean;
  onPress: () => void;
}) {
  return (
    <Tooltip text={label} {...(keys ? { keys } : {})}>
      <button
        type="button"
        className={`btn btn-ghost btn-xs btn-square h-7 w-7 ${pressed ? "bg-base-300" : ""}`}
        aria-label={label}
        {...(pressed === undefined ? {} : { "aria-pressed": pressed })}
        disabled={disabled}
        onMouseDown={(event) => event.preventDefault()}
        onClick={onPress}
      >
        <Icon size={16} aria-hidden="true" />
      </button>
    </Tooltip>
  );
}
