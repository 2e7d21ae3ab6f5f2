/** How dragging begins. The same object each time: another would draw all that can be dragged anew. */
export const pointing = {
  /** A click that moves less than so many px is no drag. */
  activationConstraint: { distance: 6 },
}
