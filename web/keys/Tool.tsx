import type { LucideIcon } from "lucide-react";
import { useSyncExternalStore } from "react";
import type { MenuAct } from "../ui/Menu";
import { Tooltip } from "../ui/Tooltip";
import { COMMANDS, type CommandName, keyOf, keysVersion, subscribeKeys } from "./commands";

/** A button of a toolbar: icon, word, and a tooltip with what its command does and its key. */
export function Tool({
  command,
  label,
  icon: Icon,
  disabled = false,
  pressed,
  bare = false,
  onPress,
}: {
  command: CommandName;
  label: string;
  icon: LucideIcon;
  disabled?: boolean;
  /** Whether it is on, for a button that can be. */
  pressed?: boolean;
  /** Whether it shows its icon alone, with its word in the tooltip. */
  bare?: boolean;
  onPress: () => void;
}) {
  useSyncExternalStore(subscribeKeys, keysVersion);
  return (
    <Tooltip text={COMMANDS[command].label} keys={keyOf(command)}>
      <button
        type="button"
        className={`btn btn-ghost btn-sm gap-1 px-2 font-normal ${pressed ? "bg-base-300" : ""}`}
        {...(bare ? { "aria-label": label } : {})}
        {...(pressed === undefined ? {} : { "aria-pressed": pressed })}
        disabled={disabled}
        onClick={onPress}
      >
        <Icon size={16} aria-hidden="true" />
        {!bare && <span className="max-md:sr-only">{label}</span>}
      </button>
    </Tooltip>
  );
}

/** Returns a command as an act of a menu, with its key. */
export function menuAct(command: CommandName, act: () => void, rest: Omit<MenuAct, "act" | "keys">): MenuAct {
  return { ...rest, act, keys: keyOf(command) };
}
