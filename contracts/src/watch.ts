import type { StandingVehicle } from '@voltrek/core/belief';
import * as yup from 'yup';
import type { Person, VehicleNumbers } from './record.js';

/** A vehicle that a house has worked on, as its jobs left it: a watch tells from it how it starts on a cold night. */
export interface WatchedVehicle extends VehicleNumbers {
  readonly id: string;
  readonly modelName: string;
  /** The place of its last job. */
  readonly placeName: string;
  readonly owner: Person | null;
  readonly standing: StandingVehicle;
}

/** A page of watched vehicles. */
export interface WatchPage {
  readonly vehicles: readonly WatchedVehicle[];
  /** The cursor of the next page; null on the last. */
  readonly next: string | null;
}

/** Nights of a forecast at most. */
export const FORECAST_NIGHTS_MOST = 14;

/** The lows of the nights to come at a place, the next night first. */
export interface Forecast {
  readonly place: string;
  readonly nights: readonly {
    /** The day on which the night ends, ISO 8601. */
    readonly day: string;
    readonly lowC: number;
  }[];
}

/** A forecast from outside. @throws yup.ValidationError when it is none */
export const FORECAST = yup
  .object({
    place: yup.string().required(),
    nights: yup
      .array(
        yup
          .object({
            day: yup
              .string()
              .matches(/^\d{4}-\d{2}-\d{2}$/)
              .required(),
            lowC: yup.number().min(-60).max(60).required(),
          })
          .required(),
      )
      .min(1)
      .max(FORECAST_NIGHTS_MOST)
      .required(),
  })
  .required();
