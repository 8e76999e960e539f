<script setup lang="ts">
/** A body out of a 3D file: which file, in what unit and which way up, and to what size it is made. */
import { ref, watch } from "vue";
import { answered, api, asIs, wordsOf } from "@/api/client";
import { within } from "@/base/round";
import { useHandbook } from "@/kitchen/handbook";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import FileButton from "@/lenses/parts/FileButton.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import { useTier } from "@/lenses/parts/tier";
import { useCarving } from "@/order/carving";
import TierField from "@/order/TierField.vue";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import MeasureField from "@/ui/MeasureField.vue";

type Unit = "mm" | "cm" | "in" | "m";
type Up = "x" | "y" | "z";
const UNITS: readonly { value: Unit; words: string }[] = (["mm", "cm", "in", "m"] as const).map((unit) => ({
  value: unit,
  words: unit,
}));
const UPS: readonly { value: Up; words: string }[] = (["z", "y", "x"] as const).map((up) => ({
  value: up,
  words: `${up} is up`,
}));
const settings = useSettings();
const handbook = useHandbook();
const { order, tier, planned, change } = useTier();
const { carving } = useCarving();
const unit = ref<Unit>("mm");
const up = ref<Up>("z");
const file = ref<File>();
const reading = ref("");
const said = ref<string[]>([]);
const wrong = ref("");

function choose(chosen: File): void {
  file.value = chosen;
  void read();
}

/** The file is read again where its unit, or which way is up in it, is said anew. */
watch([unit, up], () => void read());

async function read(): Promise<void> {
  const chosen = file.value;
  if (!chosen) return;
  const index = order.tier;
  [said.value, wrong.value, reading.value] = [[], "", `Reading ${chosen.name} …`];
  try {
    const found = await answered(
      api.POST("/api/model", {
        params: { query: { unit: unit.value, up: up.value } },
        ...asIs(await chosen.arrayBuffer(), "application/octet-stream"),
      }),
    );
    const { low, high } = handbook.limit("tin_diameter_mm");
    order.edit((draft) => {
      const tier = draft.design.tiers[index];
      if (tier?.build.kind !== "modelled") return;
      Object.assign(tier.build, { mesh: found.mesh, error_mm: found.error_mm, turn_deg: 0 });
      tier.tin_diameter_mm = within(low, Math.round(found.width_mm * 100) / 100, high);
    });
    const triangles = `${chosen.name}: ${found.brought.toLocaleString("en")} triangles.`;
    said.value = [triangles, ...found.notes];
  } catch (error) {
    wrong.value = wordsOf(error, "The file could not be sent just now. Try again.");
  } finally {
    reading.value = "";
  }
}

/** Make the body so wide that it comes to a height, a volume or so many portions; rounded up, so that it makes them. */
async function make(wanted: { height_mm?: number; volume_ml?: number; portions?: number }): Promise<void> {
  const build = tier.value?.build;
  const practice = order.document?.practice;
  if (build?.kind !== "modelled" || !practice) return;
  const { low, high } = handbook.limit("tin_diameter_mm");
  try {
    const body = { build, practice, ...wanted };
    const { width_mm } = await answered(api.POST("/api/width", { body }));
    const whole = (wanted.portions ? Math.ceil(width_mm * 100) : Math.round(width_mm * 100)) / 100;
    wrong.value =
      whole < low || whole > high
        ? `It would be ${settings.words({ value: whole, unit: "mm" })} wide; a tier is ${settings.words({ value: low, unit: "mm" })} to ${settings.words({ value: high, unit: "mm" })}.`
        : "";
    if (!wrong.value) change((tier) => (tier.tin_diameter_mm = whole));
  } catch (error) {
    wrong.value = wordsOf(error, "The size could not be worked out just now. Try again.");
  }
}
</script>

<template>
  <h3>The file</h3>
  <ChoiceRow label="The file's unit" :value="unit" :choices="UNITS" @change="(one) => (unit = one)" />
  <ChoiceRow label="Which way is up in it" :value="up" :choices="UPS" @change="(one) => (up = one)" />
  <FileButton
    class="file"
    :words="file ? 'Bring another 3D file' : 'Bring a 3D file'"
    accept=".stl,.obj,.ply,.3mf"
    @file="choose"
  />
  <p class="soft">STL, OBJ, PLY or 3MF, at most 24 MB. Until one is brought the body is a river stone.</p>
  <p v-if="reading" aria-live="polite">{{ reading }}</p>
  <p v-for="words in said" :key="words" role="status" class="soft">{{ words }}</p>
  <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  <template v-if="carving?.kept">
    <FigureRow label="Triangles kept" :figure="carving.kept.triangles" />
    <FigureRow label="No farther from the file than" :figure="carving.kept.error" />
    <FigureRow label="In the order's file, thousand bytes" :figure="carving.kept.size" />
  </template>
  <h3>Made to a size</h3>
  <div class="rows">
    <TierField field="tin_diameter_mm" />
    <MeasureField
      label="High"
      limit="solid_mm"
      :value="planned?.layers.height.value"
      @change="(mm) => mm && make({ height_mm: mm })"
    />
    <MeasureField
      label="Of a volume"
      limit="body_ml"
      :value="carving?.volume.value"
      @change="(ml) => ml && make({ volume_ml: ml })"
    />
    <MeasureField
      label="For portions"
      limit="servings"
      :value="planned?.stack.portions.value"
      @change="(count) => count && make({ portions: count })"
    />
  </div>
  <KindFields part="build" :only="['turn_deg']" />
</template>

<style scoped>
.file {
  margin-top: 10px;
}

fieldset + fieldset {
  margin-top: 8px;
}
</style>
