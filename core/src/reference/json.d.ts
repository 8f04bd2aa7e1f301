// JSON is imported untyped: inferring types from a megabyte of drills slows every editor down.
declare module '*.json' {
  const value: unknown;
  export default value;
}
