import { defineEventHandler } from 'h3'
import { toString as qrCode } from 'qrcode'
import { mustBeSignedIn } from '../../../utils/session'
import { useTrough } from '../../../utils/trough'

/** A secret for an app that shows one-time codes, and the picture such apps read; nothing is changed yet. */
export default defineEventHandler(async event => {
  const {
    account: { id },
  } = await mustBeSignedIn(event)
  const { account, site } = await useTrough()
  const { secret, address } = await account.proposeSecondFactor(id, (await site.get()).name)
  return { secret, address, picture: await qrCode(address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }) }
})
