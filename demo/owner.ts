/** Signs in to the demo's desk. */
export const OWNER = { email: 'owner@marlpit.example', password: 'marlpit-demo' }
