<script setup lang="ts">
/** The solids a tier is built of, one after another, and the numbers of the one that is looked at. */
import { computed } from "vue";
import type { Solid } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import { useHandbook } from "@/kitchen/handbook";
import KindFields from "@/lenses/parts/KindFields.vue";
import OutlineFile from "@/lenses/parts/OutlineFile.vue";
import SilhouetteIcon from "@/lenses/parts/SilhouetteIcon.vue";
import SilhouetteRow from "@/lenses/parts/SilhouetteRow.vue";
import { choicesOf, kindsOf } from "@/order/kinds";
import { useSolids } from "@/order/solids";
import TierField from "@/order/TierField.vue";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import ChoiceRows from "@/ui/ChoiceRows.vue";
import FractionText from "@/ui/FractionText.vue";

const settings = useSettings();
const handbook = useHandbook();
const { order, build, solids, at, held, from, carving, times, trueSize, most, ...does } = useSolids();
const rows = computed(() => new Map(kindsOf("build/solids").map((row) => [row.kind, row])));
const FROM = [
  { value: "side", words: "From the side" },
  { value: "above", words: "From above" },
] as const;
const listed = computed(() => solids.value.map((one, index) => ({ value: index, one })));
const inHand = computed(() => solids.value[at.value]);
const name = (solid: Solid): string => rows.value.get(solid.kind)?.words ?? solid.kind;
const across = (solid: Solid): string => {
  const mm = "across_mm" in solid ? solid.across_mm : "wide_mm" in solid ? solid.wide_mm : null;
  return mm ? `, ${settings.words({ value: mm, unit: "mm" })}` : "";
};
const roomForMore = computed(() => (build.value?.openings?.length ?? 0) < handbook.limit("openings").high);
const own = computed(() => (carving.value?.own_width ? settings.words(carving.value.own_width) : ""));
const percent = computed(() => Math.round((times.value ?? 1) * 100));

function read(points_mm: [number, number][]): void {
  does.set(`build/solids/${at.value}/points_mm`, points_mm);
}
</script>

<template>
  <h3>Its solids</h3>
  <ChoiceRow label="Where they are seen from" :value="from" :choices="FROM" @change="(way) => (from = way)" />
  <p class="soft">
    Drag one in the drawing, or step to it and use the arrow keys. Each is joined to those before it, or cut
    out of them.
  </p>
  <ChoiceRows
    v-slot="{ choice: { value: index, one } }"
    label="The solid that is looked at"
    :value="at"
    :choices="listed"
    @change="(index) => (held = index)"
  >
    <SilhouetteIcon :icon="rows.get(one.kind)?.icon" :out="one.does === 'cut'" />
    <span
      >{{ index + 1 }}. {{ one.does === "cut" ? "less a " : "" }}{{ name(one)
      }}<FractionText :text="across(one)"
    /></span>
  </ChoiceRows>
  <div class="same four">
    <button class="act" :disabled="solids.length >= most" @click="does.add">Another</button>
    <button class="act" :disabled="solids.length >= most" @click="does.copy(at)">Copy</button>
    <button class="act" :disabled="at < 1" @click="does.earlier(at)">Earlier</button>
    <button class="act" :disabled="solids.length < 2" @click="does.remove(at)">Remove</button>
  </div>
  <template v-if="inHand">
    <h3>Solid {{ at + 1 }}</h3>
    <SilhouetteRow
      :label="`What solid ${at + 1} is`"
      :value="inHand.kind"
      :choices="choicesOf<Solid['kind']>('build/solids')"
      @change="(kind) => does.become(at, kind)"
    />
    <p class="soft">{{ name(inHand) }}</p>
    <OutlineFile v-if="inHand.kind === 'raised'" @read="read" />
    <KindFields :key="`${order.tier}-${at}`" :part="`build/solids/${at}`" :take="does.set" />
    <div v-if="inHand.does === 'cut' && at && trueSize && roomForMore" class="same">
      <button class="act" @click="does.makeOpening(at)">Make it an opening, left empty</button>
    </div>
  </template>
  <h3>All of it</h3>
  <div class="rows">
    <TierField field="tin_diameter_mm" />
  </div>
  <template v-if="!trueSize">
    <p class="soft" role="status">
      It is drawn out to that width: every solid is {{ percent }} % of what is said of it here, which comes to
      {{ own }} in all.
    </p>
    <div class="same">
      <button class="act" @click="does.keepSize">Give every solid the size it is drawn at</button>
    </div>
  </template>
</template>

<style scoped>
.four {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
}

.four .act {
  padding: 0 4px;
}
</style>
