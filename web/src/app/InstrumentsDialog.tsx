import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client } from "../api/client";
import { Button } from "../ui/Button";
import { Modal } from "./Modal";
import { join, leave, useRegistry } from "./useRegistry";

/** Joining instruments, leaving them, and what fields took from them. */
export function InstrumentsDialog({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  return (
    <Modal
      open={open}
      onOpenChange={onOpenChange}
      title="Instruments"
      says="Digital tape, angle finder or torque wrench, connected over the network or a serial port. Its reading goes into the field you are in."
    >
      <Ways />
      <Join />
      <Taken />
      <div>
        <Button onClick={() => onOpenChange(false)}>Back to the job</Button>
      </div>
    </Modal>
  );
}

function Ways() {
  const { shown } = useRegistry();
  return (
    <ul className="grid">
      {shown.ways.map(({ way, there, dropped }) => (
        <li
          key={way}
          className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-2 border-line border-b py-1"
        >
          <span className="leading-tight">
            <b>{way}</b>
            <span className="block text-[15px] text-muted">
              {there
                ? shown.instruments
                    .filter((one) => one.way === way)
                    .map(
                      (one) =>
                        `${one.id}, good to ${one.good_to} ${one.unit}, checked ${one.checked ?? "never"}`,
                    )
                    .join("; ") || "connected, but has not identified itself"
                : "no answer; retrying every second"}
              {dropped > 0 && `; ${dropped} ${dropped === 1 ? "line" : "lines"} dropped`}
            </span>
          </span>
          <Button onClick={() => void leave(way)} aria-label={`leave ${way}`}>
            Disconnect
          </Button>
        </li>
      ))}
    </ul>
  );
}

function Join() {
  const [way, setWay] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const go = async () => {
    const result = await join(way);
    setFault("data" in result ? null : "problem" in result ? result.problem.detail : "No answer.");
    if ("data" in result) setWay("");
  };
  return (
    <form
      className="grid gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        void go();
      }}
    >
      <label htmlFor="way" className="text-[15px] text-muted">
        Connection, such as tcp:127.0.0.1:7400 or serial:/dev/ttyUSB0
      </label>
      <div className="flex gap-2">
        <input
          id="way"
          className="min-h-11 min-w-0 flex-1 border-[1.5px] border-ink bg-slate px-2"
          value={way}
          autoComplete="off"
          spellCheck={false}
          aria-invalid={fault !== null}
          onChange={(event) => setWay(event.target.value)}
        />
        <Button look="strong" type="submit">
          Connect
        </Button>
      </div>
      {fault && (
        <p role="alert" className="text-axle">
          {fault}
        </p>
      )}
    </form>
  );
}

function Taken() {
  const { data } = useQuery({
    queryKey: ["instrument log"],
    queryFn: async () => {
      const result = await answer(client.GET("/api/v1/instruments/log"));
      return "data" in result ? result.data : [];
    },
  });
  if (!data || data.length === 0) return null;
  return (
    <section>
      <h3 className="font-semibold">Readings taken</h3>
      <ul className="grid max-h-48 overflow-y-auto text-[15px]" data-taken>
        {data.map((line) => (
          <li key={`${line.at} ${line.field}`} className="border-line border-b py-0.5">
            {new Date(line.at).toLocaleString([], { dateStyle: "short", timeStyle: "short" })}{" "}
            {line.instrument}: <b>{line.reading}</b> into {line.job} {line.field}
          </li>
        ))}
      </ul>
    </section>
  );
}
