/** What is drunk until somebody has answered: alone, ahead of everything that can wait. */
import type { ReactElement } from "react";

export function Emergency({ said }: { said: readonly string[] }): ReactElement | null {
  const [first] = said;
  return first === undefined ? null : <p className="font-semibold text-l mb-2">{first}</p>;
}
