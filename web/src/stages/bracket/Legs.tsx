import type { Schemas } from "../../api/client";
import { say } from "../../measure/format";
import { Figure } from "../../ui/Figure";
import { useSettings } from "../../ui/settings";

/** How far each leg of a Y-link is turned, one aim after the other. */
export function Legs({ settings }: { settings: readonly Schemas["LegSetting"][] }) {
  const units = useSettings((s) => s.units);
  return (
    <section data-legs>
      <h3 className="font-semibold text-[20px] leading-tight">Adjusting the legs, one thing at a time</h3>
      {settings.map((setting) => (
        <div key={setting.says.in} className="border-line border-b py-1.5">
          <p>
            <Figure>{say(setting.says, units)}</Figure>
          </p>
          <ul>
            {setting.legs.map((leg) => (
              <li key={leg.name} className="font-semibold">
                <Figure>{say(leg.says, units)}</Figure>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}
