import { Check } from "lucide-react";
import { PurposePicture } from "./PurposePicture";
import { PURPOSES, type Purpose } from "./purposes";

type PurposeChoiceProps = {
  picked: readonly Purpose[];
  onPick: (purpose: Purpose) => void;
};

/** What is to be done, as pictures one can take several of. */
export function PurposeChoice({ picked, onPick }: PurposeChoiceProps) {
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-2" data-purposes>
      {PURPOSES.map(({ value, label }) => {
        const on = picked.includes(value);
        return (
          <li key={value}>
            <button
              type="button"
              aria-pressed={on}
              className={`settle grid h-full w-full content-start gap-1 rounded-[3px] border-[1.5px] p-2 text-left leading-tight ${on ? "border-ink bg-tape outline-2 outline-ink" : "border-line bg-slate hover:border-ink"}`}
              data-purpose={value}
              onClick={() => onPick(value)}
            >
              <PurposePicture purpose={value} />
              <span className={`flex items-start gap-1.5 ${on ? "font-semibold" : ""}`}>
                <span
                  className={`mt-0.5 grid size-[18px] shrink-0 place-content-center border-[1.5px] border-ink ${on ? "bg-marker text-on-marker" : ""}`}
                  aria-hidden
                >
                  {on && <Check size={14} strokeWidth={3} />}
                </span>
                {label}
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
