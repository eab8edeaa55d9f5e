import * as Radix from "@radix-ui/react-tooltip";
import type { ReactNode } from "react";

/** A line about a control, with its key, shown when the pointer rests on it or the focus is there. */
export function Tooltip({ text, keys, children }: { text: string; keys?: string; children: ReactNode }) {
  return (
    <Radix.Provider delayDuration={500}>
      <Radix.Root>
        <Radix.Trigger asChild>{children}</Radix.Trigger>
        <Radix.Portal>
          <Radix.Content
            className="bg-neutral text-neutral-content z-50 max-w-64 rounded px-2 py-1 text-sm"
            sideOffset={4}
            collisionPadding={8}
          >
            {text}
            {keys && <kbd className="pl-2 font-mono text-xs">{keys}</kbd>}
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
    </Radix.Provider>
  );
}
