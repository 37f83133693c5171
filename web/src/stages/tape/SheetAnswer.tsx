import type { Sheet, SheetResult } from "../../api/client";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Figure } from "../../ui/Figure";
import { Notice } from "../../ui/Notice";
import { useSettings } from "../../ui/settings";

/** What a sheet answers, with its refusals and second thoughts. */
export function SheetAnswer({ sheet, result }: { sheet: Sheet; result: SheetResult | undefined }) {
  const units = useSettings((s) => s.units);
  const one = (sheet.left?.length ?? 0) + (sheet.right?.length ?? 0) > 0;
  return (
    <>
      <Answer
        says={result?.says ? say(result.says, units) : one ? "Now the other side" : "Measure both sides"}
      >
        {result?.advice ? (
          <span data-advice>
            <Figure>{say(result.advice, units)}</Figure>
          </span>
        ) : (
          "Measure each side three or four times, walking back and forth. Enter goes to the next box."
        )}
      </Answer>
      {result?.refusals.map((refusal) => (
        <Notice key={refusal.in} kind="refused">
          {say(refusal, units)}
        </Notice>
      ))}
      {result?.second_thoughts.map((thought) => (
        <Notice key={thought.in} kind="warning">
          <Figure>{say(thought, units)}</Figure>
        </Notice>
      ))}
    </>
  );
}
