import { ArrowRight } from "lucide-react";
import { useNavigate } from "react-router";
import type { FieldError } from "../api/client";
import { inOwnWords } from "../measure/english";
import { Notice } from "../ui/Notice";
import { goToField } from "../ui/reveal";
import { stageOf } from "./stageForPointer";
import { useJob } from "./useJob";

/** A way to go to the field of a place in the document, in whatever stage it is. */
export function useGoToField() {
  const { view } = useJob();
  const navigate = useNavigate();
  return (pointer: string) => {
    navigate(`/jobs/${view.id}/${stageOf(pointer)}`);
    goToField(pointer);
  };
}

/** What is missing, each a press that goes to its field; what cannot be, as it is told. */
export function Missing({ faults }: { faults: readonly FieldError[] }) {
  const go = useGoToField();
  const asked = faults.filter((fault) => fault.code === "missing");
  const refused = faults.filter((fault) => fault.code !== "missing");
  return (
    <>
      {refused.map((fault) => (
        <Notice key={fault.pointer + fault.code} kind="refused">
          {inOwnWords(fault.message)}
        </Notice>
      ))}
      {asked.length > 0 && (
        <ul aria-label="Still needed" className="grid gap-1.5" data-missing={asked.length}>
          {asked.map((fault) => (
            <li key={fault.pointer}>
              <button
                type="button"
                className="settle grid min-h-11 w-full grid-cols-[minmax(0,1fr)_auto] items-center gap-2 border-frame border-l-[5px] bg-paper py-1.5 pr-2 pl-2.5 text-left leading-snug hover:bg-tape"
                data-goes-to={fault.pointer}
                onClick={() => go(fault.pointer)}
              >
                <span>
                  <b>Still needed.</b> {inOwnWords(fault.message)}
                </span>
                <ArrowRight size={18} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
