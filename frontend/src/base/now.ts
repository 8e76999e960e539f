/** The hour on the wall, and what is done over and over, while a component is on screen. */
import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";

const TICK_MS = 20_000;

/** Do something over and over while the component that asks is on screen. */
export function useEvery(ms: number, what: () => void): void {
  let timer: ReturnType<typeof setInterval> | undefined;
  onMounted(() => (timer = setInterval(what, ms)));
  onBeforeUnmount(() => clearInterval(timer));
}

/** The hour on the wall. */
export function useNow(): Ref<Date> {
  const now = ref(new Date());
  useEvery(TICK_MS, () => (now.value = new Date()));
  return now;
}
