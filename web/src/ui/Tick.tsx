import { Check, X } from "lucide-react";

type TickProps = {
  label: string;
  value: boolean | undefined;
  yes?: string;
  no?: string;
  /** Its place in the document. */
  pointer?: string;
  onPick: (value: boolean | undefined) => void;
};

/** Yes, no, or not said. A second press takes the answer back. */
export function Tick({ label, value, yes = "yes", no = "no", pointer, onPick }: TickProps) {
  const look = (on: boolean) =>
    `settle inline-flex min-h-11 min-w-16 items-center justify-center gap-1 rounded-[3px] border-[1.5px] px-2 ${
      on ? "border-ink bg-marker font-semibold text-on-marker" : "border-line bg-slate"
    }`;
  const pick = (answer: boolean) => onPick(value === answer ? undefined : answer);
  return (
    <fieldset
      data-pointer={pointer}
      className="flex items-center justify-between gap-3 border-line border-b py-1.5 last:border-b-0"
    >
      <legend className="contents">
        <span className="leading-tight">{label}</span>
      </legend>
      <span className="flex shrink-0 gap-1.5">
        <button
          type="button"
          aria-pressed={value === true}
          className={look(value === true)}
          onClick={() => pick(true)}
        >
          <Check size={16} aria-hidden />
          {yes}
        </button>
        <button
          type="button"
          aria-pressed={value === false}
          className={look(value === false)}
          onClick={() => pick(false)}
        >
          <X size={16} aria-hidden />
          {no}
        </button>
      </span>
    </fieldset>
  );
}
