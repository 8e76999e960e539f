<script setup lang="ts">
/** How the tier in hand rises: choosing a build is choosing its silhouette. */
import { computed } from "vue";
import type { Tier } from "@/api/types";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import SilhouetteRow from "@/lenses/parts/SilhouetteRow.vue";
import SameForAll from "@/lenses/parts/SameForAll.vue";
import { useTier } from "@/lenses/parts/tier";
import { newOfKind, choicesOf, kindAt, kindsOf } from "@/order/kinds";
import { useDesk } from "@/ui/desk";

type Build = Tier["build"];

const { order, tier, planned, tierWords, change } = useTier();
const desk = useDesk();
const build = computed(() => tier.value?.build);
const kind = computed(() => (tier.value ? kindAt(tier.value, "build") : undefined));
const foot = computed(() => planned.value?.foot);
const trouble = computed(() => desk.complaintAt(`#/design/tiers/${order.tier}/build`));

const SAME = [{ words: "Straight for every tier", copy: (from: Tier, to: Tier) => (to.build = from.build) }];

function choose(kind: Build["kind"]): void {
  change((tier) => {
    const round = kindsOf("build").find((one) => one.kind === kind)?.round_only;
    if (round && tier.shape.kind !== "round") tier.shape = { kind: "round" };
    tier.build = newOfKind(tier, "build", kind);
  });
}

function alter<K extends Build["kind"]>(kind: K, how: (build: Extract<Build, { kind: K }>) => void): void {
  change((tier) => {
    if (tier.build.kind === kind) how(tier.build as Extract<Build, { kind: K }>);
  });
}

/** A corner halfway between the highest two, on the line between them. */
function addPoint(): void {
  alter("turned", (build) => {
    const last = build.points.at(-1);
    const before = build.points.at(-2);
    if (!last || !before) return;
    const middle = { up: (last.up + before.up) / 2, out: (last.out + before.out) / 2 };
    build.points.splice(build.points.length - 1, 0, middle);
  });
}

function removePoint(): void {
  alter("turned", (build) => void build.points.splice(build.points.length - 2, 1));
}

const share = (value: number): number => Math.round(value * 100);

function setPoint(index: number, field: "up" | "out", event: Event): void {
  const value = Number.parseFloat((event.target as HTMLInputElement).value.replace(",", ".")) / 100;
  alter("turned", (build) => {
    const point = build.points[index];
    if (!point || Number.isNaN(value)) return;
    const low = field === "out" ? 0.05 : (build.points[index - 1]?.up ?? 0) + 0.01;
    const high = field === "out" ? 1 : (build.points[index + 1]?.up ?? 1) - 0.01;
    point[field] = Math.min(high, Math.max(low, value));
  });
  (event.target as HTMLInputElement).value = String(
    share(build.value?.kind === "turned" ? (build.value.points[index]?.[field] ?? 0) : 0),
  );
}
</script>

<template>
  <section v-if="tier && build && kind">
    <h3>How it rises, {{ tierWords }}</h3>
    <SilhouetteRow
      :label="`How the ${tierWords} rises`"
      :value="build.kind"
      :choices="choicesOf<Build['kind']>('build')"
      @change="choose"
    />
    <p class="soft">{{ kind.words[0]?.toUpperCase() + kind.words.slice(1) }}</p>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
    <KindFields part="build" />
    <template v-if="build.kind === 'turned'">
      <p class="soft">
        Drag the points in the drawing, or type them: per cent of the height and of the width.
      </p>
      <div v-for="(point, index) in [...build.points].reverse()" :key="index" class="point">
        <label>
          up
          <input
            type="text"
            inputmode="decimal"
            :value="share(point.up)"
            :disabled="index === 0 || index === build.points.length - 1"
            @change="setPoint(build.points.length - 1 - index, 'up', $event)"
          />
          %
        </label>
        <label>
          out
          <input
            type="text"
            inputmode="decimal"
            :value="share(point.out)"
            @change="setPoint(build.points.length - 1 - index, 'out', $event)"
          />
          %
        </label>
      </div>
      <div class="same two">
        <button class="act" :disabled="build.points.length >= 12" @click="addPoint">Another point</button>
        <button class="act" :disabled="build.points.length <= 2" @click="removePoint">One point fewer</button>
      </div>
    </template>
    <p v-if="planned?.carving" class="soft">What it is carved to is given in Carve.</p>
    <template v-if="foot">
      <FigureRow label="Flat foot, wide" :figure="foot.width" />
      <FigureRow label="Stands, high" :figure="foot.height_left" />
      <FigureRow label="Slice cut off" :figure="foot.slice_weight" />
      <FigureRow label="Falls forward at" :figure="foot.lean_forward" />
      <FigureRow label="Rolls sideways at" :figure="foot.lean_sideways" />
    </template>
    <SameForAll v-if="build.kind === 'straight'" :ways="SAME" />
  </section>
</template>

<style scoped>
.point {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  border-bottom: 1px solid var(--rule);
}

.point label {
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 8px;
  min-height: 43px;
}

.point input {
  width: 4ch;
  height: 36px;
  font: 600 18px var(--serif);
  text-align: right;
}

.point input:disabled {
  border-color: transparent;
  color: var(--soft);
}
</style>
