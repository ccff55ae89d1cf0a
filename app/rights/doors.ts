/** Pages of the desk where nobody is signed in, or not as who they are about to be. */
export const DOORS = ['/desk/sign-in', '/desk/set-up', '/desk/join', '/desk/lost']
