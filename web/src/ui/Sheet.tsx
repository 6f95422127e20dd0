/** A sheet laid over the view: its title, its way out, and what it holds. */
import { Dialog } from "radix-ui";
import { X } from "lucide-react";
import type { ReactElement, ReactNode } from "react";
import { say } from "../app/language";

interface SheetProps {
  title: string;
  children: ReactNode;
  /** Width in px; "full" leaves a margin only. */
  width?: number | "full";
  /** The inside scrolls by itself, under a head that stays. */
  fixedHead?: boolean;
  onClose?: () => void;
  /** Held open by the caller, or opened by a key of its own. */
  open?: boolean;
  onOpen?: (open: boolean) => void;
  trigger?: ReactNode;
}

export function Sheet({
  title,
  children,
  width = 640,
  fixedHead = false,
  onClose,
  open = true,
  onOpen,
  trigger,
}: SheetProps): ReactElement {
  const opened = (o: boolean): void => {
    onOpen?.(o);
    if (!o) onClose?.();
  };
  const place = width === "full" ? "inset-4 wide:inset-x-16" : "sheet-middle max-h-[94vh]";
  const inside = fixedHead ? "flex flex-col" : "overflow-auto";
  return (
    <Dialog.Root open={open} onOpenChange={opened}>
      {trigger}
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30 z-40" />
        <Dialog.Content
          className={`fixed z-50 bg-paper border-[1.5px] border-ink p-6 ${place} ${inside}`}
          style={width === "full" ? undefined : { width }}
          aria-describedby={undefined}
          onCloseAutoFocus={(e) => {
            // whoever types already goes on typing; else the focus goes back to the key
            if (document.activeElement instanceof HTMLInputElement) e.preventDefault();
          }}
        >
          <div className="flex justify-between items-center mb-2">
            <Dialog.Title asChild>
              <h2>{title}</h2>
            </Dialog.Title>
            <Dialog.Close aria-label={say("Close")} className="grid place-items-center w-11 h-11">
              <X size={22} />
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
