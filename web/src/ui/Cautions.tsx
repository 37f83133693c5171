import { ShieldAlert } from "lucide-react";
import type { Results, StageName } from "../api/client";

/** The cautions of a stage, in the same place each time. They cannot be switched off. */
export function Cautions({ cautions, stage }: { cautions: Results["cautions"]; stage: StageName }) {
  const mine = cautions.filter((caution) => caution.stage === stage);
  if (mine.length === 0) return null;
  return (
    <section aria-label="Cautions" className="border-2 border-axle bg-slate px-3 py-2">
      <h3 className="flex items-center gap-2 font-semibold text-axle">
        <ShieldAlert size={20} aria-hidden />
        Mind this
      </h3>
      <ul className="mt-1 grid list-disc gap-1 pl-5 leading-snug">
        {mine.map((caution) => (
          <li key={caution.says}>{caution.says}</li>
        ))}
      </ul>
    </section>
  );
}
