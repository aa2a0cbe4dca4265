import type { ObjectDirective } from 'vue'

/**
 * Puts the cursor into a field as soon as it is there. A text field's own autofocus waits until it is seen to be in view, and takes the
 * cursor away from whoever types in the next field by then.
 */
export const vFocus: ObjectDirective<HTMLElement> = {
  mounted(element) {
    element.querySelector('input')?.focus()
  },
}
