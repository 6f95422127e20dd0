/** Whether a proposal is as it was sealed; nothing is said of one that is. */
import type { ReactElement } from "react";

import { message, say } from "../../app/language";
import { StateMark } from "../../ui/marks";

const WORDS: Record<string, string> = {
  broken: message(
    "This proposal was changed after it was sealed. Do not rely on it: ask the firm for it.",
  ),
  none: message("No seal: it was written before there were seals, or the seal was taken away."),
  unknown_key: message(
    "The seal of this proposal cannot be checked: its key is not known to this server.",
  ),
};

export function Seal({
  standing,
  state,
}: {
  standing: string;
  state: string;
}): ReactElement | null {
  const words = WORDS[standing];
  if (!words || state === "brought_in") return null;
  return (
    <p
      role="alert"
      className={
        "max-w-[1040px] mx-auto my-4 flex gap-3 items-center border-[1.5px] border-ink bg-slip " +
        "p-4 font-semibold"
      }
    >
      <StateMark kind="no" size={22} />
      {say(words)}
    </p>
  );
}
