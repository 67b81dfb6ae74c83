<script setup lang="ts">
/** What lies on the bench: sums and look-ups without a record. */
const { here } = defineProps<{
  here: 'size' | 'belt' | 'toothed' | 'chain' | 'speeds' | 'tables' | 'lists' | 'align'
}>()
</script>

<template>
  <header class="no-print">
    <h1>Bench</h1>
    <nav aria-label="On the bench">
      <router-link to="/bench/tables" :aria-current="here === 'tables' ? 'page' : undefined">Tables</router-link>
      <router-link to="/bench/lists" :aria-current="here === 'lists' ? 'page' : undefined">Own lists</router-link>
      <router-link to="/bench/size" :aria-current="here === 'size' ? 'page' : undefined">Size a drive</router-link>
      <router-link to="/bench/belt" :aria-current="here === 'belt' ? 'page' : undefined">Which V-belt?</router-link>
      <router-link to="/bench/toothed" :aria-current="here === 'toothed' ? 'page' : undefined"
        >Toothed belt</router-link
      >
      <router-link to="/bench/speeds" :aria-current="here === 'speeds' ? 'page' : undefined">Speeds</router-link>
      <router-link to="/bench/chain" :aria-current="here === 'chain' ? 'page' : undefined">Chain</router-link>
      <router-link to="/bench/align" :aria-current="here === 'align' ? 'page' : undefined"
        >Practise aligning</router-link
      >
    </nav>
    <span class="soft small">What lies here is on no drive’s record.</span>
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 22px;
  padding: 12px 20px 0;
  border-bottom: 1px solid var(--hair);
  flex-wrap: wrap;
}
nav {
  display: flex;
  gap: 4px;
}
a {
  min-height: 44px;
  display: flex;
  align-items: center;
  padding: 0 14px;
  color: var(--ink-2);
  text-decoration: none;
  font-stretch: 78%;
  font-size: 17px;
  border-bottom: 3px solid transparent;
}
a[aria-current] {
  color: var(--ink);
  font-weight: 640;
  border-bottom-color: var(--ember);
}
@media (max-width: 760px) {
  header {
    padding: 8px 12px 0;
    gap: 4px 12px;
  }
  nav {
    max-width: 100%;
    overflow-x: auto;
  }
  a {
    white-space: nowrap;
    padding: 0 11px;
  }
}
</style>
