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
      <section
        aria-label="Cautions"
        className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-2 border-axle border-t-4 bg-slate px-3 py-1 text-[15.5px] leading-tight"
      >
        <ShieldAlert size={20} aria-hidden className="text-axle" />
        <p>
          <b className="text-axle">Mind this.</b> {first.says}
        </p>
        {rest.length > 0 && (
          <Collapsible.Trigger className="flex min-h-11 min-w-11 items-center gap-1 border-line border-l pl-2">
            {open ? <ChevronDown size={18} aria-hidden /> : <ChevronUp size={18} aria-hidden />}
            {open ? "fold" : `${rest.length} more`}
          </Collapsible.Trigger>
        )}
        <Collapsible.Content asChild>
          <ul className="col-span-3 grid max-h-[45dvh] list-disc gap-1.5 overflow-y-auto py-2 pl-12">
            {rest.map((caution) => (
              <li key={caution.says}>{caution.says}</li>
            ))}
          </ul>
        </Collapsible.Content>
      </section>
    </Collapsible.Root>
  );
}
