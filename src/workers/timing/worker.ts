import { studyPair } from "@/core/physics/blades/timing-study";
import { answering } from "../asking";
import { type Answer, type Request, requestSchema } from "./protocol";

const answer = ({ number, pairs }: Request): Answer => ({ kind: "studied", number, studies: pairs.map(studyPair) });

answering<Request>((data) => requestSchema.safeParse(data), answer);
