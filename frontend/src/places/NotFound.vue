<template>
  <div class="none stack">
    <h1>Nothing here</h1>
    <p>This address leads nowhere. The drive may have been moved, or the link was cut short.</p>
    <p><router-link to="/floor">Back to the floor</router-link></p>
  </div>
</template>

<style scoped>
.none {
  padding: 40px 28px;
}
</style>
