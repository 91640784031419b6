import type { Machine } from "@/core/machine";
import { AppError } from "@/data/store/errors";
import { reckonOffThread } from "@/server/reckoning/pool";

/** The same input, once its specification was reckoned with in a thread that can be stopped. Throws `invalid` with `cannot-be-reckoned`. */
export async function triedOut<Input extends { machine: Machine }>(input: Input): Promise<Input> {
  try {
    await reckonOffThread({ kind: "try-out", machine: input.machine });
    return input;
  } catch (cause) {
    if (cause instanceof AppError && cause.code === "reckoning-too-long")
      throw new AppError("invalid", { issues: [{ code: "cannot-be-reckoned", path: ["machine"] }], cause });
    throw cause;
  }
}
