import { Check } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { chooseEnglish, ENGLISHES, type English, english } from "../measure/english";

const NAMES = {
  us: "US English",
  uk: "UK English",
  au: "Australian English",
  ca: "Canadian English",
} satisfies Record<English, string>;

/** Whose English screens and papers are in. The page is loaded again with it; what was typed is kept. */
export function EnglishItems() {
  const pick = (code: string) => {
    chooseEnglish(code as English);
    window.location.reload();
  };
  return (
    <DropdownMenu.RadioGroup
      value={english}
      onValueChange={pick}
      aria-label="English"
      className="border-line border-t"
    >
      {ENGLISHES.map((code) => (
        <DropdownMenu.RadioItem
          key={code}
          value={code}
          className="flex min-h-11 cursor-pointer items-center gap-2 px-3 outline-none data-[highlighted]:bg-marker data-[highlighted]:text-on-marker"
        >
          <span className="w-[18px]">
            <DropdownMenu.ItemIndicator>
              <Check size={18} aria-hidden />
            </DropdownMenu.ItemIndicator>
          </span>
          {NAMES[code]}
        </DropdownMenu.RadioItem>
      ))}
    </DropdownMenu.RadioGroup>
  );
}
