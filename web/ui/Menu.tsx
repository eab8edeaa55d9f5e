import * as ContextMenu from "@radix-ui/react-context-menu";
import * as Dropdown from "@radix-ui/react-dropdown-menu";
import type { LucideIcon } from "lucide-react";
import type { ReactNode } from "react";

/** An act in a menu; `undefined` in a list of acts is a line between groups. */
export interface MenuAct {
  label: string;
  icon?: LucideIcon;
  /** Its key, as the list of keys writes it. */
  keys?: string;
  disabled?: boolean;
  act: () => void;
}
export type MenuActs = readonly (MenuAct | undefined)[];

const BOX = "bg-base-100 hairline z-[4000] max-h-[80vh] min-w-48 overflow-y-auto border p-1 text-sm shadow-md";
const ITEM =
  "flex cursor-default items-center gap-2 rounded px-2 py-1 outline-none data-[disabled]:opacity-50 data-[highlighted]:bg-primary data-[highlighted]:text-primary-content";

/** The items of a menu, drawn with the parts of the kind of menu that they are in. */
function Items({ acts, parts: { Item, Separator } }: { acts: MenuActs; parts: typeof Dropdown | typeof ContextMenu }) {
  return acts.map((one, nth) =>
    one ? (
      <Item key={one.label} className={ITEM} disabled={one.disabled ?? false} onSelect={() => one.act()}>
        {one.icon ? <one.icon size={16} aria-hidden="true" /> : <span className="w-4" />}
        <span className="flex-1">{one.label}</span>
        {one.keys && <kbd className="pl-4 font-mono text-xs">{one.keys}</kbd>}
      </Item>
    ) : (
      <Separator key={nth} className="bg-base-300 my-1 h-px" />
    ),
  );
}

/** A button that opens a menu of acts. */
export function MenuButton({
  label,
  className,
  disabled = false,
  acts,
  children,
}: {
  /** Its name for screen readers, where the content is not enough. */
  label?: string;
  className: string;
  disabled?: boolean;
  acts: MenuActs;
  children: ReactNode;
}) {
  return (
    <Dropdown.Root modal={false}>
      <Dropdown.Trigger className={className} disabled={disabled} {...(label ? { "aria-label": label } : {})}>
        {children}
      </Dropdown.Trigger>
      <Dropdown.Portal>
        <Dropdown.Content className={BOX} align="start" sideOffset={4} collisionPadding={8}>
          <Items acts={acts} parts={Dropdown} />
        </Dropdown.Content>
      </Dropdown.Portal>
    </Dropdown.Root>
  );
}

/**
 * Offers acts on a right click, a long touch, or the menu key; while `disabled`, the browser's own menu is there. Its
 * child must take a ref and the usual handlers.
 */
export function WithContextMenu({
  acts,
  disabled = false,
  children,
}: {
  acts: MenuActs;
  disabled?: boolean;
  children: ReactNode;
}) {
  if (!acts.length) return children;
  return (
    <ContextMenu.Root modal={false}>
      <ContextMenu.Trigger asChild disabled={disabled}>
        {children}
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content className={BOX} collisionPadding={8}>
          <Items acts={acts} parts={ContextMenu} />
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  );
}
