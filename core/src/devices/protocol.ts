import { z } from 'zod';

/** Measuring devices that a stand-in ships for. */
export const DEVICE_KINDS = ['dynamometer', 'inclinometer', 'contact-mat'] as const;
/** One of the kinds of device. */
export const deviceKindSchema = z.enum(DEVICE_KINDS);
export type DeviceKind = z.infer<typeof deviceKindSchema>;

/** Name and version of what devices and product say to each other (docs/devices.md). */
export const DEVICE_PROTOCOL = 'yonder-device/1';

/** What a device says: who it is, samples at an even rate, contacts of a mat, the end of a recording. Times in ms since its start. */
export const deviceMessageSchema = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('hello'),
    protocol: z.literal(DEVICE_PROTOCOL),
    device: deviceKindSchema,
    unit: z.enum(['N', 'deg', 'ms']),
    hz: z.number().positive().max(1000),
    simulated: z.boolean(),
  }),
  z.object({ type: z.literal('samples'), t: z.number().min(0), values: z.array(z.number()).max(500) }),
  z.object({ type: z.literal('contact'), t: z.number().min(0), down: z.boolean() }),
  z.object({ type: z.literal('end') }),
]);
export type DeviceMessage = z.infer<typeof deviceMessageSchema>;

/** What a device is told. `about` is the value a stand-in plays around, in the device's unit; `seed` makes it repeatable. */
export const deviceCommandSchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('start'),
    about: z.number().min(0).max(5000).optional(),
    seed: z.number().int().min(0).max(2_147_483_647).optional(),
  }),
  z.strictObject({ type: z.literal('stop') }),
]);
export type DeviceCommand = z.infer<typeof deviceCommandSchema>;
