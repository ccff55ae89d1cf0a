import {
  mdiEmailOutline,
  mdiFileOutline,
  mdiFormTextbox,
  mdiTextBoxMultipleOutline,
  mdiOpenInNew,
  mdiPhoneOutline,
  mdiSignDirection,
  mdiTextBoxOutline,
} from '@mdi/js'
import type { Target } from '~~/core/page/schema'

export const TARGET_ICONS: Record<Target['kind'], string> = {
  file: mdiFileOutline,
  page: mdiTextBoxOutline,
  signpost: mdiSignDirection,
  address: mdiOpenInNew,
  email: mdiEmailOutline,
  phone: mdiPhoneOutline,
  entry: mdiTextBoxMultipleOutline,
  field: mdiFormTextbox,
}
