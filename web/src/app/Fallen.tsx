import { Component, type ReactNode } from "react";
import { Button } from "../ui/Button";

/** Stands in for a screen that broke: what was typed is on the device and comes back. */
export class Fallen extends Component<{ children: ReactNode }, { fault: string | null }> {
  override state = { fault: null as string | null };

  static getDerivedStateFromError(error: unknown) {
    return { fault: error instanceof Error ? error.message : String(error) };
  }

  override render() {
    if (this.state.fault === null) return this.props.children;
    return (
      <main
        role="alert"
        className="grid h-full place-content-center justify-items-center gap-3 p-6 text-center"
      >
        <h1 className="font-bold text-[34px]">Something broke on this screen</h1>
        <p>What you typed is saved on this device. Reload the page to carry on.</p>
        <p className="text-muted">{this.state.fault}</p>
        <Button look="strong" onClick={() => location.reload()}>
          Reload
        </Button>
      </main>
    );
  }
}
