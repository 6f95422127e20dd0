/** What a part of the page shows when it breaks: never a blank page, and a way on. */
import { Component, lazy, type ComponentType, type ReactElement, type ReactNode } from "react";

import { Trouble } from "./Trouble";

interface Props {
  children: ReactNode;
}

export class Boundary extends Component<Props, { error: unknown }> {
  override state: { error: unknown } = { error: null };

  static getDerivedStateFromError(error: unknown): { error: unknown } {
    return { error };
  }

  override render(): ReactNode {
    if (this.state.error === null) return this.props.children;
    return (
      <div className="p-8">
        <Trouble error={this.state.error} again={() => this.setState({ error: null })} />
      </div>
    );
  }
}

const AGAIN_MS = 1500;

/**
 * A part of the page that is fetched later: tried again until the network is back, so that it never
 * comes as an error.
 */
async function untilThere<T>(load: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await load();
    } catch {
      await new Promise((again) => setTimeout(again, AGAIN_MS));
    }
  }
}

const later: (() => Promise<unknown>)[] = [];

/** A part that is loaded when it is opened, or ahead of that by `fetchAhead`. */
export function part<P extends object>(
  load: () => Promise<ComponentType<P>>,
): ComponentType<P> & { (props: P): ReactElement | null } {
  later.push(load);
  return lazy(() =>
    untilThere(load).then((m) => ({ default: m })),
  ) as unknown as ComponentType<P> & {
    (props: P): ReactElement | null;
  };
}

/** Fetch every later part while there is a network, so that losing it takes nothing away. */
export function fetchAhead(): void {
  const go = (): void => later.forEach((load) => void load().catch(() => undefined));
  if ("requestIdleCallback" in window) window.requestIdleCallback(go, { timeout: 4000 });
  else setTimeout(go, 1500);
}
