<template>
  <main class="view empty">
    <h1>There is nothing at this address</h1>
    <p><router-link to="/" class="link">All builds</router-link></p>
  </main>
</template>
