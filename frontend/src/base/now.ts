/** The hour on the wall, kept up to date while the component that uses it is on screen. */
import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";

const TICK_MS = 20_000;

export function useNow(): Ref<Date> {
  const now = ref(new Date());
  let timer: ReturnType<typeof setInterval> | undefined;
  onMounted(() => {
    now.value = new Date();
    timer = setInterval(() => (now.value = new Date()), TICK_MS);
  });
  onBeforeUnmount(() => clearInterval(timer));
  return now;
}
