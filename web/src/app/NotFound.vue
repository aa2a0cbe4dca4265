<template>
  <v-main
    ><div class="page">
      <h1>There is no such page</h1>
      <p class="quiet my-3">The address may be mistyped, or what it named is gone.</p>
      <v-btn to="/jobs" color="primary">Go to the jobs</v-btn>
    </div></v-main
  >
</template>
