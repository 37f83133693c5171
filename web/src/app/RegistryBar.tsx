import { BatteryLow, CircleSlash2 } from "lucide-react";
import type { Schemas } from "../api/client";
import { useSession } from "../job/session";
import { order, readsFor, useRegistry } from "./useRegistry";

type OnRegistry = Schemas["OnRegistry"];

/** What is joined, with its live figure: a press holds its reading for the field one is in. */
export function RegistryBar() {
  const { shown, says, refused } = useRegistry();
  const job = useSession((s) => s.view?.id);
  const instruments = shown.instruments.filter(({ way }) => readsFor(way, job));
  if (shown.ways.length === 0 && instruments.length === 0) return null;
  return (
    <section
      aria-label="Instruments"
      className="flex items-center gap-2 overflow-x-auto border-line border-t bg-paper px-2 py-1"
      data-shelf={instruments.length}
    >
      {instruments.map((one) => (
        <Instrument key={one.id} one={one} />
      ))}
      {instruments.length === 0 && (
        <span className="text-[15px] text-muted">Connected, but nothing has identified itself yet.</span>
      )}
      <p
        role="status"
        className={`min-w-0 flex-1 truncate text-[15px] ${refused ? "font-semibold text-axle" : "text-muted"}`}
        data-took={refused ? "refused" : "taken"}
      >
        {says ?? "Choose a field, then press an instrument."}
      </p>
    </section>
  );
}

function Instrument({ one }: { one: OnRegistry }) {
  const live = one.live ? `${Math.round(one.live.value * 1e4) / 1e4} ${one.live.unit}` : "…";
  return (
    <button
      type="button"
      // The tape of a practice vehicle reads from its own panel.
      disabled={!one.there || one.way.startsWith("practice:")}
      // The field one is in stays in focus.
      onMouseDown={(event) => event.preventDefault()}
      onClick={() => void order(one.id, "ask")}
      aria-label={`${one.id}, hold its reading`}
      className="flex min-h-11 shrink-0 items-center gap-2 border-[1.5px] border-ink bg-slate px-2.5 disabled:border-line disabled:text-muted"
      data-instrument={one.id}
    >
      <span className="text-[15px]">{one.id}</span>
      <span className="font-semibold tabular-nums">
        {one.there ? live : "no signal, reconnects by itself"}
      </span>
      {one.low_battery && <BatteryLow size={16} aria-label="its battery is low" />}
      {one.fault && (
        <span className="flex items-center gap-1 text-[15px] text-axle">
          <CircleSlash2 size={16} aria-hidden />
          {one.fault}
        </span>
      )}
    </button>
  );
}
