import { withMarks } from "../measure/format";

const FRACTION = /(\d+\/\d+)/;

type FigureProps = {
  children: string;
  /** Where it is so narrow that a figure must part from its unit, not to be cut within it. */
  narrow?: boolean;
};

/** Text in which fractions are set as fractions. */
export function Figure({ children, narrow = false }: FigureProps) {
  const text = withMarks(children);
  const parts = (narrow ? text.replaceAll("\u00a0mm", " mm") : text).split(FRACTION);
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
