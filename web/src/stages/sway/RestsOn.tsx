/** The mark of figures that rest on what nobody measured. */
export function RestsOn({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <p className="text-[15px] text-muted">
      Depends on {count} typical value{count === 1 ? "" : "s"} not measured, listed under Road, trail.
    </p>
  );
}
