import { Detail, DetailNote } from "../../elevation/Detail";
import { useStance } from "../../elevation/stance";
import { useJob } from "../../job/useJob";
import { distance, withMarks } from "../../measure/format";
import { useSettings } from "../../ui/settings";

/** The rail over its axle at every height it stands at, and where the stick has it. */
export function RigDetail() {
  const { results } = useJob();
  const units = useSettings((s) => s.units);
  const { heights, elevation } = results;
  const travel = useStance((s) => s.travel) ?? elevation.driven_travel_mm;
  const driven = heights.find((height) => height.driven);
  return (
    <Detail says={`Ride heights: ${heights.map(({ name }) => name).join(", ")}`}>
      {({ width, height }) => {
        const range = elevation.full_bump_mm - elevation.full_droop_mm;
        const k = (height - 46) / Math.max(range, 1);
        // Bump takes the body down: what stands higher is drawn higher.
        const y = (mm: number) => 14 + (mm - elevation.full_droop_mm) * k;
        const x = width / 2 - 110;
        return (
          <>
            <line
              x1={x - 40}
              x2={x - 40}
              y1={y(elevation.full_droop_mm)}
              y2={y(elevation.full_bump_mm)}
              stroke="var(--ink)"
              strokeWidth={1.5}
            />
            {heights.map(({ name, travel_mm: at, offset_mm: offset }, index) => (
              <g key={name}>
                <line
                  x1={x - 46}
                  x2={x + 70}
                  y1={y(at)}
                  y2={y(at)}
                  stroke="var(--frame)"
                  strokeWidth={1.5}
                  strokeDasharray={name === driven?.name ? undefined : "5 4"}
                />
                <DetailNote x={x + 78 + (index % 2) * 150} y={y(at) + 5} strong={name === driven?.name}>
                  {withMarks(
                    offset === 0
                      ? name
                      : `${name}, ${distance(Math.abs(offset), units)} ${offset > 0 ? "up" : "down"}`,
                  )}
                </DetailNote>
              </g>
            ))}
            <rect
              x={x}
              y={y(travel) - 26}
              width={60}
              height={26}
              fill="var(--frame-soft)"
              stroke="var(--frame)"
              strokeWidth={1.75}
            />
            <rect
              x={x - 30}
              y={height - 16}
              width={160}
              height={12}
              rx={6}
              fill="var(--axle-soft)"
              stroke="var(--axle)"
              strokeWidth={1.75}
            />
          </>
        );
      }}
    </Detail>
  );
}
