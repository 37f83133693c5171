import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, client, type Job, type Schemas } from "../../api/client";
import { useJob } from "../../job/useJob";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";

type Offer = Schemas["Offer"];

/** Puts a value into a field of a part of the job. */
const put =
  ({ pointer, value }: Offer) =>
  (job: Job): Job => {
    const [part = "", field = ""] = pointer.slice(1).split("/");
    const old = job[part as keyof Job];
    return { ...job, [part]: { ...(typeof old === "object" ? old : {}), [field]: value } } as Job;
  };

/** What the job at the other end of this vehicle knows: offered, never taken unseen. */
export function OtherEnd() {
  const { view, change } = useJob();
  const { data } = useQuery({
    queryKey: ["other end", view.id, view.revision],
    queryFn: async () => {
      const params = { path: { id: view.id } };
      const result = await answer(client.GET("/api/v1/jobs/{id}/other-end", { params }));
      return "data" in result ? result.data : [];
    },
  });
  return (
    <>
      {data?.map((other) => (
        <Fold key={other.id} title={`The other axle: ${other.title} (${other.offers.length} values to copy)`}>
          <p className="mb-1">
            <Link className="inline-flex min-h-11 items-center underline" to={`/jobs/${other.id}/rig`}>
              Open {other.title}
            </Link>
          </p>
          {other.offers.some((offer) => offer.here === "") && (
            <Button
              onClick={() =>
                change((job) =>
                  other.offers
                    .filter((offer) => offer.here === "")
                    .reduce((now, offer) => put(offer)(now), job),
                )
              }
            >
              Copy everything missing here
            </Button>
          )}
          <ul className="grid" data-offers={other.offers.length}>
            {other.offers.map((offer) => (
              <li
                key={offer.pointer}
                className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-2 border-line border-b py-1"
              >
                <span className="leading-tight">
                  {offer.name}: <b>{offer.there}</b>
                  <span className="block text-[15px] text-muted">
                    {offer.here ? `here ${offer.here}` : "not said here"}
                  </span>
                </span>
                <Button aria-label={`copy ${offer.name}`} onClick={() => change(put(offer))}>
                  Copy
                </Button>
              </li>
            ))}
          </ul>
        </Fold>
      ))}
    </>
  );
}
