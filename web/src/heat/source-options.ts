import { sourceNamed, WARM_SOURCES } from '@nibrel/core/model/sources';

/** What a device is warmed with, as it stands on a switch. */
export const SOURCE_OPTIONS = WARM_SOURCES.map((value) => ({ value, label: sourceNamed(value).label }));
