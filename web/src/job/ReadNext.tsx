import type { Schemas, SheetResult } from "../api/client";
import { say } from "../measure/format";
import { Figure } from "../ui/Figure";
import { Fold } from "../ui/Fold";
import { useSettings } from "../ui/settings";
import { useDrawn } from "./useDrawn";

/** Whether a sheet says by itself that it is not sure enough. */
const unsure = (result: SheetResult) =>
  result.centring?.answer === "cannot_tell" || result.centring?.method_can_prove === false;

/** What to read next: said where the answer cannot be told or is worse than the tolerance, elsewhere on asking. */
export function ReadNext({ result }: { result: SheetResult | undefined }) {
  if (!result?.centring || !result.current || result.kind !== "centring") return null;
  if (unsure(result)) return <Worth says />;
  return (
    <Fold title="What to measure next">
      <Worth />
    </Fold>
  );
}

function Worth({ says = false }: { says?: boolean }) {
  const units = useSettings((s) => s.units);
  const drawn = useDrawn();
  if (!drawn) return <p className="text-muted">Checking which measurement helps most…</p>;
  if (!drawn.next) return <p>No single extra measurement improves the answer.</p>;
  return (
    <div className="grid gap-1" data-read-next>
      <p className={says ? "font-semibold" : ""}>
        <Figure>{say(drawn.next.says, units)}</Figure>
      </p>
      <Others options={drawn.next.options} />
    </div>
  );
}

function Others({ options }: { options: readonly Schemas["NextOption"][] }) {
  const units = useSettings((s) => s.units);
  if (options.length < 2) return null;
  return (
    <ul className="grid list-disc gap-0.5 pl-5 text-[16px] text-muted">
      {options.slice(1).map((option) => (
        <li key={option.reading}>
          <Figure>{say(option.says, units)}</Figure>
        </li>
      ))}
    </ul>
  );
}
