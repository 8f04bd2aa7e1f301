export { analyseForce, analyseMat, CAPTURE, steadyAngle, tareOf } from './analyse.ts';
export type { ForceCapture, MatCapture } from './analyse.ts';
export {
  DEVICE_KINDS,
  DEVICE_PROTOCOL,
  deviceCommandSchema,
  deviceKindSchema,
  deviceMessageSchema,
} from './protocol.ts';
export type { DeviceCommand, DeviceKind, DeviceMessage } from './protocol.ts';
export { angleTrace, forceTrace, matEvents, SAMPLE_HZ } from './simulate.ts';
