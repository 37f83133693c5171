/** How a list the core gave stands, as a sign of its section: picked, never judged anew. */
import type { FieldError, Schemas } from "../api/client";
import { bad, good, measure, plain, type Sign } from "../ui/sign";

type Check = Pick<Schemas["FitCheck"], "verdict">;

/** Bad ones first, then those nobody looked at. */
export function signOfChecks(checks: readonly Check[], none = "nothing to check"): Sign {
  const count = (verdict: Check["verdict"]) => checks.filter((check) => check.verdict === verdict).length;
  if (count("bad") > 0) return bad(`${count("bad")} not good`);
  if (count("open") > 0) return measure(`${count("open")} to check`);
  return checks.length > 0 ? good("good") : plain(none);
}

/** The faults whose field lies at one of these places. */
export const missingAt = (faults: readonly FieldError[], ...places: string[]) =>
  faults.filter((fault) => places.some((place) => fault.pointer.startsWith(place)));
