declare module 'fs-native-extensions' {
  /** Asks the system for a lock on an open file; whether it was given. It ends when the file is closed. */
  export function tryLock(fd: number): boolean
}
