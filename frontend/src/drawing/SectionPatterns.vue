<script setup lang="ts">
/** What each thing in the half-section is filled with, by its kind: `sponge`, `filling`, `crumb`, `board` and so on. */
</script>

<template>
  <defs>
    <pattern id="sponge" width="11" height="11" patternUnits="userSpaceOnUse">
      <circle cx="2.5" cy="3" r="1" fill="var(--crumb)" opacity="0.42" />
      <circle cx="8" cy="8.5" r="0.8" fill="var(--crumb)" opacity="0.42" />
    </pattern>
    <pattern id="filling" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0V7" stroke="var(--ink)" stroke-width="1.6" opacity="0.32" />
    </pattern>
    <pattern id="seal" width="4" height="4" patternUnits="userSpaceOnUse">
      <path d="M0 2H4" stroke="var(--ink)" stroke-width="0.7" opacity="0.5" />
    </pattern>
    <pattern id="dam" width="6" height="6" patternUnits="userSpaceOnUse">
      <circle cx="3" cy="3" r="1.9" fill="none" stroke="var(--ink)" stroke-width="0.8" opacity="0.45" />
    </pattern>
    <pattern id="crumb" width="5" height="5" patternUnits="userSpaceOnUse">
      <path d="M1 1h1.4M3.5 3.6h1.4" stroke="var(--ink)" stroke-width="0.9" opacity="0.6" />
    </pattern>
    <pattern id="cover" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <path d="M0 0V5" stroke="var(--ink)" stroke-width="0.8" opacity="0.4" />
    </pattern>
    <pattern id="pale" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0V6" stroke="var(--panel)" stroke-width="1.1" opacity="0.4" />
    </pattern>
    <pattern id="board" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <path d="M0 0V6" stroke="var(--teal)" stroke-width="1.6" opacity="0.75" />
    </pattern>
  </defs>
</template>
