import { MouseSensor, TouchSensor, useSensor, useSensors } from '@dnd-kit/core';

/** A card is taken anywhere: a click opens it, a finger that moves at once scrolls. */
export const useCardSensors = () =>
  useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 6 } }),
  );
