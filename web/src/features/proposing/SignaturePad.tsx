/** Sign with a finger or a mouse: strokes are kept as a path. */
import { useRef, useState, type PointerEvent, type ReactElement } from "react";
import { say } from "../../app/language";

export function SignaturePad({
  path,
  onPath,
}: {
  path: string;
  onPath: (p: string) => void;
}): ReactElement {
  const box = useRef<SVGSVGElement>(null);
  const [drawing, setDrawing] = useState(false);
  const at = (e: PointerEvent): string => {
    const r = box.current!.getBoundingClientRect();
    const x = Math.round(((e.clientX - r.left) / r.width) * 600);
    return `${x},${Math.round(((e.clientY - r.top) / r.height) * 160)}`;
  };
  return (
    <svg
      ref={box}
      viewBox="0 0 600 160"
      className={
        "w-full bg-slip border-[1.5px] border-ink rounded-[10px] touch-none cursor-crosshair"
      }
      style={{ height: 160 }}
      role="img"
      aria-label={path ? say("Signed") : say("Sign here")}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        setDrawing(true);
        onPath(`${path}${path ? " " : ""}M${at(e)}`);
      }}
      onPointerMove={(e) => {
        if (drawing && path.length < 59_000) onPath(`${path} L${at(e)}`);
      }}
      onPointerUp={() => setDrawing(false)}
      onPointerCancel={() => setDrawing(false)}
    >
      <path d="M30,124H570" stroke="var(--rule)" strokeWidth={2} />
      {!path && (
        <text x={300} y={112} textAnchor="middle" fontSize={17} style={{ fill: "var(--ink-3)" }}>
          {say("sign here")}
        </text>
      )}
      <path
        d={path}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={3}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
