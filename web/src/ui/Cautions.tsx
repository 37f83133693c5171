import { ChevronDown, ChevronUp, ShieldAlert } from "lucide-react";
import { Collapsible } from "radix-ui";
import { useState } from "react";
import type { Results, StageName } from "../api/client";

/**
 * The cautions of a stage, at the foot of the slate on every stage. The first is always in
 * sight; none can be switched off.
 */
export function Cautions({ cautions, stage }: { cautions: Results["cautions"]; stage: StageName }) {
  const [open, setOpen] = useState(false);
  const [first, ...rest] = cautions.filter((caution) => caution.stage === stage);
  if (!first) return null;
  return (
    <Collapsible.Root open={open} onOpenChange={setOpen} asChild>
      <section aria-label="Cautions" className="border-axle border-t-4 bg-slate px-4 py-2 leading-snug">
        <p className="flex gap-2">
          <ShieldAlert size={20} aria-hidden className="mt-0.5 shrink-0 text-axle" />
          <span>
            <b className="text-axle">Mind this.</b> {first.says}
          </span>
        </p>
        <Collapsible.Content asChild>
          <ul className="mt-2 grid max-h-[45dvh] list-disc gap-1.5 overflow-y-auto pl-12">
            {rest.map((caution) => (
              <li key={caution.says}>{caution.says}</li>
            ))}
          </ul>
        </Collapsible.Content>
        {rest.length > 0 && (
          <Collapsible.Trigger className="ml-7 flex min-h-11 items-center gap-1 underline">
            {open ? <ChevronDown size={18} aria-hidden /> : <ChevronUp size={18} aria-hidden />}
            {open ? "fold away" : `${rest.length} more to mind at this stage`}
          </Collapsible.Trigger>
        )}
      </section>
    </Collapsible.Root>
  );
}
