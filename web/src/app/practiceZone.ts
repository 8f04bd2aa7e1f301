let zone: string | undefined;

/** From now on today is what it is in this time zone (IANA name): the practice’s, not the device’s. */
export function setTimeZone(name: string): void {
  zone = name;
}

/** The practice's time zone; undefined before anybody is signed in. */
export const practiceZone = (): string | undefined => zone;
