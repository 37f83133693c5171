/** The mark of figures that rest on what nobody measured. */
export function RestsOn({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <p className="text-[15px] text-muted">
      Rests on {count} usual figure{count === 1 ? "" : "s"} that nobody measured, listed under Road, trail.
    </p>
  );
}
