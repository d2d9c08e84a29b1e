/** Dragging: from where the pointer was pressed until it is let go, wherever it goes meanwhile. */
import type { PointerEvent as Pressed } from 'react';

/** px within which a hand that only presses may tremble. */
const TREMBLE = 2.5;

/**
 * Follows the pointer that pressed, once it has gone farther than a press may tremble.
 * @param move at each of its moves
 * @param end once it is let go; `dropped` is false where the browser took it away
 * @param handle who takes hold of it, where that is not who was pressed
 */
export function drag(
  event: Pressed<Element>,
  move: (e: PointerEvent) => void,
  end?: (e: PointerEvent, dropped: boolean) => void,
  handle: Element = event.currentTarget,
): void {
  handle.setPointerCapture(event.pointerId);
  const { clientX, clientY } = event;
  let going = false;
  const follow = (e: Event) => {
    const now = e as PointerEvent;
    going ||= Math.hypot(now.clientX - clientX, now.clientY - clientY) > TREMBLE;
    if (going) move(now);
  };
  const over = (e: Event) => {
    handle.removeEventListener('pointermove', follow);
    handle.removeEventListener('pointerup', over);
    handle.removeEventListener('pointercancel', over);
    end?.(e as PointerEvent, e.type === 'pointerup');
  };
  handle.addEventListener('pointermove', follow);
  handle.addEventListener('pointerup', over);
  handle.addEventListener('pointercancel', over);
}
