import type { Schemas } from "../../api/client";
import { Assumed } from "../../job/Assumed";
import { Missing } from "../../job/Missing";
import { missingAt, signOfChecks } from "../../job/signs";
import { useJob } from "../../job/useJob";
import { useSwayed } from "../../job/useSwayed";
import { say } from "../../measure/format";
import { Answer } from "../../ui/Answer";
import { Figure } from "../../ui/Figure";
import { type Section, Sections } from "../../ui/Sections";
import { useSettings } from "../../ui/settings";
import { bad, good, measure, mind, plain } from "../../ui/sign";
import { Checks } from "../bracket/Checks";
import { BarInputs } from "./BarInputs";
import { DisconnectInputs } from "./DisconnectInputs";
import { Holes } from "./Holes";
import { LinkInputs } from "./LinkInputs";
import { Links } from "./Links";
import { OldAndNew, OldBarInputs } from "./OldBar";
import { PlannedLink } from "./PlannedLink";
import { RoadAndTrail } from "./RoadAndTrail";
import { Room } from "./Room";
import { RoomInputs } from "./RoomInputs";
import { SplinedInputs } from "./SplinedInputs";

type Swayed = NonNullable<ReturnType<typeof useSwayed>>;

/** Arms, links, holes, the road against the trail, and which way to disconnect. */
export function SwayStage() {
  const { job } = useJob();
  const units = useSettings((s) => s.units);
  const swayed = useSwayed();
  if (!swayed) return <Answer says="Calculating the arms…" />;
  const { links } = swayed;
  const sections = [
    linksSection(swayed),
    holesSection(swayed),
    roadSection(swayed),
    roomSection(swayed),
    disconnectSection(swayed),
    ...(job.sway?.kind && job.sway.kind !== "none" ? [oldSection(swayed)] : []),
  ];
  return (
    <>
      <Answer says={say(swayed.says, units)}>
        {links && (
          <p data-window>
            <Figure>{say(links.window_says, units)}</Figure>
          </p>
        )}
      </Answer>
      <Missing faults={swayed.missing} />
      <PlannedLink />
      <Sections label="Sway results" of="sway" sections={sections} />
    </>
  );
}

const BAR = ["/sway/kind", "/sway/holes", "/sway/diameter", "/sway/active_length"];

function linksSection(swayed: Swayed): Section {
  const { links, missing } = swayed;
  const wanted = missing.length - missingAt(missing, ...BAR).length;
  return {
    value: "links",
    label: "Links",
    sign: links ? (links.fails ? bad("don't work") : good("work")) : measure(),
    wanted,
    results: links && <Links links={links} fits={swayed.fit_says} />,
    inputs: <LinkInputs />,
  };
}

function holesSection(swayed: Swayed): Section {
  const { holes, missing } = swayed;
  const at = holes.findIndex((hole) => hole.in_use);
  return {
    value: "holes",
    label: "Bar, holes",
    sign: holes.length > 0 ? plain(`hole ${at + 1} of ${holes.length}`) : measure(),
    wanted: missingAt(missing, ...BAR).length,
    results: holes.length > 0 && <Holes swayed={swayed} />,
    inputs: <BarInputs />,
  };
}

function roadSection(swayed: Swayed): Section {
  const { vehicle, splined } = swayed;
  const some = (vehicle && vehicle.choices.length > 0) || splined !== undefined;
  const missing = splined?.missing ?? [];
  return {
    value: "road",
    label: "Road, trail",
    sign: some ? plain(`${vehicle?.choices.length ?? 0} ways`) : measure(),
    wanted: missing.length,
    results: some && (
      <>
        <RoadAndTrail swayed={swayed} />
        <Assumed
          assumptions={swayed.assumptions}
          rests="Every rate and roll figure on this screen depends on these."
        />
      </>
    ),
    inputs: <SplinedInputs missing={missing} />,
  };
}

function roomSection(swayed: Swayed): Section {
  const { room } = swayed;
  const tight = room?.gaps.filter((gap) => !gap.clear).length ?? 0;
  return {
    value: "room",
    label: "Clearance",
    sign: roomSign(room?.verdict, tight),
    wanted: room?.missing.length ?? 0,
    results: room && <Room room={room} />,
    inputs: <RoomInputs />,
  };
}

const roomSign = (verdict: Schemas["FitVerdict"] | undefined, tight: number) =>
  verdict === "bad" ? mind(`${tight} tight`) : verdict === "good" ? good("clear") : measure();

function disconnectSection(swayed: Swayed): Section {
  const { checks } = swayed;
  return {
    value: "disconnect",
    label: "Disconnect",
    sign: signOfChecks(checks, "none"),
    results: checks.length > 0 && <Checks title="Disconnects and bolts" checks={checks} />,
    inputs: <DisconnectInputs />,
  };
}

function oldSection(swayed: Swayed): Section {
  const rows = swayed.old_and_new;
  return {
    value: "old",
    label: "Old bar",
    sign: rows.length > 0 ? plain("beside new") : plain("not entered"),
    results: rows.length > 0 && <OldAndNew rows={rows} />,
    inputs: <OldBarInputs />,
  };
}
