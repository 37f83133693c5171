import { Check, CircleX } from "lucide-react";
import type { Schemas } from "../../api/client";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

const SIGNS = {
  good: { icon: Check, word: "good", look: "text-ink" },
  bad: { icon: CircleX, word: "fails", look: "text-axle font-semibold" },
  open: { icon: CircleX, word: "to check", look: "text-muted" },
} satisfies Record<Schemas["FitCheck"]["verdict"], { icon: typeof Check; word: string; look: string }>;

/** Checks, each with how it came out, a word and a sign. */
export function Checks({ title, checks }: { title: string; checks: readonly Schemas["FitCheck"][] }) {
  const units = useSettings((s) => s.units);
  return (
    <section>
      <h3 className="font-semibold text-[20px] leading-tight">{title}</h3>
      <ul data-checks>
        {checks.map((check) => {
          const { icon: Icon, word, look } = SIGNS[check.verdict];
          return (
            <li
              key={check.name}
              className="grid grid-cols-[22px_minmax(0,1fr)] gap-2 border-line border-b py-1.5"
            >
              {check.verdict === "open" ? (
                <span aria-hidden>○</span>
              ) : (
                <Icon size={18} aria-hidden className={look} />
              )}
              <span>
                <span className={look}>
                  {check.name}: {word}.
                </span>{" "}
                <Figure>{say(check.says, units)}</Figure>
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
