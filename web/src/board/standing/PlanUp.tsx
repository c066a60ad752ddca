import type { RefObject } from "react";

/** Which way up on the plan is, as one looks at the building; turned without React as the eye turns. */
export function PlanUp({ arrow }: { arrow: RefObject<SVGGElement | null> }) {
  return (
    <svg
      className="pointer-events-none absolute right-3 top-20 text-ink"
      width="46"
      height="58"
      viewBox="-23 -23 46 58"
      role="img"
      aria-label="Which way up on the plan is"
    >
      <circle r="17" fill="#fdfcfa" fillOpacity="0.8" stroke="currentColor" strokeWidth="1" />
      <g ref={arrow} stroke="currentColor" strokeWidth="1.6" fill="none" strokeLinecap="round">
        <path d="M0 11V-11M-4.5 -5.5L0 -11L4.5 -5.5" />
      </g>
      <text y="31" textAnchor="middle" fontSize="10.5" fill="currentColor">
        plan’s up
      </text>
    </svg>
  );
}
