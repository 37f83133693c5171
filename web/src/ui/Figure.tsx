import { withMarks } from "../measure/format";

const FRACTION = /(\d+\/\d+)/;

/** Text in which fractions are set as fractions. */
export function Figure({ children }: { children: string }) {
  const parts = withMarks(children).split(FRACTION);
  return (
    <>
      {parts.map((part, index) =>
        FRACTION.test(part) ? (
          <span key={index} className="fraction">
            {part}
          </span>
        ) : (
          part
        ),
      )}
    </>
  );
}
