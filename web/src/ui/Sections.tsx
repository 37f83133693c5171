import { Tabs } from "radix-ui";
import type { ReactNode } from "react";

export type Section = {
  value: string;
  label: string;
  /** A word of how it stands, such as how many are left. */
  sign?: string;
  content: ReactNode;
};

type SectionsProps = {
  label: string;
  sections: readonly Section[];
  value: string;
  onPick: (value: string) => void;
};

/** What a stage has to say, one part of it open at a time. */
export function Sections({ label, sections, value, onPick }: SectionsProps) {
  return (
    <Tabs.Root value={value} onValueChange={onPick} activationMode="manual">
      <Tabs.List aria-label={label} className="mb-2 flex flex-wrap gap-x-1 border-ink border-b-2">
        {sections.map((section) => (
          <Tabs.Trigger
            key={section.value}
            value={section.value}
            className="settle min-h-11 scroll-mt-20 px-2 py-1 text-left leading-tight data-[state=active]:bg-strip data-[state=active]:font-semibold data-[state=active]:text-on-strip"
          >
            {section.label}
            {section.sign && <span className="block text-[14px] opacity-80">{section.sign}</span>}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {sections.map((section) => (
        <Tabs.Content key={section.value} value={section.value} className="grid gap-3">
          {section.content}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}
