<script setup lang="ts">
/** An order: lenses at the left, the half-section, the lens's own decisions, and the bowls below. */
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from "vue";
import { onBeforeRouteLeave, useRoute, useRouter } from "vue-router";
import { Refused, UNREAD } from "@/api/client";
import HalfSection from "@/drawing/HalfSection.vue";
import { usePantry } from "@/kitchen/pantry";
import { LENSES, lensCalled } from "@/lenses";
import type { Lens, LensView } from "@/lenses/parts/lens";
import { useOrder } from "@/order/order";
import { wrongWords } from "@/order/wrong";
import { useDesk } from "@/ui/desk";
import { everSo, loadTheRest } from "@/ui/later";
import { asked } from "@/ui/working";
import AwaitedCake from "./AwaitedCake.vue";
import BowlStrip from "./BowlStrip.vue";
import FirstWalk from "./FirstWalk.vue";
import { useKeys } from "./keys";
import { DIALOGS, OrderWorking, StaleDialog, UnreadOrder } from "./late";
import LensSpine from "./LensSpine.vue";
import OrderBar from "./OrderBar.vue";
import StrayDraft from "./StrayDraft.vue";
import WorkingNotice from "./WorkingNotice.vue";

const props = defineProps<{ id: string; lens?: string }>();
const router = useRouter();
const route = useRoute();
const order = useOrder();
const desk = useDesk();
const pantry = usePantry();
const begun = ref(false);
const trouble = ref("");
const unread = ref("");

const current = computed(() => lensCalled(props.lens));
/** The lens looked through: the one before stays until the next one is loaded. */
const shown = shallowRef<{ lens: Lens; view: LensView }>();
const notLoaded = ref("");
watch(
  current,
  async (lens) => {
    try {
      const { view } = await lens.load();
      if (lens === current.value) shown.value = { lens, view };
      notLoaded.value = "";
    } catch {
      notLoaded.value = `${lens.words} cannot be loaded just now. Your edits are safe: load the page again when the kitchen's server is back.`;
    }
  },
  { immediate: true },
);
const below = computed(() => {
  const tier = order.plan?.tiers[order.tier];
  const carries = order.tier + 1 < (order.plan?.tiers.length ?? 0);
  const asked = shown.value?.view.below;
  return tier && asked?.shown(tier, carries) ? asked : null;
});
const dialogs = Object.entries(DIALOGS).map(([name, what]) => ({
  name,
  what,
  wanted: everSo(() => route.query.open === name),
}));
const workingWanted = everSo(() => asked.value !== null);
const staleWanted = everSo(() => order.stale !== null);
watch(
  () => order.plan !== null,
  (planned) => {
    if (planned) loadTheRest(LENSES.map(({ load }) => load));
  },
);
/** The figures on screen are from before the last change. */
const outdated = computed(
  () => !!order.plan && !order.planUnreachable && (order.behind || order.stopped || !!order.stillWorking),
);
async function begin(): Promise<void> {
  begun.value = false;
  trouble.value = "";
  unread.value = "";
  try {
    const named = route.query.tier;
    await order.open(props.id);
    order.tier = Math.max(0, order.document?.design.tiers.findIndex((tier) => tier.id === named) ?? 0);
    begun.value = true;
  } catch (error) {
    if (error instanceof Refused && error.problem.type === UNREAD) unread.value = error.problem.detail;
    trouble.value =
      error instanceof Refused && error.problem.status < 500
        ? "There is no such order. It may have been opened from an old link."
        : "The kitchen's server cannot be reached just now. Your orders are safe where they are.";
  }
}

function look(lens: string): void {
  void router.replace({ name: "order", params: { id: props.id, lens }, query: route.query });
}

/** The tier in hand stands in the address, so that a page loaded anew or sent on shows it. */
watch([() => order.tier, () => route.query.open, begun], () => {
  if (!begun.value || route.query.open !== undefined) return;
  const tier = order.tier > 0 ? order.tierId : undefined;
  if (route.query.tier !== tier) void router.replace({ query: { ...route.query, tier } });
});

