import { ChevronDown, ChevronUp, ShieldAlert } from "lucide-react";
import { Collapsible } from "radix-ui";
import { useState } from "react";
import type { Results, StageName } from "../api/client";
import { Warning } from "./Warning";

/**
 * The cautions of a stage, at the foot of the slate on every stage: one line that unfolds. It is always in sight;
 * none can be switched off.
 */
export function Cautions({ cautions, stage }: { cautions: Results["cautions"]; stage: StageName }) {
  const [open, setOpen] = useState(false);
  const here = cautions.filter((caution) => caution.stage === stage);
  const [first, ...rest] = here;
  if (!first) return null;
  return (
    <Collapsible.Root open={open} onOpenChange={setOpen} asChild>
      <section aria-label="Cautions" className="border-axle border-t-[3px] bg-slate px-3 text-[16px]">
        <Collapsible.Trigger className="grid min-h-11 w-full grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-2 text-left leading-tight">
          <ShieldAlert size={20} aria-hidden className="text-axle" />
          <span className="truncate">
            <b className="text-axle">Warning.</b> {open ? "All of this screen:" : first.says}
          </span>
          <span className="flex items-center gap-1">
            {open ? <ChevronDown size={18} aria-hidden /> : <ChevronUp size={18} aria-hidden />}
            {open ? "fold" : rest.length > 0 ? `${rest.length} more` : "whole"}
          </span>
        </Collapsible.Trigger>
        <Collapsible.Content asChild>
          <ul className="grid max-h-[45dvh] gap-1.5 overflow-y-auto pb-3">
            {here.map((caution) => (
              <li key={caution.says}>
                <Warning>{caution.says}</Warning>
              </li>
            ))}
          </ul>
        </Collapsible.Content>
      </section>
    </Collapsible.Root>
  );
}
