/** The size of an element as it changes. */
import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";

export function useElementSize(element: Ref<HTMLElement | undefined>): {
  width: Ref<number>;
  height: Ref<number>;
} {
  const width = ref(0);
  const height = ref(0);
  let watcher: ResizeObserver | undefined;
  onMounted(() => {
    watcher = new ResizeObserver(([entry]) => {
      if (!entry) return;
      width.value = entry.contentRect.width;
      height.value = entry.contentRect.height;
    });
    if (element.value) watcher.observe(element.value);
  });
  onBeforeUnmount(() => watcher?.disconnect());
  return { width, height };
}
