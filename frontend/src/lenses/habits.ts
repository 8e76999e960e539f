/** The kitchen's usual values that can be changed for an order, in the order of the work. */
import type { Practice } from "@/api/types";

type Habit = Exclude<keyof Practice, "techniques">;

export const HABITS: readonly { name: Habit; words: string; limit: string; percent?: boolean }[] = [
  { name: "trimmed_skin_mm", words: "Skin trimmed off, each side", limit: "trimmed_skin_mm" },
  { name: "filling_mm", words: "Filling", limit: "filling_thickness_mm" },
  { name: "filling_least_mm", words: "Thinnest filling", limit: "filling_thickness_mm" },
  { name: "filling_most_mm", words: "Thickest filling", limit: "filling_thickness_mm" },
  { name: "seal_mm", words: "Seal under a soft filling", limit: "seal_thickness_mm" },
  { name: "cut_least_mm", words: "Thinnest layer worth cutting", limit: "layer_height_mm" },
  { name: "crumb_coat_mm", words: "Crumb coat", limit: "coat_thickness_mm" },
  { name: "coat_side_mm", words: "Final coat, side", limit: "coat_thickness_mm" },
  { name: "coat_top_mm", words: "Final coat, top", limit: "coat_thickness_mm" },
  { name: "coat_least_mm", words: "Thinnest coat that hides crumbs", limit: "coat_thickness_mm" },
  { name: "fondant_mm", words: "Fondant", limit: "fondant_thickness_mm" },
  { name: "overlap_mm", words: "Beyond the hem, all round", limit: "overlap_mm" },
  { name: "tier_board_mm", words: "Board under an upper tier", limit: "board_thickness_mm" },
  { name: "base_board_mm", words: "Base board", limit: "board_thickness_mm" },
  { name: "base_margin_mm", words: "Base board beyond the cake", limit: "board_margin_mm" },
  { name: "cake_density_g_per_ml", words: "Baked cake weighs", limit: "density_g_per_ml" },
  { name: "weigh_step_g", words: "Weigh amounts to", limit: "weigh_step_g" },
  { name: "run_out_risk", words: "Risk of running short", limit: "run_out_risk", percent: true },
];
