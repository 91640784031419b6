"use client";

import dynamic from "next/dynamic";
import { type ComponentProps, useEffect, useRef, useState } from "react";

const Trend = dynamic(() => import("./trend").then((module) => module.Trend), { ssr: false, loading: () => null });

/** So far before it comes into view a chart is fetched and drawn. */
const AHEAD = "300px";

/** A chart that costs nothing until one scrolls to it. */
export function LazyTrend(args: ComponentProps<typeof Trend>) {
  const place = useRef<HTMLDivElement>(null);
  const [isNear, setNear] = useState(false);
  useEffect(() => {
    const here = place.current;
    if (!here) return;
    const watch = new IntersectionObserver(([entry]) => entry?.isIntersecting && setNear(true), { rootMargin: AHEAD });
    watch.observe(here);
    return () => watch.disconnect();
  }, []);
  return (
    <div ref={place} className="min-h-64">
      {isNear && <Trend {...args} />}
    </div>
  );
}
