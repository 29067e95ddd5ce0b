<template>
  <div>
    <p class="mx-how">
      Two turns of the crank are one of the cam: every follower goes over its lobe and settles. Nothing is read on the
      way.
    </p>
    <VAlert role="note">Hands clear of rockers, cams, belts and pulleys. Call, and wait for the answer.</VAlert>
  </div>
</template>