useKeys(look);
const panel = ref<HTMLElement>();
function skip(): void {
  panel.value?.focus();
}
/** Every lens opens at its head, which takes the focus so that it is read out. */
watch(
  () => shown.value?.lens.name,
  () => {
    panel.value?.scrollTo({ top: 0 });
    panel.value?.querySelector<HTMLElement>("h2")?.focus({ preventScroll: true });
  },
  { flush: "post" },
);

function warnIfUnsaved(event: BeforeUnloadEvent): void {
  if (order.status === "refused" || order.status === "stale" || order.undrafted || pantry.underway > 0)
    event.preventDefault();
}

watch(() => props.id, begin);
watch([() => props.lens, () => order.tier], () => (asked.value = null));
watch(
  () => order.document?.title,
  (title) => (document.title = title ? `${title} · Amber Spread` : "Amber Spread"),
);
onMounted(() => {
  window.addEventListener("beforeunload", warnIfUnsaved);
  void begin();
  void pantry.open();
});
onBeforeUnmount(() => {
  window.removeEventListener("beforeunload", warnIfUnsaved);
  asked.value = null;
});
onBeforeRouteLeave(async () => {
  await order.flush();
});
</script>

<template>
  <UnreadOrder v-if="unread" :id="id" :reason="unread" @readable="begin" />
  <main v-else-if="trouble && !order.document" class="lost">
    <h1>{{ trouble }}</h1>
    <p><RouterLink to="/">Back to the shelf</RouterLink></p>
    <button class="act main" @click="begin">Try again</button>
  </main>
  <div v-else-if="order.document" class="order" :class="{ old: outdated }">
    <a class="skip" href="#decided" @click.prevent="skip">Skip to what is decided</a>
    <OrderBar :lens="current.name" @trouble="(words) => (trouble = words)" />
    <LensSpine :current="current.name" @look="look" />
    <main class="middle" :class="{ halved: below, beside: below?.beside }">
      <p v-if="order.planUnreachable" class="banner" role="alert">
        The kitchen's server cannot be reached.
        {{
          order.undrafted
            ? "This browser has no room for your edits: leave this page open, and they are saved when it is back."
            : "Your edits are kept in this browser; the figures will follow when it is back."
        }}
      </p>
      <p v-else-if="desk.complaints[0]" class="banner" role="alert">
        These figures are from before the last edit. {{ wrongWords(desk.complaints[0], order.document) }}
      </p>
      <p v-if="trouble || notLoaded" class="banner" role="alert">{{ trouble || notLoaded }}</p>
      <WorkingNotice />
      <AwaitedCake v-if="!order.plan" :id="order.id" :tiers="order.document.design.tiers" />
      <StrayDraft />
      <component :is="shown.view.middle" v-if="shown?.view.middle" />
      <HalfSection
        v-else-if="shown"
        :notes="shown.view.notes"
        :over="shown.view.over"
        :by-plate="shown.view.byPlate"
        :heights="shown.view.heights"
        :glass="shown.view.glass"
      />
      <component :is="below.what" v-if="below" />
    </main>
    <aside
      id="decided"
      ref="panel"
      class="panel"
      tabindex="-1"
      :aria-label="`${shown?.lens.name ?? current.name} lens`"
    >
      <template v-if="!order.plan && !desk.complaints.length">
        <h2 tabindex="-1">{{ current.words }}</h2>
        <p v-if="!order.stopped">
          The numbers come as soon as this cake is worked out. What you change meanwhile is saved.
        </p>
      </template>
      <component :is="shown.view.panel" v-if="shown" />
    </aside>
    <footer v-if="!shown?.view.ownBowls" class="foot"><BowlStrip /></footer>
    <FirstWalk />
    <OrderWorking v-if="workingWanted" />
    <StaleDialog v-if="staleWanted" />
    <template v-for="{ name, what, wanted } in dialogs" :key="name">
      <component :is="what" v-if="wanted.value" />
    </template>
  </div>
  <main v-else class="lost" aria-live="polite"><p>Opening the order …</p></main>
