import { changing } from "@/app/api/answer";
import { newComplaintSchema, takeComplaint } from "@/data/job/complaints";

export function POST(request: Request) {
  return changing(request, newComplaintSchema, takeComplaint);
}
