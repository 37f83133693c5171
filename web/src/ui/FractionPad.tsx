import { CornerDownLeft, Delete } from "lucide-react";
import { Figure } from "./Figure";
import { usePad } from "./pad";
import { useSettings } from "./settings";

const DIGITS = ["1", "2", "3", "4", "5", "6", "7", "8", "9", "0"];
const SIXTEENTHS = [
  "1/16",
  "1/8",
  "3/16",
  "1/4",
  "5/16",
  "3/8",
  "7/16",
  "1/2",
  "9/16",
  "5/8",
  "11/16",
  "3/4",
  "13/16",
  "7/8",
  "15/16",
];

/** Whole inches on digits and the sixteenths as a row: 24 13/16 is three touches. */
export function FractionPad() {
  const on = useSettings((s) => s.pad);
  const target = usePad((s) => s.target);
  if (!on || !target) return null;
  const { text, write, enter, unit } = target;
  const key = "settle min-h-11 rounded-[3px] border-[1.5px] border-ink bg-slate text-lg active:bg-marker";
  const withFraction = (fraction: string) => write(`${text.replace(/\s*\d+\/\d+$/, "")} ${fraction}`.trim());
  return (
    // A press must not take the focus out of the field.
    <fieldset
      aria-label={`Keypad for ${target.label}`}
      data-pad
      className="row-start-3 grid min-w-0 gap-1.5 md:ml-auto md:w-[424px] md:border-l-2 border-ink border-t-2 bg-paper p-2"
      onPointerDown={(event) => event.preventDefault()}
    >
      <div className="grid grid-cols-6 gap-1.5">
        {DIGITS.map((digit) => (
          <button type="button" key={digit} className={key} onClick={() => write(text + digit)}>
            {digit}
          </button>
        ))}
        {unit === "mm" && (
          <button type="button" className={key} onClick={() => write(`${text}.5`)} aria-label="1/2">
            .5
          </button>
        )}
        <button type="button" className={key} onClick={() => write(text.slice(0, -1))} aria-label="backspace">
          <Delete size={20} aria-hidden className="mx-auto" />
        </button>
        <button
          type="button"
          className={`${key} bg-marker text-on-marker`}
          onClick={enter}
          aria-label="enter, next measurement"
        >
          <CornerDownLeft size={20} aria-hidden className="mx-auto" />
        </button>
      </div>
      {unit === "in" && (
        <div className="grid grid-cols-8 gap-1">
          {SIXTEENTHS.map((fraction) => (
            <button type="button" key={fraction} className={key} onClick={() => withFraction(fraction)}>
              <Figure>{fraction}</Figure>
            </button>
          ))}
        </div>
      )}
    </fieldset>
  );
}