</template>

<style scoped>
/* Figures that are old look old. */
.old .middle > :deep(:not(.working, .banner)),
.old .panel :deep(.row),
.old .foot {
  animation: age 1ms 0.7s both;
}

.old .middle :deep(svg),
.old .foot :deep(svg) {
  animation: fade 1ms 0.7s both;
}

@keyframes age {
  to {
    filter: grayscale(1);
    font-style: italic;
  }
}

@keyframes fade {
  to {
    opacity: 0.5;
  }
}

.order {
  display: grid;
  grid-template: auto minmax(0, 1fr) auto / 112px minmax(0, 1fr) 352px;
  grid-template-areas: "bar bar bar" "spine middle panel" "foot foot foot";
  position: relative;
  height: 100%;
  min-height: 540px;
}

.skip {
  position: absolute;
  z-index: 9;
  top: -60px;
  left: 12px;
  padding: 10px 14px;
  background: var(--panel);
}

.skip:focus {
  top: 6px;
}

.middle {
  grid-area: middle;
  position: relative;
  min-width: 0;
}

.middle.halved {
  display: grid;
  grid-template-rows: minmax(0, 1fr) 42%;
}

.middle.beside {
  grid-template: minmax(0, 1fr) / minmax(0, 1fr) 31%;
}

.banner {
  position: absolute;
  z-index: 2;
  right: 12px;
  left: 12px;
  top: 8px;
  padding: 8px 12px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}

.panel {
  grid-area: panel;
  position: relative;
  overflow: hidden auto;
  padding: 18px 20px 26px;
  border-left: 1px solid var(--rule);
  background: var(--panel);
}

/* It takes the focus from the link that skips to it, and shows that by its own head. */
.panel:focus {
  outline: none;
}

.panel :deep(.rows > *) {
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
}

.panel :deep(h3) {
  margin: 16px 0 6px;
  font-size: 19px;
}

.panel :deep(fieldset) {
  margin: 10px 0 6px;
}

.panel :deep(.same) {
  display: grid;
  gap: 8px;
  margin-top: 14px;
}

.panel :deep(.same.two) {
  grid-template-columns: 1fr 1fr;
}

.panel :deep(.reach) {
  display: grid;
  gap: 8px;
  padding: 10px 0;
}

.panel :deep(.row.main) {
  margin-top: 12px;
}

.foot {
  grid-area: foot;
  overflow: hidden;
  border-top: 1px solid var(--rule);
  background: var(--shelf);
}

.lost {
  display: grid;
  gap: 16px;
  place-content: center;
  justify-items: start;
  height: 100%;
}

@media (width < 1180px) {
  .order {
    grid-template-columns: 100px minmax(0, 1fr) 320px;
  }
}

/* Printed by the browser's own menu: the drawing and what is decided, without what is pressed. */
@media print {
  .order {
    display: block;
    height: auto;
  }

  .foot {
    display: none;
  }

  .middle {
    height: 150mm;
    break-inside: avoid;
  }

  .panel {
    overflow: visible;
    border: 0;
  }
}

/* One column: lenses as a row, the drawing first, then what is decided, then the bowls. The page scrolls. */
@media (width < 900px) {
  .order {
    grid-template: auto auto auto auto auto auto / minmax(0, 1fr);
    grid-template-areas: "bar" "spine" "walk" "middle" "panel" "foot";
    height: auto;
    min-height: 100%;
  }

  .middle {
    height: clamp(340px, 60vh, 640px);
  }

  .middle.halved,
  .middle.beside {
    grid-template: minmax(0, 1fr) 40% / minmax(0, 1fr);
    height: clamp(560px, 92vh, 980px);
  }

  .panel {
    overflow: visible;
    border-top: 1px solid var(--rule);
    border-left: 0;
  }
}
</style>
