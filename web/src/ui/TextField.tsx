import { useCallback, useContext, useId, useRef } from "react";
import type { Schemas } from "../api/client";
import { Meanwhile } from "./Meanwhile";
import { Refused } from "./refused";
import { useTaking } from "./taking";
import { type Fault, type Judged, useTypedField } from "./useTypedField";

type TextFieldProps = {
  job: string;
  pointer: string;
  /** Where a draft is kept, where rows come and go. */
  kept?: string | undefined;
  label: string;
  value: string;
  hint?: string;
  long?: boolean;
  /** Text that must not be empty keeps its last value. */
  required?: boolean;
  /** Kinds of instruments whose readings it takes. */
  takes?: Schemas["InstrumentKind"] | undefined;
  /** Says what is wrong with a text, or nothing. */
  check?: (text: string) => Promise<Fault | undefined>;
  onCommit: (text: string) => void;
};

/** A field for words, saved like any other. */
export function TextField({
  job,
  pointer,
  kept,
  label,
  value,
  hint,
  long,
  required,
  takes,
  check,
  onCommit,
}: TextFieldProps) {
  const id = useId();
  const judge = useCallback(
    async (text: string): Promise<Judged<string>> => {
      return (await check?.(text)) ?? { value: text };
    },
    [check],
  );
  const commit = useCallback(
    (text: string | undefined) => {
      if (text !== undefined || !required) onCommit(text ?? "");
    },
    [onCommit, required],
  );
  const field = useTypedField({ job, pointer, kept, stored: value, judge, commit });
  const input = useRef<HTMLInputElement>(null);
  useTaking(input, (text) => {
    field.type(text);
    void field.settle();
  });
  const refused = useContext(Refused).get(pointer);
  const judged = field.judged && "fault" in field.judged ? field.judged.fault : null;
  const fault = judged ?? (field.isDraft ? null : (refused ?? null));
  const shared = {
    id,
    value: field.text,
    className: "min-h-11 w-full min-w-0 border-[1.5px] border-ink bg-slate px-2 py-1.5",
    onBlur: () => void field.settle(),
    "aria-invalid": fault !== null,
    "data-pointer": pointer,
    "data-draft": field.isDraft || undefined,
    "aria-describedby": `${id}-says`,
  };
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-1 block text-[15px] text-muted">
        {label}
      </label>
      {long ? (
        <textarea {...shared} rows={3} onChange={(event) => field.type(event.target.value)} />
      ) : (
        <input
          {...shared}
          ref={input}
          data-takes={takes}
          autoComplete="off"
          onChange={(event) => field.type(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter") void field.settle();
            if (event.key === "Escape") field.drop();
          }}
        />
      )}
      <div id={`${id}-says`} className="text-[14px] leading-tight">
        {fault ? (
          <span role="alert" className="text-axle">
            {fault}
          </span>
        ) : (
          hint && <span className="text-muted">{hint}</span>
        )}
        <Meanwhile there={field.meanwhile} onKeep={field.keepMine} onTake={field.drop} />
      </div>
    </div>
  );
}
