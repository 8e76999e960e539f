/** Hands and places: who works in the kitchen and when, and what it has room for. Kept by the server. */
import { defineStore } from "pinia";
import { answered, api } from "@/api/client";
import { complaintWords } from "@/api/complaint";
import type { KeptPlaces, Places } from "@/api/types";
import { useKept } from "./kept";

export type Hands = Places["hands"][number];
export type WorkingDay = NonNullable<Hands["week"][number]>;
export type ColdShelf = Places["fridge"][number];

export const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const;

/** What a pair of hands is called: by its name, or by its number. */
export const handsName = (hands: Hands, index: number): string => hands.name || `Hands ${index + 1}`;

export const usePlaces = defineStore("places", () => {
  const { whole: places, ...kept } = useKept<KeptPlaces, Places>({
    what: "places",
    ask: async () => (await answered(api.GET("/api/places"))) as KeptPlaces,
    send: async (began_from, places) =>
      (await answered(api.PUT("/api/places", { body: { began_from, places } }))) as KeptPlaces,
    of: (found) => found.places,
    say: (complaint) => complaintWords(complaint),
    away: "Hands and places could not be read just now.",
  });

  /** What is wrong with something in the places, or with a part of it unless it is meant `alone`; or nothing. */
  function wrongAt(pointer: string, alone = false): string {
    const found = kept.complaints.value.find(
      (one) => one.pointer === pointer || (!alone && one.pointer.startsWith(`${pointer}/`)),
    );
    return found ? complaintWords(found) : "";
  }

  return { places, wrongAt, ...kept };
});
