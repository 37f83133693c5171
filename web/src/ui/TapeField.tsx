import { useCallback, useContext, useEffect, useId, useRef } from "react";
import type { TapeEntry, Unit } from "../api/client";
import { readBack } from "../measure/format";
import { Figure } from "./Figure";
import { focusNext } from "./focus";
import { Meanwhile } from "./Meanwhile";
import { usePad } from "./pad";
import { Refused } from "./refused";
import { useSettings } from "./settings";
import { useTaking } from "./taking";
import { TapeReading } from "./tapeReading";
import { type Fault as FaultOf, useTypedField } from "./useTypedField";

type TapeFieldProps = {
  job: string;
  pointer: string;
  /** Where a draft is kept, where rows come and go. */
  kept?: string | undefined;
  label: string;
  value: TapeEntry | undefined;
  /** The unit of a bare number. */
  unit: Unit;
  signed?: boolean;
  hint?: string;
  /** The label is spoken but not shown. */
  bare?: boolean;
  onCommit: (entry: TapeEntry | undefined) => void;
};

/** The one field for lengths: takes a tape's figures, reads them back, marks a mistake. */
export function TapeField(props: TapeFieldProps) {
  const { job, pointer, kept, label, value, signed = false, hint, bare = false, onCommit } = props;
  const unit = value?.unit ?? props.unit;
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const padOn = useSettings((s) => s.pad);
  const target = usePad((s) => s.target);
  const aim = usePad((s) => s.aim);

  const read = useContext(TapeReading);
  const judge = useCallback((text: string) => read(text, unit, signed), [read, unit, signed]);
  const field = useTypedField({ job, pointer, kept, stored: value?.text ?? "", judge, commit: onCommit });

  const enter = useCallback(async () => {
    // On at once, so that quick hands never type into the field they have left.
    const comeBack = input.current ? focusNext(input.current) : undefined;
    if (!(await field.settle())) comeBack?.();
  }, [field.settle]);
  useTaking(input, (text) => {
    field.type(text);
    void enter();
  });
  const arm = () => aim({ label, unit, text: field.text, write: field.type, enter });
  // The pad holds a copy of the text it goes on from: keep it current while aimed here.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a change of text matters
  useEffect(() => {
    if (target?.write === field.type && target.text !== field.text) arm();
  }, [field.text]);

  const refused = useContext(Refused).get(pointer);
  const judged = field.judged && "fault" in field.judged ? field.judged : null;
  const fault = judged ?? (refused && !field.isDraft ? { fault: refused } : null);
  const mm =
    field.judged && "value" in field.judged ? field.judged.value.mm : field.isDraft ? undefined : value?.mm;
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={bare ? "sr-only" : "mb-1 block text-[15px] text-muted"}>
        {label}
      </label>
      <div
        className={`flex items-stretch border-[1.5px] bg-tape focus-within:outline-3 focus-within:outline-frame ${fault ? "border-axle" : "border-ink"}`}
      >
        <input
          id={id}
          ref={input}
          data-tape={pointer}
          data-takes="tape height_stick"
          data-pointer={pointer}
          className="min-h-11 w-full min-w-0 bg-transparent px-2 text-[20px] outline-none!"
          value={field.text}
          autoComplete="off"
          autoCapitalize="none"
          spellCheck={false}
          inputMode={padOn ? "none" : "text"}
          data-draft={field.isDraft || undefined}
          aria-invalid={fault !== null}
          aria-describedby={`${id}-says`}
          onChange={(event) => field.type(event.target.value)}
          onFocus={arm}
          onBlur={() => {
            aim(null);
            void field.settle();
          }}
          onKeyDown={(event) => {
            if (event.key === "Enter") {
              event.preventDefault();
              void enter();
            }
            if (event.key === "Escape") field.drop();
          }}
        />
        <span className="self-center pr-2 text-muted">{unit}</span>
      </div>
      <div id={`${id}-says`} className="min-h-5 text-[14px] leading-tight">
        {fault ? (
          <Fault text={field.text} {...fault} />
        ) : mm !== undefined ? (
          <span className="text-muted">
            <Figure>{`${readBack(mm, "in")} · ${readBack(mm, "mm")}`}</Figure>
          </span>
        ) : (
          hint && <span className="text-muted">{hint}</span>
        )}
        <Meanwhile there={field.meanwhile} onKeep={field.keepMine} onTake={field.drop} />
      </div>
    </div>
  );
}

function Fault({ text, fault, start, end }: FaultOf & { text: string }) {
  // The core counts characters, not UTF-16 units.
  const chars = [...text];
  const marked = start !== undefined && end !== undefined && end > start;
  return (
    <span role="alert" className="block text-axle">
      {marked && (
        <span className="mr-1 font-semibold text-ink">
          {chars.slice(0, start).join("")}
          <mark className="bg-axle text-slate">{chars.slice(start, end).join("")}</mark>
          {chars.slice(end).join("")}
        </span>
      )}
      {fault}
    </span>
  );
}
