import type { Clearing } from "@/core/job/status";
import type { PanelId } from "../panel-id";

/** Where the screen leads to clear a reason. */
export function panelOf(clears: Clearing): PanelId {
  switch (clears.do) {
    case "read":
      return `check:${clears.check}`;
    case "replace":
      return "fix";
    case "put-back":
      return "put-back";
    case "make-ready":
      return "safe";
    case "refit-deck":
      return "deck";
    case "refit-box":
      return "box";
    case "finish-work":
      return clears.round;
    case "lift":
    case "release":
      return "held";
  }
}
