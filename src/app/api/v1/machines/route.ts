import { changing, reading } from "@/app/api/answer";
import { triedOut } from "@/app/api/tried-out";
import { addMachine, listMachines, newMachineSchema, spoiltMachines } from "@/data/machine/machines";

export function GET(request: Request) {
  return reading(request, (db) => ({ machines: listMachines(db), spoilt: spoiltMachines(db) }));
}

export function POST(request: Request) {
  return changing(request, newMachineSchema, addMachine, triedOut);
}
