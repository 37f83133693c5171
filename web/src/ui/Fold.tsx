import { ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";
import { type ReactNode, useRef, useState } from "react";
import { useReveal } from "./reveal";

type FoldProps = {
  title: string;
  children: ReactNode;
  open?: boolean;
  /** It holds fields, which stay on the page while it is shut, so that one can be sent to them. */
  keep?: boolean;
};

/** Something folded away under its title. */
export function Fold({ title, children, open: begins = false, keep = false }: FoldProps) {
  const [open, setOpen] = useState(begins);
  const host = useRef<HTMLDivElement>(null);
  useReveal(host, () => setOpen(true));
  return (
    <Collapsible.Root open={open} onOpenChange={setOpen} className="border-line border-t">
      <Collapsible.Trigger className="group flex min-h-11 w-full items-center gap-2 py-1.5 text-left font-semibold">
        <ChevronRight size={18} aria-hidden className="shrink-0 group-data-[state=open]:rotate-90" />
        {title}
      </Collapsible.Trigger>
      <Collapsible.Content
        ref={host}
        className="pb-3 data-[state=closed]:hidden"
        {...(keep ? { forceMount: true } : {})}
        data-reveals
      >
        {children}
      </Collapsible.Content>
    </Collapsible.Root>
  );
}
