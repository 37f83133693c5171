import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

type ModalProps = {
  open: boolean;
  /** Left out where a choice has to be made. */
  onOpenChange?: (open: boolean) => void;
  title: string;
  says?: string;
  children: ReactNode;
};

/** A sheet over the screen. */
export function Modal({ open, onOpenChange, title, says, children }: ModalProps) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => onOpenChange?.(next)}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Dialog.Content
          className="fixed inset-x-3 top-[6dvh] z-50 mx-auto grid max-h-[88dvh] max-w-[640px] gap-3 overflow-y-auto border-2 border-ink bg-slate p-5 text-ink"
          {...(says ? {} : { "aria-describedby": undefined })}
        >
          <Dialog.Title className="font-bold text-[26px] leading-tight">{title}</Dialog.Title>
          {says && <Dialog.Description>{says}</Dialog.Description>}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
