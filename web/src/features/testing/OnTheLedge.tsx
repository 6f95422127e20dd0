/** The thing in the hand stands on the ledge, nearer than the glasses. */
import { createPortal } from "react-dom";
import { useEffect, useState, type ReactElement, type ReactNode } from "react";

function useFrame(): Element | null {
  const [host, setHost] = useState<Element | null>(null);
  useEffect(() => {
    // the screen's own frame: it is there once this part has been laid out
    const frame = document.querySelector(".screen");
    setHost(frame);
  }, []);
  return host;
}

/** The step's own key, at the right end of the ledge. */
export function AtLedgeEnd({ children }: { children: ReactNode }): ReactElement | null {
  const host = useFrame();
  return host && createPortal(<div className="ledge-end">{children}</div>, host);
}

export function OnTheLedge({ children }: { children: ReactNode }): ReactElement | null {
  const host = useFrame();
  if (!host) return null;
  return createPortal(<div className="on-the-ledge">{children}</div>, host);
}
