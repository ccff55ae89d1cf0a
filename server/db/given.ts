/** Whether there is anything to set: a key with nothing in it changes nothing. */
export const anyGiven = (values: object): boolean => Object.values(values).some(value => value !== undefined)
