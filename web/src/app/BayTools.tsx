import { ArchiveRestore, Download, GraduationCap, NotebookPen, Plus, Upload, Wrench } from "lucide-react";
import { useRef } from "react";
import { Link } from "react-router";
import { Button } from "../ui/Button";

const LOOK =
  "settle inline-flex min-h-11 items-center gap-2 rounded-[3px] border-[1.5px] border-ink bg-slate px-3 py-1.5 hover:bg-paper";

const PLACES = [
  { to: "/parts", icon: Wrench, name: "Parts library" },
  { to: "/log", icon: NotebookPen, name: "The log" },
  { to: "/practice", icon: GraduationCap, name: "Practice" },
] as const;

type BayToolsProps = {
  onNew: () => void;
  onFile: (file: File | undefined) => void;
  onRemoved: () => void;
};

/** A new job, files in and out, and the other rooms. */
export function BayTools({ onNew, onFile, onRemoved }: BayToolsProps) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <div className="flex flex-wrap gap-2">
      <Button look="strong" onClick={onNew}>
        <Plus size={18} aria-hidden />
        New job
      </Button>
      <Button onClick={() => file.current?.click()}>
        <Upload size={18} aria-hidden />
        Open job files
      </Button>
      {PLACES.map(({ to, icon: Icon, name }) => (
        <Link key={to} to={to} className={LOOK}>
          <Icon size={18} aria-hidden />
          {name}
        </Link>
      ))}
      <a href="/api/v1/shop.zip" download className={LOOK}>
        <Download size={18} aria-hidden />
        All jobs as a zip
      </a>
      <Button onClick={onRemoved}>
        <ArchiveRestore size={18} aria-hidden />
        Taken out
      </Button>
      <input
        ref={file}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        className="hidden"
        aria-label="Job file"
        onChange={(event) => onFile(event.target.files?.[0])}
      />
    </div>
  );
}
