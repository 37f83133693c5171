import { ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";
import type { ReactNode } from "react";

/** Something folded away under its title. */
export function Fold({ title, children, open }: { title: string; children: ReactNode; open?: boolean }) {
  return (
    <Collapsible.Root defaultOpen={open ?? false} className="border-line border-t">
      <Collapsible.Trigger className="group flex min-h-11 w-full items-center gap-2 py-1.5 text-left font-semibold">
        <ChevronRight size={18} aria-hidden className="shrink-0 group-data-[state=open]:rotate-90" />
        {title}
      </Collapsible.Trigger>
      <Collapsible.Content className="pb-3">{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
