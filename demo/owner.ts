/** Signs in to the demo's desk. */
export const OWNER = { email: 'owner@marlpit.example', password: 'marlpit-demo' }
/** The same for who helps in the yard, and puts in delivery notes. */
export const YARD = { email: 'yard@marlpit.example', password: 'marlpit-yard' }
