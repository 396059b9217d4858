/** Whether a button of the pointer is down: what is dragged is being dragged. */
let pressed = false;

for (const name of ['pointerdown', 'pointermove', 'pointerup', 'pointercancel'] as const) {
  window.addEventListener(name, (event) => (pressed = name !== 'pointercancel' && event.buttons > 0), true);
}

export const isPressed = (): boolean => pressed;
