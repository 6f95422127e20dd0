/**
 * A meter on a wire: its display streams in; a dropped stream comes back by itself and goes on
 * where it was.
 */
import { useEffect, useState, type ReactElement } from "react";
import { say } from "../../app/language";

interface Look {
  n: number;
  display: number;
  multiplier: number;
  temperature_c: number;
  steady: boolean;
}

export function WireMeter({
  visit,
  sample,
  onTake,
}: {
  visit: string;
  sample: string;
  onTake: (display: number) => void;
}): ReactElement {
  const [look, setLook] = useState<Look | null>(null);
  const [lost, setLost] = useState(false);
  useEffect(() => {
    const stream = new EventSource(`/api/visits/${visit}/standins/meter/${sample}`);
    stream.onmessage = (e: MessageEvent<string>) => {
      setLost(false);
      setLook(JSON.parse(e.data) as Look);
    };
    stream.onerror = () => setLost(true);
    return () => stream.close();
  }, [visit, sample]);
  const warmth = look ? `, ${look.temperature_c} °C` : "";
  return (
    <div
      className="border-[1.5px] border-ink rounded-[10px] p-2 w-[192px] bg-slip"
      role="group"
      aria-label={say("Meter on the wire, simulated")}
    >
      <p className="text-s text-ink-2">
        {say("simulated meter{x}", {
          x: lost ? say(", reconnecting") : warmth,
        })}
      </p>
      <p className="num text-[30px] leading-none">
        {look ? look.display : "–"}
        <span className="text-s font-t font-normal text-ink-2 ml-1">
          {say("mg/L")}
          {look && look.multiplier > 1 ? " x10" : ""}
        </span>
      </p>
      <div className="flex gap-1 mt-1">
        <button
          type="button"
          className="key"
          style={{ minHeight: 44, padding: "0 8px", fontSize: 15, flex: 1 }}
          disabled={!look?.steady}
          onClick={() => {
            if (look) onTake(look.display);
          }}
        >
          {look?.steady ? say("Take it") : "settling"}
        </button>
      </div>
    </div>
  );
}
