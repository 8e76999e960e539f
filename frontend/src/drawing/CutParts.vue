<script setup lang="ts">
/** The cut half, every part in its own material, the heaviest line round each tier; and what stands on both halves. */
import { computed } from "vue";
import type { Part, Plan } from "@/api/types";
import { useDesk } from "@/ui/desk";
import { boxOf } from "./annotations";
import { path, type Sheet, shifted, xAt, yAt } from "./layout";
import { type Finish, useMaterials } from "./materials";
import { shine } from "./plate";
import { hexOf } from "./tone";

const props = defineProps<{
  plan: Plan;
  sheet: Sheet;
  /** The place whose figures are lit. */
  lit: string;
  /** Whether the tier of a place steps back, another being in hand. */
  back: (place: string) => boolean;
}>();
const emit = defineEmits<{ choose: [place: string] }>();
const desk = useDesk();
const { looks } = useMaterials();

const parts = computed(() =>
  looks(props.plan.section.parts).map((part) => ({
    ...part,
    d: part.kind === "dam" ? bead(part) : path(part.outline, props.sheet),
    /** What shows at the corners a rounded bead leaves. */
    behind: part.kind === "dam" ? path(part.outline, props.sheet) : "",
    glint: glintOf(part, part.finish),
  })),
);
/** Borders and pieces on the top, on the finished half and on the cut one. */
const added = computed(() =>
  props.plan.section.added.map((part) => ({
    ...part,
    hex: hexOf(part.paint),
    d: path(part.outline, props.sheet, true) + path(part.outline, props.sheet),
    behind: "",
    over: "",
    baked: false,
    glint: "",
  })),
);
/** A dam is a bead: what is a rectangle in the cut has its corners rounded. */
function bead(part: Part): string {
  if (part.outline.length !== 4) return path(part.outline, props.sheet);
  const { x0, x1, z0, z1 } = boxOf(part.outline);
  const [left, right, top, bottom] = [
    xAt(props.sheet, x0),
    xAt(props.sheet, x1),
    yAt(props.sheet, z1),
    yAt(props.sheet, z0),
  ];
  const r = Math.min(right - left, bottom - top) * 0.38;
  return (
    `M${left + r} ${top}H${right - r}a${r} ${r} 0 0 1 ${r} ${r}V${bottom - r}a${r} ${r} 0 0 1 ${-r} ${r}` +
    `H${left + r}a${r} ${r} 0 0 1 ${-r} ${-r}V${top + r}a${r} ${r} 0 0 1 ${r} ${-r}Z`
  );
}
function glintOf(part: Part, finish: Finish): string {
  const far = { curd: 0.55, seeds: 0.3, gloss: 0.92, strokes: 0, plain: 0 }[finish];
  if (!far || !["filling", "final", "crumb"].includes(part.kind)) return "";
  const { x0, x1, z0, z1 } = boxOf(part.outline);
  const { sheet } = props;
  if (part.kind === "filling")
    return shine(xAt(sheet, x0), xAt(sheet, x1), yAt(sheet, z1), yAt(sheet, z0), far);
  return shine(xAt(sheet, 0), xAt(sheet, x1), yAt(sheet, z1), yAt(sheet, z1) + 7, far);
}
/** What colour shows beside the beads of a tier: that of its filling. */
const beside = computed(
  () => new Map(parts.value.filter(({ kind }) => kind === "filling").map(({ place, hex }) => [place, hex])),
);
/** What hidden cavities hold, where it was said. */
const rooms = computed(() =>
  props.plan.tiers.flatMap(({ id, layers, foot }) => {
    const place = `tiers.${id}.layers`;
    const hollow = parts.value.filter(
      (part) => part.place.startsWith(place) && boxOf(part.outline).x0 > 0.5 && part.kind !== "dam",
    );
    if (!layers.cavity || foot || !hollow.length) return [];
    const boxes = hollow.map((part) => boxOf(part.outline));
    const [z0, z1] = [Math.min(...boxes.map((box) => box.z0)), Math.max(...boxes.map((box) => box.z1))];
    const half = Math.min(...boxes.map((box) => box.x0));
    const outline = [
      [0, z0],
      [half, z0],
      [half, z1],
      [0, z1],
    ];
    const off = hollow[0]?.off;
    return [{ place, off, full: layers.cavity.fill_weight !== null, d: path(outline, props.sheet) }];
  }),
);
const cuts = computed(() =>
  props.plan.section.tiers.map((tier) => ({
    place: tier.place,
    off: tier.off,
    d: path(tier.outline, props.sheet),
  })),
);
</script>

<template>
  <template v-for="(group, number) in [parts, added]" :key="number">
    <g
      v-for="(part, index) in group"
      :key="index"
      class="part"
      :class="[part.kind, { lit: lit === part.place, back: back(part.place) }]"
      :transform="shifted(part.off, sheet)"
      v-on="desk.lights(part.place)"
      @click="emit('choose', part.place)"
    >
      <path v-if="part.behind" :d="part.behind" :fill="beside.get(part.place) ?? part.hex" />
      <path :d="part.d" :fill="part.hex" />
      <path v-if="part.over" :d="part.d" :fill="part.over" />
      <path v-if="part.baked" :d="part.d" fill="url(#baked)" />
      <path v-if="part.glint" class="glint" :d="part.glint" />
      <path :d="part.d" fill="none" class="edge" />
    </g>
    <template v-if="number === 0">
      <g
        v-for="room in rooms"
        :key="room.place"
        class="room"
        :class="{ back: back(room.place) }"
        :transform="shifted(room.off, sheet)"
      >
        <path class="dark" :d="room.d" />
        <path v-if="room.full" :d="room.d" fill="url(#sweets)" />
      </g>
      <path
        v-for="tier in cuts"
        :key="tier.place"
        class="cut"
        :class="{ back: back(tier.place) }"
        :d="tier.d"
        :transform="shifted(tier.off, sheet)"
      />
    </template>
  </template>
</template>

<style scoped>
.part {
  cursor: pointer;
}

.back {
  opacity: 0.8;
}

.edge {
  stroke: var(--ink);
  stroke-width: 0.9;
}

.sponge .edge {
  stroke-width: 1.3;
}

.board .edge {
  stroke-width: 1.6;
}

.part.lit .edge {
  stroke: var(--amber);
  stroke-width: 3;
}

.glint {
  stroke: #fff6dc;
  stroke-width: 1.6;
  stroke-linecap: round;
  opacity: 0.85;
}

.cut {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.8;
  pointer-events: none;
}

.room {
  pointer-events: none;
}

.dark {
  fill: #4a2a14;
  opacity: 0.42;
}
</style>
