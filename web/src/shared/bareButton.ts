/**
 * The classes of a plain button of the library, for one where many are drawn anew with every step: as a component each costs a
 * slow tablet two milliseconds. What it says stands in an element of the class v-btn__content.
 */
export const bareButton = 'v-btn v-btn--density-default v-btn--size-default v-btn--variant-outlined'
