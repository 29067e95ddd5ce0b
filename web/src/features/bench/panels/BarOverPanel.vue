<template>
  <div>
    <p class="mx-how">
      Two turns of the crank are one of the cam: every follower has been over its lobe once and settled.
    </p>
    <VAlert role="note">Hands clear of rockers, cams, belts and pulleys. Call, and wait for the answer.</VAlert>
  </div>
</template>
