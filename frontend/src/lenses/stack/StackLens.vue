<script setup lang="ts">
/** How the tier in hand stands, what that bears, and how the whole is held, driven and served. */
import { computed } from "vue";
import type { JointPlan, Tier } from "@/api/types";
import { useSettings } from "@/kitchen/settings";
import FigureRow from "@/lenses/parts/FigureRow.vue";
import KindFields from "@/lenses/parts/KindFields.vue";
import KitNeeds from "@/lenses/parts/KitNeeds.vue";
import LensHead from "@/lenses/parts/LensHead.vue";
import LensNotes from "@/lenses/parts/LensNotes.vue";
import SameForAll from "@/lenses/parts/SameForAll.vue";
import { useTier } from "@/lenses/parts/tier";
import { useJoint } from "@/order/joints";
import { newOfKind, choicesOf } from "@/order/kinds";
import ChoiceRow from "@/ui/ChoiceRow.vue";
import CuttingRows from "./CuttingRows.vue";
import GlueField from "./GlueField.vue";
import StackCards from "./StackCards.vue";
import SupportSchools from "./SupportSchools.vue";
import WholeStack from "./WholeStack.vue";

const settings = useSettings();
const { order, tier, change } = useTier();
const { below, inside, above, own, joint, supports, place, setPlaces } = useJoint();
const stand = computed(() => tier.value?.stand);
const detail = computed(() => {
  if (!own.value) return "It stands on the base board";
  const { count, many } = own.value;
  return `${own.value.inside ? "Its hidden board" : "It"} stands on ${count.value} ${many}`;
});
/** A sort of which fewer are enough, where many weak ones are asked for. */
const stronger = computed(() => own.value?.stronger);
/** What the most loaded support of a joint carries. */
const mostOf = (one: JointPlan) =>
  Object.values(one.supports)
    .map((support) => support.carries)
    .toSorted((a, b) => b.value - a.value)[0];

function takeStronger(): void {
  const sort = stronger.value?.sort;
  if (sort) change((tier) => (tier.stand.sort = sort));
}

const refused = computed(() =>
  supports.value.flatMap(([, one], index) =>
    one.refused && one.nearest ? [{ index, x: one.nearest[0], y: one.nearest[1] }] : [],
  ),
);

function setKind(kind: Tier["stand"]["kind"]): void {
  change((tier) => (tier.stand = newOfKind(tier, "stand", kind)));
}

/** From where the rule put them, each to be moved by itself. */
function setFree(): void {
  setPlaces(supports.value.map(([, one]) => [one.x, one.y]));
}

const PLACED = ["inset_mm", "apart_mm"];
const SAME = [
  { words: "Let every tier stand like this", copy: (from: Tier, to: Tier) => (to.stand = from.stand) },
];
</script>

<template>
  <section v-if="tier && stand && order.plan">
    <LensHead words="Stack" :detail="detail" />
    <FigureRow
      v-if="joint"
      :label="own ? 'Cut each support to' : 'Cut each support in it to'"
      :figure="joint.length"
      main
    />
    <FigureRow v-else label="Whole cake weighs" :figure="order.plan.stack.weight" main />
    <LensNotes subject="stack" />
    <button v-for="one in refused" :key="one.index" class="act wide" @click="place(one.index, one.x, one.y)">
      Move support {{ one.index + 1 }} to the nearest place
    </button>
    <button v-if="stronger" class="act wide" @click="takeStronger">
      Take {{ stronger.count }} {{ stronger.many }}
    </button>
    <template v-if="below">
      <h3>How it stands</h3>
      <ChoiceRow
        label="How it stands"
        :value="stand.kind"
        :choices="choicesOf<Tier['stand']['kind']>('stand')"
        :columns="1"
        @change="setKind"
      />
      <KindFields part="stand" :only="['gap_mm']" />
      <h3>How many supports</h3>
      <KindFields part="stand" :only="['sort']" />
      <SupportSchools :joint="below" />
      <KindFields v-if="stand.places !== 'free'" part="stand" :only="['count', 'school', 'fewer']" />
      <h3>Where they stand</h3>
      <KindFields part="stand" :only="stand.places === 'free' ? ['places'] : ['places', ...PLACED]" />
      <button v-if="stand.places !== 'free' && supports.length > 2" class="act wide" @click="setFree">
        Move them one by one
      </button>
      <p v-else class="soft">Drag them in the drawing, or choose one and use the arrow keys.</p>
      <FigureRow label="Inset from the edge" :figure="below.inset" />
      <FigureRow label="Apart, middle to middle" :figure="below.apart" />
      <KindFields part="stand" :only="['off_x_mm', 'off_y_mm']" />
    </template>
    <template v-else-if="inside">
      <h3>Below its hidden board</h3>
      <SupportSchools :joint="inside" />
      <FigureRow label="Inset from the edge" :figure="inside.inset" />
      <FigureRow label="Apart, middle to middle" :figure="inside.apart" />
    </template>
    <template v-if="above">
      <h3>Pushed into this tier</h3>
      <p class="soft">
        {{ above.count.value }} {{ above.many }} under {{ order.plan.tiers[order.tier + 1]?.name }},
        {{ above.kind === "pillars" ? "up out of this one" : "cut flush with the top of this one" }}.
      </p>
      <FigureRow v-if="own" label="Cut each to" :figure="above.length" />
      <FigureRow label="Each carries at most" :figure="mostOf(above)" />
      <FigureRow label="Inset from the edge of the board above" :figure="above.inset" />
      <FigureRow label="Apart, middle to middle" :figure="above.apart" />
    </template>
    <template v-if="own">
      <h3>What they bear</h3>
      <FigureRow label="Stands above" :figure="own.load" />
      <FigureRow label="The most loaded carries" :figure="mostOf(own)" />
      <FigureRow :label="`One ${own.one} bears`" :figure="own.bears" />
      <FigureRow label="Safety margin" :figure="own.spare" />
      <p class="soft">
        {{
          own.tested
            ? "By your own test."
            : "From memory. Test one of yours with the kitchen scale: the list of what you have says how."
        }}
      </p>
      <FigureRow label="Without supports it would press" :figure="own.pressure" />
      <FigureRow label="That is, of what cake bears" :figure="own.sinks" />
      <h3>How steady it is</h3>
      <FigureRow label="Tips at" :figure="own.edge" />
      <FigureRow label="Comes off its supports at" :figure="own.leans" />
      <FigureRow label="A push that tips it, of its weight" :figure="own.push" />
      <FigureRow
        :label="`Out of level by a support ${settings.words({ value: order.document?.practice.cut_error_mm ?? 0, unit: 'mm' })} off`"
        :figure="own.tilt"
      />
    </template>
    <template v-if="below">
      <h3>Glue and joint</h3>
      <GlueField field="glue_medium" words="Glued to the tier below with" />
      <FigureRow label="Dabs under it" :figure="order.plan.tiers[order.tier]?.stack.glue" />
      <KindFields part="stand" :only="['bead_mm']" />
      <GlueField field="bead_medium" words="Joint piped with" />
      <FigureRow label="Bead, long" :figure="below.bead_length" />
      <FigureRow label="Bead weighs" :figure="below.bead_weight" />
      <SameForAll :ways="SAME" />
    </template>
    <WholeStack />
    <CuttingRows />
    <KitNeeds :tools="['board', 'base board']" />
    <StackCards />
    <LensNotes subject="stack" cautions />
  </section>
</template>

<style scoped>
.wide {
  width: 100%;
  margin-top: 8px;
}

.soft {
  padding: 8px 0;
}
</style>
