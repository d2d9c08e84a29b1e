/** Intended curves as an editor changes them. Pure; the list is made anew. */
import { type Brief, type CurvePoint, type IntendedCurve, idFor, intendedFor } from '@insidia/core';

type Curves = readonly IntendedCurve[];

const newId = (wanted: string, curves: Curves) =>
  idFor(
    wanted,
    curves.map(({ id }) => id),
  );

/** Share of a second's health that a new curve lets the pressure lie away from it. */
const TOLERANCE = 0.01;

/** Changes the curve that counts at a tier, or makes one for every tier; without points it goes. */
export function withPoints(brief: Brief | undefined, encounter: string, tier: string | undefined, points: CurvePoint[]): IntendedCurve[] {
  const curves = brief?.curves ?? [];
  const now = intendedFor(brief, encounter, tier);
  if (now && points.length) return curves.map((one) => (one.id === now.id ? { ...one, points } : one));
  if (now) return curves.filter(({ id }) => id !== now.id);
  return points.length ? [...curves, { id: newId(`curve-${encounter}`, curves), encounter, tolerance: TOLERANCE, points }] : [...curves];
}

export const withTolerance = (curves: Curves, id: string, tolerance: number): IntendedCurve[] =>
  curves.map((one) => (one.id === id ? { ...one, tolerance } : one));

/** A tier has a curve of its own from now on, at first the one that counted there. */
export const ownAt = (curves: Curves, intended: IntendedCurve, tier: string): IntendedCurve[] => [
  ...curves,
  { ...structuredClone(intended), id: newId(`curve-${intended.encounter}-${tier}`, curves), tier },
];

export const withoutCurve = (curves: Curves, id: string): IntendedCurve[] => curves.filter((one) => one.id !== id);
